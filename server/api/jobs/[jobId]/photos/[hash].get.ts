import { PhotoQuery } from '../../../../../shared/api'

export default defineEventHandler(async event => {
  const { size } = readQuery(event, PhotoQuery)
  const { db, row } = await requireJob(event)
  const bytes = await readPhoto(db, row.id, getRouterParam(event, 'hash'), size === 'thumb')
  setHeader(event, 'content-type', 'image/jpeg')
  setHeader(event, 'cache-control', 'private, max-age=31536000, immutable')
  return bytes
})
