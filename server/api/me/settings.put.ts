import { OwnSettings } from '../../../shared/files'

export default defineEventHandler(async event => {
  const settings = await readInput(event, OwnSettings)
  await keepOwnSettings(await useDb(), requireAsker(event), settings)
  return settings
})
