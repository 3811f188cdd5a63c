import { PREMISES_ID, valueOf, type Line, type Subject } from '#core'

type Draft = Parameters<ReturnType<typeof useJobStore>['record']>[0][number]

/** Turns a breaker line into observations about breaker, circuit and conductors. One line is one step of undo. */
export function useRecorder() {
  const job = useJobStore()

  function keepLine(
    panel: Subject<'enclosure'>,
    line: Line,
    selected: Subject<'breaker'> | undefined,
  ): string | undefined {
    const { site } = job
    const drafts: Draft[] = []
    const note = (
      subject: string,
      field: string,
      value: string | number | boolean | readonly string[] | undefined,
      grade: 'seen' | 'read' | 'told' | 'gauge' = 'seen',
    ) => {
      if (value !== undefined) drafts.push({ act: 'note', subject, field, value, grade })
    }
    const existing =
      line.space === undefined
        ? selected
        : site
            .children(panel, 'breaker')
            .find(
              b =>
                valueOf(b, 'space') === line.space &&
                (valueOf(b, 'half') ?? undefined) === line.half,
            )
    if (!existing && line.space === undefined) return undefined
    const breaker = existing?.id ?? crypto.randomUUID()
    if (!existing) {
      drafts.push({ act: 'add', subject: breaker, kind: 'breaker', parent: panel.id })
      note(breaker, 'poles', line.poles ?? 1)
      note(breaker, 'device', 'breaker')
    } else note(breaker, 'poles', line.poles)
    note(breaker, 'space', line.space)
    note(breaker, 'half', line.half)
    note(breaker, 'ratingAmps', line.ratingAmps, 'read')
    note(breaker, 'protection', line.protection)
    note(
      breaker,
      'handleTie',
      line.handleTie ?? ((line.poles ?? 1) > 1 && !existing ? 'common trip' : undefined),
    )
    note(breaker, 'role', line.role)
    if (line.role === 'feeder' || line.role === 'spare') {
      note(breaker, 'label', line.label, 'read')
      if (line.role === 'feeder')
        conductors(site.feedersFrom({ id: breaker } as Subject)[0]?.id, 'feeder')
      job.record(drafts)
      return breaker
    }
    const wantsCircuit =
      line.label !== undefined ||
      line.size !== undefined ||
      line.metal !== undefined ||
      line.wiring !== undefined ||
      line.sharesWith !== undefined ||
      line.conductors !== undefined ||
      !existing
    if (wantsCircuit) {
      const known = existing && site.circuitsOf(existing)[0]
      const circuit = known?.id ?? crypto.randomUUID()
      if (!known) {
        drafts.push({ act: 'add', subject: circuit, kind: 'circuit', parent: PREMISES_ID })
        note(circuit, 'fedBy', breaker)
      }
      note(circuit, 'label', line.label, 'read')
      note(circuit, 'supplies', line.supplies, 'told')
      if (line.sharesWith !== undefined) {
        const other = site
          .children(panel, 'breaker')
          .find(b => valueOf(b, 'space') === line.sharesWith)
        const otherCircuit = other && site.circuitsOf(other)[0]
        if (otherCircuit) {
          note(circuit, 'sharesNeutralWith', [otherCircuit.id])
          note(otherCircuit.id, 'sharesNeutralWith', [
            ...new Set([...(valueOf(otherCircuit, 'sharesNeutralWith') ?? []), circuit]),
          ])
        } else {
          const otherBreaker = other?.id ?? crypto.randomUUID()
          const fresh = crypto.randomUUID()
          if (!other) {
            drafts.push({ act: 'add', subject: otherBreaker, kind: 'breaker', parent: panel.id })
            note(otherBreaker, 'space', line.sharesWith)
            note(otherBreaker, 'poles', 1)
          }
          drafts.push({ act: 'add', subject: fresh, kind: 'circuit', parent: PREMISES_ID })
          note(fresh, 'fedBy', otherBreaker)
          note(fresh, 'sharesNeutralWith', [circuit])
          note(circuit, 'sharesNeutralWith', [fresh])
        }
      }
      if (
        line.size !== undefined ||
        line.metal !== undefined ||
        line.wiring !== undefined ||
        line.conductors !== undefined
      )
        conductors(known && site.children(known, 'segment')[0]?.id, 'segment', circuit)
    }
    job.record(drafts)
    return breaker

    function conductors(id: string | undefined, kind: 'segment' | 'feeder', parent = PREMISES_ID) {
      const wire = id ?? crypto.randomUUID()
      if (id === undefined) {
        drafts.push({ act: 'add', subject: wire, kind, parent })
        if (kind === 'feeder') note(wire, 'from', breaker)
      }
      note(wire, 'size', line.size, 'gauge')
      note(wire, 'metal', line.metal)
      note(wire, 'wiring', line.wiring, 'read')
      if (kind === 'segment') note(wire, 'conductors', line.conductors)
    }
  }
  return { keepLine }
}
