/** Pictures this device has not sent yet, as addresses an image can show; let go when the component goes. */
export function useWaitingPictures() {
  const device = useDeviceStore()
  const urls = new Map<string, string>()
  onScopeDispose(() => {
    for (const url of urls.values()) URL.revokeObjectURL(url)
  })
  function urlOf(subject: string): string | undefined {
    const waiting = device.photos.find(p => p.subject === subject)
    if (!waiting) return undefined
    let url = urls.get(subject)
    if (!url) urls.set(subject, (url = URL.createObjectURL(waiting.picture)))
    return url
  }
  return { urlOf }
}
