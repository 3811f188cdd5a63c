/**
 * Elsewhere the service worker keeps the code of every page on the device. Where there is none, as over plain HTTP from
 * another machine, it is fetched once the first page rests, so that the others open when the network is gone.
 */
export default defineNuxtPlugin(() => {
  if ('serviceWorker' in navigator) return
  const pages = useRouter().getRoutes()
  onNuxtReady(async () => {
    for (const { path } of pages) await preloadRouteComponents(path).catch(() => undefined)
  })
})
