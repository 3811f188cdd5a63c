/** Opens the database before the first request. */
export default defineNitroPlugin(async () => {
  await useDb()
})
