import { neutralGroupOf } from '../derive/neutrals'
import { roleOf } from '../derive/service-role'
import { valueOf, type Subject } from '../model/house'
import type { Site } from '../derive/site'
import { labelOf } from '../texts/labels'

/** One step of making something dead. */
export interface IsolationStep {
  readonly act: 'tell' | 'switch off' | 'lock and tag' | 'prove' | 'restore'
  readonly text: string
  readonly subject?: string
}
export interface StaysLive {
  readonly what: string
  readonly why: string
  readonly subject?: string
}
export interface IsolationPlan {
  readonly target: string
  readonly steps: readonly IsolationStep[]
  readonly staysLive: readonly StaysLive[]
  /** What nobody has seen and the plan hangs on; with any, the plan is not to be relied on. */
  readonly open: readonly string[]
  readonly tag: readonly string[]
}

/**
 * What to switch, lock, tag and prove dead for work on one thing, in order, and what stays live beside it.
 * Says outright what it does not know. 110.25, 404.9, and the trade's rule: proved dead, or live.
 */
export function isolationPlan(site: Site, target: Subject): IsolationPlan {
  const switches: Subject[] = []
  const live: StaysLive[] = []
  const open: string[] = []
  const prove: string[] = []
  const name = (s: Subject) => labelOf(site, s)
  const off = (s: Subject) => {
    if (!switches.includes(s)) switches.push(s)
  }

  const breakers = (circuit: Subject<'circuit'>) => {
    const group = neutralGroupOf(site, circuit).circuits
    if (circuit.facts.sharesNeutralWith.state !== 'known')
      open.push(`whether ${name(circuit)} shares its neutral with another circuit`)
    for (const member of group) {
      const breaker = site.get(valueOf(member, 'fedBy'), 'breaker')
      if (!breaker) {
        open.push(`which breaker feeds ${name(member)}: trace it first`)
        continue
      }
      off(breaker)
      if (group.length > 1) prove.push(`the shared neutral too: ${group.map(name).join(' and ')}`)
      aroundBreaker(breaker)
    }
  }
  const aroundBreaker = (breaker: Subject<'breaker'>) => {
    const panel = site.get(breaker.parent ?? undefined, 'enclosure')
    const others = site.circuitsOf(breaker)
    if (others.length > 1)
      live.push({
        what: `nothing of ${others.map(name).join(', ')}`,
        why: 'all on this one breaker: they go dead together',
        subject: breaker.id,
      })
    if (valueOf(breaker, 'half') && panel) {
      const twin = site
        .children(panel, 'breaker')
        .find(b => b !== breaker && valueOf(b, 'space') === valueOf(breaker, 'space'))
      if (twin && !switches.includes(twin))
        live.push({
          what: name(twin),
          why: 'the other half of the same twin breaker',
          subject: twin.id,
        })
    }
    if (panel) aroundPanel(panel, false)
  }
  const aroundPanel = (panel: Subject<'enclosure'>, isDead: boolean) => {
    const role = roleOf(site, panel).value
    const where = name(panel)
    if (live.some(l => l.subject === panel.id)) return
    if (role === 'service')
      live.push({
        what: `line lugs and service conductors in ${where}`,
        why: 'ahead of the main: only the utility can make them dead',
        subject: panel.id,
      })
    else if (!isDead)
      live.push({
        what: `incoming lugs in ${where}`,
        why:
          role === 'load'
            ? 'fed from upstream whatever is switched here'
            : 'what feeds it has not been settled',
        subject: panel.id,
      })
    const kind = valueOf(panel, 'mainKind')
    if ((kind === 'split bus' || valueOf(panel, 'bus') === 'split bus') && !isDead)
      live.push({
        what: `upper half of the bus in ${where}`,
        why: 'the lower main does not switch it',
        subject: panel.id,
      })
    if (
      valueOf(panel, 'bus') === 'three phase' &&
      valueOf(panel, 'thirdLeg') === 'jumpered to another leg' &&
      !isDead
    )
      live.push({
        what: `third bar in ${where}`,
        why: 'jumpered from another leg',
        subject: panel.id,
      })
    const second = panel.facts.hasSecondSource
    if (second.state !== 'known') open.push(`whether a generator, solar or battery feeds ${where}`)
    else if (second.value) {
      const sources = site
        .children(panel, 'breaker')
        .filter(b => valueOf(b, 'role') === 'backfed source')
      if (sources.length === 0) open.push(`where the second source of ${where} is switched off`)
      for (const s of sources) off(s)
    }
  }
  const enclosure = (panel: Subject<'enclosure'>) => {
    const role = roleOf(site, panel).value
    if (role === undefined)
      open.push(`which enclosure is the service disconnect, and so what feeds ${name(panel)}`)
    if (role === 'supply') {
      open.push(
        `${name(panel)} is ahead of the service disconnect: only the utility can make it dead`,
      )
      return
    }
    if (role === 'service') {
      off(panel)
      prove.push(`load side of the main in ${name(panel)}; the line side stays live`)
      aroundPanel(panel, false)
      return
    }
    const feeder = site.get(valueOf(panel, 'fedFrom'), 'feeder')
    const from = feeder && valueOf(feeder, 'from')
    const breaker = site.get(from, 'breaker')
    const source = site.get(from, 'enclosure')
    if (breaker) {
      off(breaker)
      aroundBreaker(breaker)
    } else if (source) {
      off(source)
      aroundPanel(source, false)
    } else open.push(`where the feeder of ${name(panel)} starts`)
    prove.push(`incoming lugs in ${name(panel)}: its own main off would not make them dead`)
    aroundPanel(panel, breaker !== undefined || source !== undefined)
  }

  switch (target.kind) {
    case 'enclosure':
      enclosure(target)
      break
    case 'bar':
    case 'screw': {
      let at: Subject | undefined = target
      while (at && at.kind !== 'enclosure')
        at = at.parent === null ? undefined : site.house.subjects.get(at.parent)
      if (at) enclosure(at)
      break
    }
    case 'feeder': {
      const panel = site.enclosuresOn(target)[0]
      if (panel) enclosure(panel)
      else open.push('what this feeder feeds')
      break
    }
    case 'breaker': {
      const panel = site.get(target.parent ?? undefined, 'enclosure')
      // Taking a breaker out means working at the bus: the whole panel has to be dead.
      if (panel) enclosure(panel)
      break
    }
    case 'circuit':
      breakers(target)
      break
    case 'segment': {
      const circuit = site.get(target.parent ?? undefined, 'circuit')
      if (circuit) breakers(circuit)
      break
    }
    case 'outlet': {
      const circuit = site.get(valueOf(target, 'circuit'), 'circuit')
      if (circuit) breakers(circuit)
      else open.push(`which circuit ${name(target)} is on: trace it first`)
      prove.push(`${name(target)}: hot to neutral, hot to ground, neutral to ground`)
      const box = valueOf(target, 'type')
      if (box === 'receptacle')
        live.push({
          what: `the other half of ${name(target)}, if its tab is broken`,
          why: 'a split receptacle may hang on two breakers',
        })
      break
    }
    default:
      open.push('this is nothing that can be switched off')
  }

  const steps: IsolationStep[] = [
    {
      act: 'tell',
      text: 'Tell the occupants; note what must not lose power: medical, alarms, freezer, sump pump',
    },
    ...switches.map((s): IsolationStep => ({
      act: 'switch off',
      text:
        s.kind === 'enclosure'
          ? `Main of ${name(s)}, loads off first, standing to the side`
          : `${name(s)}, loads off first`,
      subject: s.id,
    })),
    ...switches.map((s): IsolationStep => ({
      act: 'lock and tag',
      text: `${name(s)}: lock on the handle, tag with name and time, key in your pocket`,
      subject: s.id,
    })),
    { act: 'prove', text: 'Prove the tester on a source known to be live' },
    ...[...new Set(prove)].map((p): IsolationStep => ({ act: 'prove', text: `Prove dead: ${p}` })),
    ...(prove.length === 0
      ? [
          {
            act: 'prove',
            text: `Prove dead at the work: every conductor to every other and to ground`,
          } as const,
        ]
      : []),
    { act: 'prove', text: 'Prove the tester again on the same live source' },
    {
      act: 'restore',
      text: 'When done: covers on, people clear, locks off by whoever put them on, switch on one at a time, test',
    },
  ]
  return {
    target: name(target),
    steps,
    staysLive: live,
    open: [...new Set(open)],
    tag: [
      'DO NOT SWITCH ON',
      `Work on: ${name(target)}`,
      ...switches.map(s => `Off here: ${name(s)}`),
      'Name ____________________',
      'Date, time ______________',
    ],
  }
}
