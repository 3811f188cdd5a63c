import {
  assess,
  editOf,
  Ledger,
  logSince,
  logLine,
  differenceOf,
  paperText,
  paperToSign,
  reportPaper,
  returnSheet,
  returnVisitsOf,
  sealText,
  sheetOf,
  signingsOf,
  Site,
  recordedScope,
  visitOf,
  unsettledOf,
  visitsSideBySide,
  withChanges,
  withClocks,
  type House,
  type RawObservation,
  type WorkChange,
} from '#core'
import { observe, panel, run, type Node } from '../../support/house'

/** One overfused circuit, and nothing else known. */
const wire = (size: string) => ({ size, metal: 'copper', wiring: 'NM-B', terminalsC: 60 })
const OVERFUSED = panel([run(20, wire('14'), { label: 'Bedroom' })])
const ledgerOf = (node: Node) => new Ledger(observe(node))
const text = (house: House, voice: Parameters<typeof reportPaper>[1] = 'inspector') =>
  paperText(reportPaper(house, voice))
const faultOf = (house: House, rule: string) =>
  assess(house).results.find(r => r.rule === rule && r.outcome === 'fault')

/** Records as the application does, an hour later each time. */
let hour = 0
function record(ledger: Ledger, changes: readonly WorkChange[], by = 'R. Ambersley'): void {
  hour++
  const raw = changes.map((c, i): RawObservation => {
    const stamp = {
      id: `r${hour}-${i}`,
      at: new Date(Date.UTC(2030, 0, 1, hour, 0, i)).toISOString(),
      by,
    }
    return c.act === 'note'
      ? { ...stamp, grade: 'seen', ...c }
      : ({ ...stamp, ...c } as RawObservation)
  })
  ledger.append(withClocks(raw))
}
const edit = (
  rule: string,
  of: string,
  facts: Readonly<Record<string, string | boolean | number>>,
) => {
  const subject = `edit ${rule} ${of}`.replaceAll(' ', '-')
  return [
    { act: 'add', subject, kind: 'edit', parent: 'premises' },
    ...Object.entries({ rule, of, ...facts }).map(([field, value]) => ({
      act: 'note',
      subject,
      field,
      value,
    })),
  ] as readonly WorkChange[]
}

describe('an edited report', () => {
  const { house } = ledgerOf(OVERFUSED)
  const finding = faultOf(house, 'overfused-conductor')
  it('has a finding to edit', () => {
    expect(finding?.subject.id).toBe('s')
    expect(text(house)).toContain(finding?.why)
  })
  it('tells it in the person’s words, and judges it as before', () => {
    const worded = withChanges(
      house,
      edit('overfused-conductor', 's', { words: 'The breaker is more than this wire bears' }),
    )
    expect(text(worded)).toContain('The breaker is more than this wire bears.')
    expect(text(worded)).not.toContain(finding?.why)
    expect(faultOf(worded, 'overfused-conductor')?.why).toBe(finding?.why)
  })
  it('leaves out only with a reason, says so, and never what is to be made safe now', () => {
    const left = withChanges(house, edit('overfused-conductor', 's', { isLeftOut: true }))
    expect(text(left)).not.toContain('Left out by')
    const why = withChanges(
      house,
      edit('overfused-conductor', 's', { isLeftOut: true, reason: 'Told to the seller already' }),
    )
    for (const voice of ['inspector', 'electrician', 'corrections', 'insurance', 'rental'] as const)
      expect(text(why, voice)).toContain('Told to the seller already')
    expect(text(why, 'household')).toContain('found but not told here')
    const urgent = withChanges(why, [
      { act: 'add', subject: 'o', kind: 'override', parent: 'premises' },
      { act: 'note', subject: 'o', field: 'rule', value: 'overfused-conductor' },
      { act: 'note', subject: 'o', field: 'of', value: 's' },
      { act: 'note', subject: 'o', field: 'severity', value: 'make safe now' },
      { act: 'note', subject: 'o', field: 'reason', value: 'It smelled' },
    ])
    expect(text(urgent)).not.toContain('Left out by')
    expect(text(urgent)).toContain('Weighed by hand (computed: repair): It smelled.')
  })
  it('what was computed as urgent is told even where it was weighed down by hand', () => {
    const burning = ledgerOf(panel([run(30, wire('14'))])).house
    expect(faultOf(burning, 'overfused-conductor')?.severity).toBe('make safe now')
    const weighed = withChanges(burning, [
      { act: 'add', subject: 'o', kind: 'override', parent: 'premises' },
      { act: 'note', subject: 'o', field: 'rule', value: 'overfused-conductor' },
      { act: 'note', subject: 'o', field: 'of', value: 's' },
      { act: 'note', subject: 'o', field: 'severity', value: 'note' },
      { act: 'note', subject: 'o', field: 'reason', value: 'Nothing is plugged in' },
      ...edit('overfused-conductor', 's', { isLeftOut: true, reason: 'Small' }),
    ])
    expect(faultOf(weighed, 'overfused-conductor')?.severity).toBe('note')
    expect(text(weighed)).not.toContain('Left out by')
    expect(text(weighed)).toContain('Weighed by hand (computed: make safe now)')
  })
  it('an edit is found by its finding, so that one never takes the place of another', () => {
    const two = withChanges(house, [
      ...edit('overfused-conductor', 's', { words: 'One' }),
      ...edit('overfused-conductor', 'b', { words: 'Two' }),
    ])
    expect(editOf(two, 'overfused-conductor', 's')).not.toBe(
      editOf(two, 'overfused-conductor', 'b'),
    )
    expect(editOf(two, 'overfused-conductor', 'main')).toBeUndefined()
  })
  it('tells first what is wished first', () => {
    const other = run(30, wire('12'), { id: 'e' }, { id: 'd', space: 3 }) as {
      circuit: { segments: { id: string }[] }
    }
    other.circuit.segments = [{ ...wire('12'), id: 't' }]
    const two = ledgerOf(panel([run(30, wire('14')), other as Node])).house
    const at = (house: House, words: string) => text(house).indexOf(words)
    const worded = withChanges(two, [
      ...edit('overfused-conductor', 's', { words: 'First wire' }),
      ...edit('overfused-conductor', 't', { words: 'Second wire' }),
    ])
    expect(at(worded, 'First wire')).toBeLessThan(at(worded, 'Second wire'))
    const turned = withChanges(worded, [
      { act: 'note', subject: 'edit-overfused-conductor-t', field: 'order', value: 1 },
      { act: 'note', subject: 'edit-overfused-conductor-s', field: 'order', value: 2 },
    ])
    expect(at(turned, 'Second wire')).toBeLessThan(at(turned, 'First wire'))
  })
})

const SIGN = { voice: 'inspector', by: 'R. Ambersley', on: '2030-01-02', changes: '' } as const
/** Signs, and puts the signature on record as the server does. */
function sign(ledger: Ledger, discloses: string, changes = '') {
  const signed = paperToSign(ledger, { ...SIGN, discloses, changes })
  if ('refused' in signed) throw new Error(signed.refused)
  const subject = `signing-${signed.number}`
  record(ledger, [
    { act: 'add', subject, kind: 'signing', parent: 'premises' },
    { act: 'note', subject, field: 'number', value: signed.number },
    { act: 'note', subject, field: 'voice', value: 'inspector' },
  ])
  return signed
}

describe('what is open', () => {
  it('counts places nobody attested, and facts that two people saw differently', () => {
    const { house } = ledgerOf(OVERFUSED)
    const site = new Site(house)
    const visit = visitOf(site, assess(house).results, recordedScope(site))
    const attestations = visit.stops.filter(s => s.attestation).length
    expect(attestations).toBeGreaterThan(0)
    const questions = visit.stops.reduce((n, s) => n + s.questions.length, 0)
    expect(unsettledOf(house).questions).toBe(questions + attestations)
    const ledger = ledgerOf(OVERFUSED)
    expect(unsettledOf(ledger.house).rivals).toBe(0)
    const stamp = {
      at: '2030-01-05T08:00:00.000Z',
      by: 'Bo',
      act: 'note' as const,
      grade: 'seen' as const,
    }
    ledger.append([
      { ...stamp, id: 'q1', subject: 'main', field: 'openings', value: 1, over: [] },
      { ...stamp, id: 'q2', subject: 'main', field: 'openings', value: 2, over: [] },
    ])
    expect(unsettledOf(ledger.house).rivals).toBe(1)
  })
  it('a short form of a house nobody has recorded has no good answer', () => {
    const bare = ledgerOf({ corvit: 2, form: 'house', premises: { yearBuilt: 1960 } }).house
    for (const voice of ['insurance', 'rental'] as const) {
      const told = text(bare, voice).split('Questions')[1] ?? ''
      expect(told).not.toMatch(/no fault found|does not arise|may remain/)
      expect(told).toContain('not decided')
    }
  })
})

describe('signing', () => {
  it('refuses over open questions that nobody disclosed, and without a name', () => {
    const ledger = ledgerOf(OVERFUSED)
    expect(unsettledOf(ledger.house).total).toBeGreaterThan(0)
    expect(paperToSign(ledger, { ...SIGN, discloses: '  ' })).toHaveProperty('refused')
    expect(paperToSign(ledger, { ...SIGN, discloses: 'No ladder', by: ' ' })).toHaveProperty(
      'refused',
    )
  })
  it('freezes the paper: the same log gives the same seal, another log another', () => {
    const ledger = ledgerOf(OVERFUSED)
    const first = paperToSign(ledger, { ...SIGN, discloses: 'Attic locked' })
    const again = paperToSign(ledger, { ...SIGN, discloses: 'Attic locked' })
    if ('refused' in first || 'refused' in again) throw new Error('refused')
    expect(sealText(first.paper)).toBe(sealText(again.paper))
    expect(paperText(first.paper)).toContain('Attic locked')
    expect(paperText(first.paper)).toContain('Revision 1, signed by R. Ambersley on 2030-01-02.')
    record(ledger, [{ act: 'note', subject: 'b', field: 'ratingAmps', value: 15 }])
    const other = paperToSign(ledger, { ...SIGN, discloses: 'Attic locked' })
    expect('paper' in other && sealText(other.paper)).not.toBe(sealText(first.paper))
  })
  it('amends: says what changed since, shows the log since, and refuses an amendment of nothing', () => {
    const ledger = ledgerOf(OVERFUSED)
    sign(ledger, 'Attic locked')
    expect(paperToSign(ledger, { ...SIGN, discloses: 'Attic locked' })).toHaveProperty('refused')
    const [signing] = signingsOf(ledger.house)
    if (!signing) throw new Error('not signed')
    expect(logSince(ledger, signing)).toEqual([])
    record(ledger, [{ act: 'note', subject: 'b', field: 'ratingAmps', value: 15 }])
    const since = logSince(ledger, signing)
    expect(since).toHaveLength(1)
    expect(since.map(o => logLine(ledger.house, o))).toEqual([expect.stringContaining('15 A')])
    const second = sign(ledger, 'Attic locked', 'The breaker was changed')
    expect(second.number).toBe(2)
    const told = paperText(second.paper)
    expect(told).toContain('What changed since revision 1')
    expect(told).toContain('The breaker was changed')
    expect(told).toMatch(/No longer found: Breaker too big for the conductor/)
  })
  it('tells what is gone, new and said otherwise', () => {
    const before = ledgerOf(OVERFUSED).house
    const after = withChanges(before, [
      { act: 'note', subject: 'b', field: 'ratingAmps', value: 30 },
    ])
    const { gone, added, reworded } = differenceOf(before, after)
    expect(reworded.map(t => t.rule)).toContain('overfused-conductor')
    expect([...gone, ...added].map(t => t.rule)).not.toContain('overfused-conductor')
    expect(Object.values(differenceOf(after, after)).flat()).toEqual([])
    const hidden = withChanges(
      before,
      edit('overfused-conductor', 's', { isLeftOut: true, reason: 'Told already' }),
    )
    expect(differenceOf(before, hidden).leftOut.map(t => t.rule)).toEqual(['overfused-conductor'])
    expect(differenceOf(before, hidden).gone).toEqual([])
    expect(differenceOf(hidden, before).toldAgain).toHaveLength(1)
  })
})

describe('the return visit', () => {
  let n = 0
  const begin = (ledger: Ledger, on: string) => {
    record(
      ledger,
      returnSheet(ledger.house, 'corrections', on, 'R. Ambersley', () => `v${n++}`),
    )
    const visit = returnVisitsOf(ledger.house).at(-1)
    if (!visit) throw new Error('no visit')
    return visit
  }
  const sheet = (ledger: Ledger, id: string) => {
    const visit = returnVisitsOf(ledger.house).find(v => v.id === id)
    if (!visit) throw new Error('no visit')
    return sheetOf(ledger.house, visit)
  }
  it('lists each correction once, and passes only what a person says and the record bears out', () => {
    const ledger = ledgerOf(OVERFUSED)
    const faults = assess(ledger.house).results.filter(r => r.outcome === 'fault')
    const visit = begin(ledger, '2030-02-01')
    expect(sheet(ledger, visit.id).rechecks).toHaveLength(faults.length)
    expect(sheet(ledger, visit.id).rechecks.every(r => r.state === 'open')).toBe(true)
    const say = (outcome: string) =>
      record(
        ledger,
        sheet(ledger, visit.id).rechecks.map(r => ({
          act: 'note' as const,
          subject: r.thing.id,
          field: 'outcome',
          value: outcome,
        })),
      )
    const stateOf = (rule: string) =>
      sheet(ledger, visit.id).rechecks.find(r => r.rule === rule)?.state
    say('corrected')
    expect(stateOf('overfused-conductor')).toBe('record disagrees')
    expect(sheet(ledger, visit.id).isPassed).toBe(false)
    record(ledger, [{ act: 'note', subject: 'b', field: 'ratingAmps', value: 15 }])
    expect(stateOf('overfused-conductor')).toBe('passed')
    expect(sheet(ledger, visit.id).isPassed).toBe(true)
    expect(text(ledger.house, 'corrections')).toContain('All corrections pass.')
    say('could not be seen')
    expect(stateOf('overfused-conductor')).toBe('could not be seen')
    expect(text(ledger.house, 'corrections')).toContain('Not passed yet.')
  })
  it('a correction that only became undecided has not passed', () => {
    const ledger = ledgerOf(OVERFUSED)
    const visit = begin(ledger, '2030-02-01')
    const line = sheet(ledger, visit.id).rechecks.find(r => r.rule === 'overfused-conductor')
    record(ledger, [
      { act: 'note', subject: line?.thing.id ?? '', field: 'outcome', value: 'corrected' },
    ])
    // Whatever was seen of the conductor is taken back.
    const blind = new Ledger(
      ledger.log().filter(o => !(o.act === 'note' && o.subject === 's' && o.field === 'size')),
    )
    const state = sheetOf(blind.house, visit).rechecks.find(r => r.rule === 'overfused-conductor')
    expect(state?.state).toBe('record disagrees')
  })
  it('a line that does not say what it is about has not passed', () => {
    const ledger = ledgerOf(OVERFUSED)
    record(ledger, [
      { act: 'add', subject: 'rv', kind: 'returnVisit', parent: 'premises' },
      { act: 'add', subject: 'rc', kind: 'recheck', parent: 'rv' },
      { act: 'note', subject: 'rc', field: 'outcome', value: 'corrected' },
    ])
    expect(sheet(ledger, 'rv').rechecks.map(r => r.state)).toEqual(['record disagrees'])
    expect(sheet(ledger, 'rv').isPassed).toBe(false)
  })
  it('from the works it lists those that are done too', () => {
    const ledger = ledgerOf(OVERFUSED)
    record(ledger, [
      { act: 'add', subject: 'task', kind: 'task', parent: 'premises' },
      { act: 'note', subject: 'task', field: 'rule', value: 'overfused-conductor' },
      { act: 'note', subject: 'task', field: 'of', value: 's' },
      { act: 'note', subject: 'task', field: 'remedy', value: 'smaller-breaker' },
      { act: 'note', subject: 'task', field: 'state', value: 'done' },
      { act: 'note', subject: 'b', field: 'ratingAmps', value: 15 },
    ])
    const changes = returnSheet(ledger.house, 'plan', '2030-02-01', 'Ann', () => `w${n++}`)
    const was = changes.flatMap(c => (c.act === 'note' && c.field === 'was' ? c.value : []))
    expect(was).toEqual([expect.stringContaining('Breaker too big for the conductor: space 1')])
  })
  it('sets the visits side by side', () => {
    const ledger = ledgerOf(OVERFUSED)
    begin(ledger, '2030-02-01')
    record(ledger, [{ act: 'note', subject: 'b', field: 'ratingAmps', value: 15 }])
    begin(ledger, '2030-03-01')
    const { visits, rows } = visitsSideBySide(ledger.house)
    expect(visits).toHaveLength(2)
    const row = rows.find(r => r.was.startsWith('Breaker too big'))
    expect(row?.states).toEqual(['open', ''])
  })
})
