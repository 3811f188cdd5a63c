import {
  calculatorById,
  factAt,
  labelOf,
  READING_FIELDS,
  valueOf,
  type AnyValue,
  type Subject,
} from '#core'

/** Calculators in the order of a visit. Tracing needs a house, so it is offered inside a job only. */
export const BENCH_ORDER = [
  'diagnose',
  'trace',
  'ampacity',
  'boxfill',
  'identify',
  'heat',
  'voltage-drop',
  'dwelling-load',
  'gfci-time',
  'working-space',
  'trip-estimate',
] as const

/** One calculator at a time: what is put in, what comes out, and how it is taken from the house and put back. */
export function useBench() {
  const job = useJobStore()
  const route = useRoute()
  const router = useRouter()
  const order = computed(() => BENCH_ORDER.filter(id => id !== 'trace' || job.jobId !== undefined))
  const id = computed<string>(
    () => order.value.find(x => x === String(route.query.calculator)) ?? 'diagnose',
  )
  const choose = (next: string) => router.replace({ query: { calculator: next } })
  const sum = computed(() => calculatorById(id.value)!)
  const values = ref<Record<string, unknown>>({})
  const from = ref(String(route.query.from ?? ''))
  watch(id, () => {
    values.value = {}
    from.value = ''
  })
  const isAsked = computed(() => Object.values(values.value).some(v => v !== undefined))
  const parsed = computed(() =>
    sum.value.input.safeParse(benchInput(id.value, values.value, job.site.units)),
  )
  const out = computed(() =>
    isAsked.value && parsed.value.success
      ? (sum.value.run(parsed.value.data) as Record<string, unknown>)
      : undefined,
  )
  const refused = computed(() =>
    isAsked.value && !parsed.value.success ? parsed.value.error.issues[0] : undefined,
  )
  const labelFor = (path: readonly PropertyKey[]) =>
    BENCH[id.value]?.find(
      f => path.map(String).join('.').includes(f.key) || path.map(String).includes(f.key),
    )?.label ?? path.map(String).join('.')
  /** A missing input is asked for; a wrong one is said to be wrong. */
  const refusal = computed(() => {
    const issue = refused.value
    if (!issue) return ''
    const name = labelFor(issue.path)
    return values.value[String(issue.path.at(-1))] === undefined
      ? `Still needed: ${name.toLowerCase()}`
      : `${name}: ${issue.message}`
  })
  /** Things of the house a sum can take its inputs from. */
  const sources = computed<{ id: string; label: string }[]>(() => {
    const list: readonly Subject[] =
      id.value === 'ampacity' || id.value === 'identify'
        ? [...job.site.all.segment, ...job.site.all.feeder]
        : id.value === 'diagnose' || id.value === 'boxfill'
          ? job.site.all.outlet
          : id.value === 'working-space'
            ? job.site.all.enclosure
            : []
    return list
      .map(s => ({ id: s.id, label: labelOf(job.site, s) }))
      .sort((a, b) => a.label.localeCompare(b.label, 'en', { numeric: true }))
  })
  /** Fields of the house that are inputs of a sum, both ways. */
  const SAME: Record<string, readonly (readonly [input: string, field: string])[]> = {
    diagnose: Object.entries(READING_FIELDS) as [string, string][],
    identify: [
      ['surface', 'surface'],
      ['core', 'core'],
      ['legend', 'legend'],
      ['isSoft', 'isSoft'],
      ['bareMm', 'bareMm'],
      ['size', 'size'],
      ['year', 'year'],
    ],
    ampacity: [
      ['size', 'size'],
      ['metal', 'metal'],
      ['wiring', 'wiring'],
      ['insulationC', 'insulationC'],
      ['terminalsC', 'terminalsC'],
      ['carriesWholeDwelling', 'carriesWholeDwelling'],
    ],
    boxfill: [
      ['volumeIn3', 'boxVolumeIn3'],
      ['grounds.count', 'groundsInBox'],
      ['hasInternalClamps', 'hasInternalClamps'],
    ],
    'working-space': [
      ['depthIn', 'workingDepthIn'],
      ['widthIn', 'workingWidthIn'],
      ['heightIn', 'workingHeightIn'],
      ['equipmentWidthIn', 'widthIn'],
    ],
  }
  function take(source: string) {
    from.value = source
    const subject = job.house.subjects.get(source)
    if (!subject) return
    const next: Record<string, unknown> = {}
    for (const [input, field] of SAME[id.value] ?? []) {
      const fact = factAt(subject, field)
      const options = BENCH[id.value]!.find(f => f.key === input)?.options
      if (
        fact?.state === 'known' &&
        (!options || options.includes(fact.value as string)) &&
        !Array.isArray(fact.value)
      )
        next[input] = fact.value
    }
    if (id.value === 'boxfill') {
      const size = valueOf(subject as Subject<'outlet'>, 'largestInBox')
      const count = valueOf(subject as Subject<'outlet'>, 'conductorsInBox')
      if (size && count !== undefined) next[`conductors.${size}`] = count
      if (['receptacle', 'switch'].includes(valueOf(subject as Subject<'outlet'>, 'type') ?? ''))
        next.yokes = 1
    }
    if (id.value === 'ampacity') next.edition = job.site.edition
    values.value = next
  }
  onMounted(() => {
    if (from.value) take(from.value)
  })
  watch(
    () => job.isReady,
    () => {
      if (from.value && !isAsked.value) take(from.value)
    },
  )
  const GRADE = {
    diagnose: 'measured',
    identify: 'seen',
    'working-space': 'measured',
    ampacity: 'seen',
    boxfill: 'seen',
  } as const
  function putBack() {
    const subject = from.value
    const drafts = (SAME[id.value] ?? [])
      .filter(([input, field]) => values.value[input] !== undefined && field !== 'year')
      .map(([input, field]) => ({
        act: 'note' as const,
        subject,
        field,
        value: values.value[input] as AnyValue,
        grade: GRADE[id.value as keyof typeof GRADE],
      }))
    const metal = id.value === 'identify' ? out.value?.metal : undefined
    if (typeof metal === 'string')
      drafts.push({
        act: 'note',
        subject,
        field: 'metal',
        value: metal,
        grade: 'seen',
      })
    if (drafts.length) job.record(drafts)
    isKept.value = true
  }
  const isKept = ref(false)
  watch(
    values,
    () => {
      isKept.value = false
    },
    { deep: true },
  )

  function tryExample() {
    from.value = ''
    values.value = { ...BENCH_EXAMPLES[id.value] }
  }
  /** The reading, or the look, that would settle most. */
  const nextKey = computed(() => {
    const next = out.value?.next as { reading?: string; evidence?: string } | null | undefined
    return next?.reading ?? next?.evidence ?? ''
  })
  return {
    nextKey,
    id,
    order,
    choose,
    values,
    from,
    isAsked,
    out,
    refused,
    refusal,
    sources,
    take,
    putBack,
    isKept,
    tryExample,
  }
}
