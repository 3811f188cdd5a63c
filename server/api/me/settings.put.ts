import { OwnSettings } from '../../../shared/files'

export default defineEventHandler(async event => {
  const read = await readInput(event, OwnSettings)
  const settings = { ...read, signature: await plainSignature(read.signature) }
  await keepOwnSettings(await useDb(), requireAsker(event), settings)
  return settings
})
