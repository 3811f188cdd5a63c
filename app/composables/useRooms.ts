import { valueOf, type Subject } from '#core'

type Draft = Parameters<ReturnType<typeof useJobStore>['record']>[0][number]
type Room = Subject<'room'>
type Outlet = Subject<'outlet'>

/** Kinds one adds with a tap; everything about them is tapped or said after. */
export const OUTLET_KINDS = [
  { type: 'receptacle', word: 'Receptacle', icon: 'lucide:plug' },
  { type: 'switch', word: 'Switch', icon: 'lucide:toggle-left' },
  { type: 'luminaire', word: 'Light', icon: 'lucide:lightbulb' },
] as const
/** What the face shows and is often the same all round a room; nothing that is measured, or in the box. */
const ALIKE = [
  'slots',
  'deviceAmps',
  'condition',
  'cover',
  'isTamperResistant',
  'appliance',
] as const
/** Id of the place for what has no room yet. */
export const LOST = 'lost'

/** Rooms in the order they are walked, the outlets of each from the door around, and what is done to both. */
export function useRooms() {
  const job = useJobStore()
  const inOrder = <T extends Room | Outlet>(list: readonly T[]): T[] =>
    list
      .map((thing, i) => ({ thing, at: valueOf(thing as Room, 'order') ?? i }))
      .sort((a, b) => a.at - b.at)
      .map(x => x.thing)
  const rooms = computed(() => inOrder(job.site.all.room))
  const byRoom = computed(() => {
    const map = new Map<string, Outlet[]>()
    for (const p of job.site.all.outlet) {
      const room = valueOf(p, 'room') ?? LOST
      const list = map.get(room)
      if (list) list.push(p)
      else map.set(room, [p])
    }
    for (const [room, list] of map) map.set(room, inOrder(list))
    return map
  })
  const outletsOf = (room: string): readonly Outlet[] => byRoom.value.get(room) ?? []
  const note = (subject: string, field: string, value: string | number): Draft => ({
    act: 'note',
    subject,
    field,
    value,
    grade: 'seen',
  })
  const reorder = (ids: readonly string[]) => job.record(ids.map((id, i) => note(id, 'order', i)))

  /** A name nobody has yet: the word alone where it is free, else with the next number. */
  function freeName(
    word: string,
    taken: ReadonlySet<string | undefined>,
    isBareFree: boolean,
  ): string {
    if (isBareFree && !taken.has(word)) return word
    let n = isBareFree ? 2 : 1
    while (taken.has(`${word} ${n}`)) n++
    return `${word} ${n}`
  }
  /** A room by its use, in one tap: the second bedroom is "Bedroom 2". */
  function addRoom(use: string): string {
    const id = crypto.randomUUID()
    const taken = new Set(job.site.all.room.map(r => valueOf(r, 'name')))
    job.record([
      { act: 'add', subject: id, kind: 'room', parent: 'premises' },
      note(id, 'use', use),
      note(id, 'name', freeName(sentenceCase(use.replace(/,.*/, '')), taken, true)),
      note(id, 'order', rooms.value.length),
    ])
    return id
  }
  /** So many outlets of a kind at the end of a room's strip, in one step of undo; answers with their ids. */
  function addOutlets(room: string, type: string, count: number): readonly string[] {
    const word = OUTLET_KINDS.find(k => k.type === type)?.word ?? sentenceCase(type)
    const taken = new Set(outletsOf(room).map(o => valueOf(o, 'name')))
    const drafts: Draft[] = []
    const ids: string[] = []
    for (let i = 0; i < count; i++) {
      const id = crypto.randomUUID()
      const name = freeName(word, taken, false)
      taken.add(name)
      ids.push(id)
      drafts.push(
        { act: 'add', subject: id, kind: 'outlet', parent: 'premises' },
        note(id, 'room', room),
        note(id, 'type', type),
        note(id, 'name', name),
        note(id, 'order', outletsOf(room).length + i),
      )
    }
    job.record(drafts)
    return ids
  }
  /** Says where an outlet is; the second by the window is "by the window 2". */
  function placeName(outlet: Outlet, where: string) {
    const others = outletsOf(valueOf(outlet, 'room') ?? LOST).filter(o => o !== outlet)
    const taken = new Set(others.map(o => valueOf(o, 'name')))
    job.record([note(outlet.id, 'name', freeName(where, taken, true))])
  }
  /** What would be copied from one outlet to the others of its kind here: only what is still unseen there. */
  function alikeOf(model: Outlet): readonly Draft[] {
    const type = valueOf(model, 'type')
    const known = ALIKE.filter(f => valueOf(model, f) !== undefined)
    const others = outletsOf(valueOf(model, 'room') ?? LOST).filter(
      o => o !== model && valueOf(o, 'type') === type,
    )
    return others.flatMap(o =>
      known
        .filter(f => o.facts[f].state === 'unseen')
        .map(f => note(o.id, f, valueOf(model, f) as string | number)),
    )
  }
  /** The room on screen: the one asked for, else the first; without any, what has no room yet. */
  function shownAt(room: string): { room: Room | undefined; outlets: readonly Outlet[] } {
    const chosen = rooms.value.find(r => r.id === room) ?? rooms.value[0]
    if (room === LOST || !chosen) return { room: undefined, outlets: outletsOf(LOST) }
    return { room: chosen, outlets: outletsOf(chosen.id) }
  }

  return { rooms, shownAt, outletsOf, reorder, addRoom, addOutlets, placeName, alikeOf }
}
