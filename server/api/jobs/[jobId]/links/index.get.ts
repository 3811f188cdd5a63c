import { Links } from '../../../../../shared/people'
import { linksOf } from '../../../../queries/people'

export default defineEventHandler(async event => {
  const { db, row } = await requireJob(event, 'manage')
  return Links.parse({ links: (await linksOf(db, row.id)).map(linkOut) })
})
