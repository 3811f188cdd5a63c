import ical from 'ical-generator'
import { appointmentsOf, valueOf, type Subject } from '../../../../core'

/** The visits of a job for a calendar. */
export default defineEventHandler(async event => {
  const { db, row } = await requireJob(event)
  const { house } = await ledgerOf(db, row.id)
  const premises = house.subjects.get('premises') as Subject<'premises'> | undefined
  const calendar = ical({ name: row.name || 'Corvit', prodId: '//Corvit//Corvit//EN' })
  for (const { id, on, what } of appointmentsOf(house))
    calendar.createEvent({
      id: `${row.id}-${id}@corvit`,
      start: new Date(`${on}T00:00:00`),
      allDay: true,
      summary: what,
      location: valueOf(premises, 'street') ?? null,
      stamp: new Date(row.changed_at),
    })
  sendAs(event, 'text/calendar; charset=utf-8', `${fileName(row.name)}.ics`)
  return calendar.toString()
})
