/** Opens the database before the first request, and fills in the demo houses where this is the demo. */
export default defineNitroPlugin(async () => {
  const db = await useDb()
  if (isDemo()) await seedDemo(db)
})
