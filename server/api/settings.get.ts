export default defineEventHandler(async () => settingsOf(await useDb()))
