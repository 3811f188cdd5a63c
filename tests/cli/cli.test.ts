import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { corvit, here, scratch } from '../support/corvit'
import { pagesOf } from '../support/pdf'

describe('corvit walk', () => {
  const job = 'docs/examples/breaker-against-conductor.corvit.json'
  it('prints stops, counts that add up, and limitations', () => {
    const { stdout, status } = corvit('walk', job, '--purpose', 'purchase')
    expect(status).toBe(0)
    const { counts, stops, limitations, scope } = JSON.parse(stdout)
    expect(counts.settled + counts.inScope + counts.outside).toBe(counts.total)
    expect(scope.purpose).toBe('purchase')
    expect(stops.length).toBeGreaterThan(3)
    expect(limitations.length).toBeGreaterThan(1)
    const looks = stops.flatMap((s: { looks: object[] }) => s.looks)
    expect(looks[0]).toHaveProperty('answers')
  })
  it('takes a scope of its own', async () => {
    const scope = scratch('scope.json', JSON.stringify({ access: ['seen'], instruments: [] }))
    const narrow = JSON.parse((await here('walk', job, '--scope', scope)).stdout)
    const wide = JSON.parse((await here('walk', job, '--purpose', 'remodel')).stdout)
    expect(narrow.counts.inScope).toBeLessThan(wide.counts.inScope)
  })
  it.each<[string, string[], RegExp]>([
    ['an unknown purpose', [job, '--purpose', 'holiday'], /--purpose takes purchase/],
    ['a scope that is none', [job, '--scope', job], /unreadable-input/],
    ['no file', [], /which file/],
    ['a file that is not there', ['nowhere.json'], /no such file/],
  ])('%s is refused', async (_, args, words) => {
    const { stderr, status } = await here('walk', ...args)
    expect(status).toBe(2)
    expect(stderr).toMatch(words)
  })
  it('a scope that names what is not in the job is refused', async () => {
    const scope = scratch('scope.json', JSON.stringify({ area: ['attic'] }))
    expect((await here('walk', job, '--scope', scope)).stderr).toMatch(/not in the job/)
  })
})

describe('corvit plan', () => {
  const job = 'docs/examples/breaker-against-conductor.corvit.json'
  it('prints a plan that adds up, with why, stages and proof', () => {
    const { stdout, status } = corvit('plan', job, '--aim', 'least-cost')
    expect(status).toBe(0)
    const plan = JSON.parse(stdout)
    expect(['planned', 'infeasible']).toContain(plan.status)
    expect(plan.prices.isSample).toBe(true)
    const works = plan.choices.reduce(
      (n: number, c: { cost: { cents: number } }) => n + c.cost.cents,
      0,
    )
    const once = plan.shared.reduce((n: number, s: { cents: number }) => n + s.cents, 0)
    expect(plan.total).toBe(works + once)
    expect(plan.newlyRequired).toEqual([])
    expect(plan.proof.gap).toBe(0)
  })
  it('prints what one remedy would turn', async () => {
    const { results } = JSON.parse((await here('assess', job, '--only', 'fault')).stdout)
    const fault = results.find((r: { rule: string }) => r.rule === 'overfused-conductor')
    const done = JSON.parse(
      (await here('consequences', job, '--remedy', 'replace-conductor', '--of', fault.subject.id))
        .stdout,
    )
    expect(done.status).toBe('cures')
    expect(done.fixed.map((f: { rule: string }) => f.rule)).toContain('overfused-conductor')
  })
  it('reads a price sheet, and goes the way of a school', async () => {
    const dear = scratch('dear.csv', 'entry,title,cents,minutes\nname,Ours,,\npermit,,99900,\n')
    const args = ['plan', job, '--prices', dear, '--fix', 'before-sale']
    const plan = JSON.parse((await here(...args, '--school', 'multiwire-breaker')).stdout)
    expect(plan.prices).toEqual({ name: 'Ours', isSample: false })
    expect(plan.departures).toEqual([])
    const permit = plan.shared.find((s: { what: string }) => s.what === 'Permit')
    expect(permit === undefined || permit.cents === 99_900).toBe(true)
  })
  it('prints the papers of an accepted plan', async () => {
    const house = JSON.parse(readFileSync(job, 'utf8'))
    const { results } = JSON.parse((await here('assess', job, '--only', 'fault')).stdout)
    const fault = results.find((r: { rule: string }) => r.rule === 'overfused-conductor')
    const task = { order: 0, choice: 0, rule: fault.rule, of: fault.subject.id, stage: 'Today' }
    const tasks = [{ ...task, remedy: 'replace-conductor', cents: 12_000, state: 'planned' }]
    const accepted = scratch('accepted.json', JSON.stringify({ ...house, tasks }))
    const { stdout, status } = await here('papers', accepted, '--paper', 'scope-of-work')
    expect(status).toBe(0)
    expect(stdout).toContain('Replace the thin or damaged run')
    expect(stdout).toContain('$120.00')
    expect((await here('papers', job, '--paper', 'pick-list')).stdout).toContain(
      'No plan has been accepted',
    )
  })
  it.each<[string, string, string[], RegExp]>([
    ['a school there is none of', 'plan', [job, '--school', 'old'], /--school takes one of/],
    [
      'a paper there is none of',
      'papers',
      [job, '--paper', 'novel'],
      /--paper takes scope-of-work/,
    ],
    [
      'a sheet that is none',
      'plan',
      [job, '--prices', scratch('none.csv', 'a,b\n')],
      /"path": "line 1"/,
    ],
    ['an unknown aim', 'plan', [job, '--aim', 'beauty'], /--aim takes least-cost/],
    ['half a cent', 'plan', [job, '--budget', '12.5'], /whole cents/],
    ['a judgment nobody made', 'plan', [job, '--fix', 'no-rule@x'], /no judgment no-rule@x/],
    ['a fix without a thing', 'plan', [job, '--fix', 'no-rule'], /RULE@SUBJECT/],
    ['prices that are none', 'plan', [job, '--prices', job], /unreadable-input/],
    ['a lock on nothing', 'plan', [job, '--lock', 'x=gfci-here'], /nothing is called "x"/],
    ['an unknown remedy', 'plan', [job, '--forbid', 'magic'], /--forbid takes REMEDY/],
    ['no remedy', 'consequences', [job, '--of', 'main'], /--remedy takes the id/],
    ['no thing', 'consequences', [job, '--remedy', 'gfci-here', '--of', 'x'], /nothing is called/],
  ])('%s is refused', async (_, command, args, words) => {
    const { stderr, status } = await here(command, ...args)
    expect(status).toBe(2)
    expect(stderr).toMatch(words)
  })
})

describe('corvit merge', () => {
  const at = '2031-01-01T08:00:00.000Z'
  const base = [
    { id: 'a1', at, by: 'Ann', act: 'add', subject: 'premises', kind: 'premises', parent: null },
    { id: 'a2', at, by: 'Ann', act: 'add', subject: 'e', kind: 'enclosure', parent: 'premises' },
  ]
  const seen = (id: string, by: string, value: number) => ({
    id,
    at: '2031-01-01T09:00:00.000Z',
    by,
    act: 'note',
    subject: 'e',
    field: 'openings',
    value,
    grade: 'seen',
    over: [],
  })
  const file = (name: string, more: readonly object[]) =>
    scratch(name, JSON.stringify({ corvit: 2, form: 'log', observations: [...base, ...more] }))
  const first = file('a.json', [seen('x1', 'Ann', 1)])
  const second = file('b.json', [seen('y1', 'Bo', 2)])

  it('puts two copies together, tells both values, and gives the same whichever comes first', async () => {
    const out = join(mkdtempSync(join(tmpdir(), 'corvit-cli-')), 'c.json')
    const { stdout, status } = corvit('merge', first, second, '--out', out)
    expect(status).toBe(0)
    expect(JSON.parse(stdout)).toMatchObject({
      observations: 4,
      shared: 2,
      onlyFirst: 1,
      onlySecond: 1,
      conflicts: [
        {
          subject: 'e',
          field: 'openings',
          values: [
            { value: '2', by: 'Bo', isUsed: true },
            { value: '1', by: 'Ann', isUsed: false },
          ],
        },
      ],
    })
    const whole = readFileSync(out, 'utf8')
    await here('merge', second, first, '--out', out)
    expect(readFileSync(out, 'utf8')).toBe(whole)
    expect((await here('assess', out)).status).toBe(0)
  })
  it('writes and reads bundles, and the report of one', async () => {
    const out = join(mkdtempSync(join(tmpdir(), 'corvit-cli-')), 'c.zip')
    expect((await here('merge', first, second, '--out', out)).status).toBe(0)
    const again = join(mkdtempSync(join(tmpdir(), 'corvit-cli-')), 'd.json')
    const { stdout } = await here('merge', out, second, '--out', again)
    expect(JSON.parse(stdout)).toMatchObject({ observations: 4, onlyFirst: 1, onlySecond: 0 })
    const { stdout: text, status } = await here('report', out, '--voice', 'rental')
    expect(status).toBe(0)
    expect(text).toContain('Short form for the rental')
  })
  it.each([
    ['one file', [first], /takes two files/],
    ['three files', [first, second, first, '--out', 'x'], /takes two files/],
    ['nowhere to', [first, second], /--out says where/],
    ['a file that is not there', [first, 'nowhere.json', '--out', 'x'], /no such file/],
    ['a file that is none', [first, 'package.json', '--out', 'x'], /unreadable-input/],
    ['a folder to write to', [first, second, '--out', '/'], /cannot be written/],
    ['an archive that is none', [first, scratch('z.zip', 'PKnothing'), '--out', 'x'], /whole zip/],
    [
      'another content under one id',
      [first, file('d.json', [seen('x1', 'Ann', 9)]), '--out', 'x'],
      /not copies of one job; nothing was written/,
    ],
  ])('%s is refused', async (_, args, words) => {
    const { stderr, status } = await here('merge', ...args)
    expect(status).toBe(2)
    expect(stderr).toMatch(words)
  })
})

describe('corvit report', () => {
  const job = 'docs/examples/multiwire.corvit.json'
  it('writes text, and a PDF that says the same', () => {
    const out = scratch('report.pdf', '')
    const { stdout, status } = corvit(
      'report',
      job,
      '--voice',
      'corrections',
      '--text',
      '--out',
      out,
    )
    expect(status).toBe(0)
    expect(stdout).toContain('Correction notice')
    const pages = pagesOf(new Uint8Array(readFileSync(out)))
    expect(pages.join(' ')).toContain('Corrections')
    expect(pages[0]).toContain(`page 1 of ${pages.length}`)
  })
  it.each([
    ['a voice nobody has', ['--voice', 'poet'], /--voice takes inspector/],
    ['a place that is none', ['--out', '/no/such/folder/r.pdf'], /cannot be written/],
  ])('%s is refused', async (_, args, words) => {
    const { stderr, status } = await here('report', job, ...args)
    expect(status).toBe(2)
    expect(stderr).toMatch(words)
  })
})

describe('corvit understand', () => {
  it('answers one utterance, and a list', async () => {
    const one = { context: { place: 'main' }, say: 'space seven twenty amp, no, fifteen' }
    const single = JSON.parse(corvit('understand', scratch('say.json', JSON.stringify(one))).stdout)
    expect(single.means).toContainEqual(
      expect.objectContaining({
        thing: 'main/7',
        field: 'ratingAmps',
        value: 15,
        unit: 'A',
        was: 20,
      }),
    )
    const list = JSON.parse(
      (
        await here(
          'understand',
          scratch('say.json', JSON.stringify([one, { ...one, say: 'wurble' }])),
        )
      ).stdout,
    )
    expect(list).toHaveLength(2)
    expect(list[1]).toMatchObject({ means: [], notUnderstood: ['wurble'] })
  })
  it('reads beside a job, by its ids', async () => {
    const say = {
      job: JSON.parse(readFileSync('docs/examples/multiwire.corvit.json', 'utf8')),
      context: {},
      say: 'no bonding screw',
    }
    const { means } = JSON.parse(
      (await here('understand', scratch('say.json', JSON.stringify(say)))).stdout,
    )
    expect(means[0]).toMatchObject({ field: 'bondMeans', value: 'none', isNew: false })
  })
  it.each<[string, string, RegExp]>([
    ['an utterance without words', '{"context":{}}', /unreadable-input/],
    ['something else', 'nonsense', /not JSON/],
    ['a job that is none', '{"job":{"corvit":9},"say":"x"}', /unreadable-input/],
    [
      'a selection that is not in the job',
      '{"job":{"corvit":1,"form":"house","premises":{}},"context":{"selected":"x"},"say":"y"}',
      /not in the job/,
    ],
  ])('%s is refused', async (_, text, words) => {
    const { stderr, status } = await here('understand', scratch('say.json', text))
    expect(status).toBe(2)
    expect(stderr).toMatch(words)
  })
})

describe('corvit assess', () => {
  it('prints one JSON document and exits 0', () => {
    const { stdout, status } = corvit(
      'assess',
      'docs/examples/breaker-against-conductor.corvit.json',
    )
    expect(status).toBe(0)
    const answer = JSON.parse(stdout)
    expect(answer).toMatchObject({ corvit: 1, version: 1, edition: 2020 })
    const fault = answer.results.find(
      (r: { outcome: string; rule: string }) =>
        r.rule === 'overfused-conductor' && r.outcome === 'fault',
    )
    expect(fault).toMatchObject({
      severity: 'repair',
      standing: 'violation when installed',
      subject: { kind: 'segment' },
      compare: { left: 20, right: 15 },
    })
    expect(fault.remedies.map((r: { verdict: string }) => r.verdict)).toEqual([
      'conditional',
      'offered',
      'refused',
    ])
    expect(
      Object.values(answer.totals)
        .slice(0, 5)
        .reduce((a: number, b) => a + Number(b), 0),
    ).toBe(answer.results.length)
  })
  it.each([
    ['no file', []],
    ['a file that is not there', ['ghost.json']],
    ['an unknown option', ['--fast', 'x']],
    ['broken JSON', [scratch('broken.json', '{')]],
    ['two files', ['a', 'b']],
  ])('exits 2 on %s', async (_name, args) => {
    const { status, stderr, stdout } = await here('assess', ...args)
    expect([status, stdout]).toEqual([2, ''])
    expect(stderr.length).toBeGreaterThan(10)
  })
  it('names the path of what it cannot read', async () => {
    const text = readFileSync('docs/examples/multiwire.corvit.json', 'utf8').replace('"12"', '"13"')
    const { status, stderr } = await here('assess', scratch('wrong.json', text))
    expect(status).toBe(2)
    expect(JSON.parse(stderr).problems[0]).toMatchObject({
      path: 'enclosures[0].breakers[0].circuit.segments[0].size',
      found: '"13"',
    })
  })
  it('knows renamed rules by their old id, and says what an undecided one leans to', async () => {
    const of = async (rule: string) =>
      (await here('assess', 'docs/examples/multiwire.corvit.json', '--rule', rule, '--brief'))
        .stdout
    const old = await of('aluminium-at-unmarked-breaker')
    expect(old).toBe(await of('aluminum-at-unmarked-breaker'))
    expect(old).toContain('aluminum-at-unmarked-breaker')
    const { stdout: chain } = await here(
      'assess',
      'docs/examples/outlet-chain.corvit.json',
      '--rule',
      'missing-marking',
      '--brief',
    )
    expect(chain).toContain('(allowed to remain if it was made before 1993)')
  })
  it('keeps only what is asked for', async () => {
    const { stdout } = await here(
      'assess',
      'docs/examples/multiwire.corvit.json',
      '--only',
      'fault',
      '--rule',
      'multiwire-same-leg',
    )
    const { results } = JSON.parse(stdout)
    expect(results).toHaveLength(1)
  })
})

describe('the sums', () => {
  it.each(['ampacity', 'boxfill', 'diagnose', 'identify', 'trace'])(
    '%s runs its own example and says what is wrong with another',
    async sum => {
      const example = await here(sum, '--example')
      const ran = await here(sum, scratch('in.json', example.stdout))
      expect([example.status, ran.status]).toEqual([0, 0])
      expect(JSON.parse(ran.stdout)).toBeDefined()
      const wrong = await here(
        sum,
        scratch(
          'wrong.json',
          JSON.stringify({ ...(JSON.parse(example.stdout) as object), surprise: 1 }),
        ),
      )
      expect(wrong.status).toBe(2)
      expect(JSON.parse(wrong.stderr).problems[0].path).toContain('surprise')
      expect((await here(sum, scratch('broken.json', '{'))).status).toBe(2)
    },
  )
  it('ampacity says under what it changes', async () => {
    const { stdout } = await here(
      'ampacity',
      scratch(
        'a.json',
        JSON.stringify({
          size: '6',
          metal: 'aluminum',
          wiring: 'SE',
          insulationC: 75,
          feedsSeveralReceptacles: false,
          breakerAmps: 50,
        }),
      ),
    )
    const out = JSON.parse(stdout)
    expect(out).toMatchObject({ allowed: [40, 50], breaker: 'undecided', lookAt: ['terminals'] })
  })
})

describe('corvit paths on a property', () => {
  const house = {
    corvit: 1,
    form: 'house',
    premises: { supply: '120/240 V single phase' },
    enclosures: [
      {
        id: 'main',
        type: 'panel',
        fedFrom: 'utility',
        mainKind: 'main breaker',
        mainAmps: 100,
        bus: 'single phase',
        numbering: 'odd left, even right',
        spaces: 20,
        bondMeans: 'screw',
        breakers: [{ id: 'b', space: 1, poles: 1, ratingAmps: 20, circuit: { id: 'c' } }],
      },
    ],
    outlets: [
      { id: 'o', circuit: 'c', after: 'panel', type: 'receptacle', slots: 'three', runFt: 50 },
    ],
  }
  it('solves the job with what is tried, and reads clamps laid round its parts', async () => {
    const file = scratch(
      'try.json',
      JSON.stringify({
        job: house,
        changes: [
          { change: 'load', at: 'o', amperes: 10 },
          { change: 'fault', at: 'o', from: 'neutral' },
        ],
        clamps: [['hot o'], ['hot o', 'neutral o'], ['ground o']],
      }),
    )
    const { stdout, status } = await here('paths', file)
    expect(status).toBe(0)
    const answer = JSON.parse(stdout)
    const [hot, both, ground] = answer.clamps.map((c: { amperes: number }) => c.amperes)
    expect(hot).toBeGreaterThan(9)
    // What comes back in the ground is missing in the neutral.
    expect(both).toBeCloseTo(ground, 9)
    expect(ground).toBeGreaterThan(4)
    expect(answer.residual).toBeLessThan(1e-9)
    expect(answer.parts['hot o'].text).toContain('hot')
    expect(answer.assumed.length).toBeGreaterThan(0)
  })
  it('finds the job by its name, from where the file lies', async () => {
    const job = scratch('house.json', JSON.stringify(house))
    const file = join(job, '..', 'try.json')
    writeFileSync(file, JSON.stringify({ job: 'house.json' }))
    const { stdout, status } = await here('paths', file)
    expect([status, JSON.parse(stdout).branches.length > 5]).toEqual([0, true])
  })
  it.each<[string, object, RegExp]>([
    [
      'a part that is not there',
      { job: house, changes: [{ change: 'open', part: 'x' }] },
      /changes\[0\]\.part/,
    ],
    ['a change nobody knows', { job: house, changes: [{ change: 'paint', part: 'x' }] }, /changes/],
    [
      'a load told twice',
      { job: house, changes: [{ change: 'load', at: 'o', watts: 1, amperes: 1 }] },
      /one of them/,
    ],
    ['a clamp round nothing that is there', { job: house, clamps: [['x']] }, /clamps\[0\]\[0\]/],
    ['a job that is none', { job: { corvit: 1, form: 'castle' } }, /form/],
    ['a job that is not there', { job: 'nowhere.json' }, /no such file/],
    [
      'a supply it cannot tell',
      { job: { ...house, premises: { supply: '208Y/120 V' } } },
      /third of a turn/,
    ],
  ])('%s: exit code 2, and the place', async (_, input, words) => {
    const { stderr, status } = await here('paths', scratch('bad.json', JSON.stringify(input)))
    expect(status).toBe(2)
    expect(stderr).toMatch(words)
  })
})

describe('corvit simulate and roundtrip', () => {
  it('writes a job file that is judged as it is, with the faults listed apart', async () => {
    const { stdout, status } = await here('simulate', '--seed', '9', '--faults', '3')
    expect(status).toBe(0)
    const { simulated } = JSON.parse(stdout)
    expect(simulated.faults).toHaveLength(3)
    const assessed = JSON.parse((await here('assess', scratch('sim.json', stdout))).stdout)
    for (const { rule, subject } of simulated.faults) {
      const result = assessed.results.find(
        (r: { rule: string; subject: { id: string } }) =>
          r.rule === rule && r.subject.id === subject,
      )
      expect(['fault', 'allowed']).toContain(result?.outcome)
    }
    expect((await here('simulate', '--seed', '9', '--faults', '3')).stdout).toBe(stdout)
  })
  it('writes them into two files where it is told where', async () => {
    const out = scratch('house.json', '')
    const { stdout, status } = await here('simulate', '--small', '--faults', '1', '--out', out)
    expect(status).toBe(0)
    const { faults } = JSON.parse(stdout)
    expect(JSON.parse(readFileSync(out, 'utf8'))).not.toHaveProperty('simulated')
    expect(JSON.parse(readFileSync(faults, 'utf8')).faults).toHaveLength(1)
  })
  it('counts what an inspection finds', async () => {
    const { stdout, status } = await here('roundtrip', '--houses', '3', '--seed', '2')
    const trip = JSON.parse(stdout)
    expect([status, trip.houses, trip.missed, trip.invented]).toEqual([0, 3, [], []])
    expect(trip.found).toBe(trip.injected)
  })
  it.each<[string[], RegExp]>([
    [['simulate', '--faults', 'many'], /whole number/],
    [['simulate', '--faults', '99'], /from 0 to 12/],
    [['simulate', '--colour'], /unknown option/],
    [['simulate', '--seed'], /wants a value/],
    [['roundtrip', '--houses', '0'], /from 1/],
    [['simulate', '--out', '/nowhere/at/all.json'], /no such file/],
  ])('%j is refused with words', async (args, words) => {
    const { stderr, status } = await here(...args)
    expect(status).toBe(2)
    expect(stderr).toMatch(words)
  })
})
