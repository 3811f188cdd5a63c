import { StoredPhoto } from '../../../../../shared/api'

export default defineEventHandler(async event => {
  const { db, row } = await requireJob(event)
  const stored = await storePhoto(db, row.id, await readBytes(event, MAX_PHOTO_BYTES))
  setResponseStatus(event, 201)
  return StoredPhoto.parse(stored)
})
