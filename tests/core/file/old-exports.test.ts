import { readFileSync } from 'node:fs'
import { assess, Ledger, readJobFile, ruleNow, type SpokenResult } from '#core'

/** Exports of the demo houses and their findings, as version 1 wrote them. */
const HOUSES = ['demo-sorrel-bank', 'demo-bakehouse', 'demo-tarn-end']
type Finding = [
  rule: string,
  subject: string,
  outcome: string,
  severity: string | null,
  standing: string | null,
]
const text = (file: string) => readFileSync(`tests/fixtures/v1/${file}.json`, 'utf8')

const SEVERITY: Record<string, string> = {
  'upgrade at next work': 'upgrade',
  'for the record': 'note',
}
const STANDING: Record<string, string> = {
  'broken when made': 'violation when installed',
  'allowed to stay': 'allowed to remain',
  'met by the work': 'required by this work',
}
const now = (table: Record<string, string>, word: string | null) =>
  word === null ? null : (table[word] ?? word)

/** What version 1 said, in the words and the outcomes of today. */
function expected([rule, subject, outcome, severity, standing]: Finding): string {
  const isProven = severity === 'make safe now' || standing === 'hazard'
  const today =
    outcome === 'fault' && !isProven && standing === 'allowed to stay'
      ? 'allowed'
      : outcome === 'fault' && !isProven && standing === 'depends on the year'
        ? 'undecided, by year'
        : outcome === 'clear' && standing === 'allowed to stay'
          ? 'allowed'
          : outcome
  // What was clear and old had no severity.
  const weight = today === 'allowed' && severity === null ? 'upgrade' : now(SEVERITY, severity)
  return [ruleNow(rule), subject, today, weight, now(STANDING, standing)].join(' · ')
}
const said = (r: SpokenResult): string => {
  const leans = r.leans ? (r.leans.to === 'fault' ? ', unless' : ', by year') : ''
  return [r.rule, r.subject.id, r.outcome + leans, r.severity, r.standing].join(' · ')
}

/** Differences that are meant: what is said now, and why. */
const MEANT: readonly { now: RegExp; why: string }[] = [
  {
    now: /^neutral-bonded-downstream · store-panel · undecided, unless · repair/,
    why: 'was plainly undecided: it is bonded, and only a lawful old three-wire feeder would excuse it',
  },
  {
    now: /^hot-on-unmarked-white · den\/conductors-1 · undecided, unless · upgrade/,
    why: 'was a fault: nobody looked whether it feeds a switch loop, which before 1999 needed no mark',
  },
  {
    now: /^panel-no-protective-breakers · .* · allowed/,
    why: 'was a fault: that none are made limits the remedies, and is nobody’s fault',
  },
  {
    now: /^gfci-missing · laundry-[12] · undecided, by year/,
    why: 'was allowed to remain: an older rule asks how near the sink is, and nobody has measured',
  },
  {
    now: /^miswire · .* · undecided · /,
    why: 'was clear for want of a jumper here: one box ahead, with the supply reversed, reads the same',
  },
  {
    now: /^(open-ground-three-slot|equipment-needs-ground) · laundry-3 · undecided/,
    why: 'was clear: its ground path is above 1 Ω',
  },
  {
    now: /^gfci-missing · (kl-4 · fault|counter-right-1 · undecided)/,
    why: 'was clear: the device that should protect it has failed its own button',
  },
  {
    now: /^appliance-overcurrent · heater · undecided, unless/,
    why: 'was a fault: 125 % is for storage heaters up to 120 gal, and nobody said which kind it is',
  },
  {
    now: /^surge-protector · main · undecided/,
    why: 'was judged here alone: one at the next panel toward the load serves as well, and nobody looked there',
  },
  {
    now: /^(afci-missing|gfci-missing|required-circuits-absent) · .* · undecided, by year · .* · depends on the year$/,
    why: 'was a violation: of the first years after the edition, and when that was law here nobody recorded',
  },
  {
    now: /^intersystem-termination · premises · allowed/,
    why: 'went by the year of the house: the year of its service equipment is what counts',
  },
  {
    now: /^bus-overloaded · (flat|yard-service) · undecided/,
    why: 'was none of its business: a split bus whose lower main nobody recorded is open, not fine',
  },
  {
    now: /^cover-missing · .* · fault · (repair|make safe now)/,
    why: 'weighs more: live parts are in reach',
  },
  {
    now: /^panel-location · flat · allowed/,
    why: 'was a violation whatever its year: the rule has a beginning',
  },
  {
    now: /^unused-opening · .* · fault · repair/,
    why: 'weighs more: live parts are in reach',
  },
  {
    now: / · fault · repair · required by this work$/,
    why: 'was an upgrade: what work being done now requires is a repair',
  },
  {
    now: /^multiwire-not-grouped · green-recep · fault/,
    why: 'was clear: two circuits share a neutral, and the cable of one was counted with two conductors',
  },
  {
    now: /^service-over-six · main · undecided/,
    why: 'was clear by its own main: another enclosure may be a service disconnect too',
  },
  {
    now: /^directory · main · fault · upgrade/,
    why: 'was a note: every failed check is reported now, and an entry that contradicts another weighs more',
  },
]

describe.each(HOUSES)('the export of %s by version 1', house => {
  const findings = JSON.parse(text(`${house}.findings`)) as Finding[]
  it.each(['log', 'house'])('as a %s is read, and gives the same findings', form => {
    let n = 0
    const stamp = {
      at: '2026-05-12T08:00:00.000Z',
      by: 'demo',
      nextId: () => `d${String(n++).padStart(6, '0')}`,
    }
    const { observations } = readJobFile(text(`${house}.${form}`), stamp)
    const results = assess(new Ledger(observations).house).results.filter(r => r.outcome !== 'n/a')
    const before = new Set(findings.map(expected))
    // Rules that came since say nothing about what was said then.
    const known = new Set(findings.map(([rule]) => ruleNow(rule)))
    const after = results.filter(r => known.has(r.rule)).map(said)
    const isMeant = (line: string) => MEANT.some(m => m.now.test(line))
    expect(after.filter(line => !before.has(line) && !isMeant(line))).toEqual([])
    const kept = new Set(results.map(r => `${r.rule} ${r.subject.id}`))
    expect(
      findings.map(([rule, id]) => `${ruleNow(rule)} ${id}`).filter(key => !kept.has(key)),
    ).toEqual([])
  })
})
