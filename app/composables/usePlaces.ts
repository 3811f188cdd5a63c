/** One place of the application, as the rail, the phone's bar and the search name it. */
export interface Place {
  readonly to: string
  readonly name: string
  readonly icon: string
  /** Pressed after G. */
  readonly key: string
  readonly count: number
}

/** Where one can go from here: the places of the open job in the order of the walk, and what stands beside them. */
export function usePlaces() {
  const job = useJobStore()
  const ofJob = computed<readonly Place[]>(() => {
    if (job.jobId === undefined) return []
    const base = `/jobs/${job.jobId}`
    const found = job.findings.length
    return [
      { to: `${base}/walk`, name: 'Walk', icon: 'lucide:footprints', key: 'w', count: 0 },
      { to: `${base}/panel`, name: 'Panel', icon: 'lucide:rows-3', key: 'p', count: 0 },
      { to: `${base}/outlets`, name: 'Outlets', icon: 'lucide:plug', key: 'o', count: 0 },
      {
        to: `${base}/findings`,
        name: 'Findings',
        icon: 'lucide:list-checks',
        key: 'f',
        count: found,
      },
      { to: `${base}/plan`, name: 'Plan', icon: 'lucide:list-tree', key: 'l', count: 0 },
      { to: `${base}/report`, name: 'Report', icon: 'lucide:file-text', key: 'r', count: 0 },
    ]
  })
  const beside = computed<readonly Place[]>(() => {
    const bench = job.jobId === undefined ? '/calculators' : `/jobs/${job.jobId}/bench`
    const currents = job.jobId === undefined ? '/currents' : `/jobs/${job.jobId}/currents`
    return [
      { to: bench, name: 'Calculators', icon: 'lucide:calculator', key: 'b', count: 0 },
      { to: currents, name: 'Currents', icon: 'lucide:waypoints', key: 'c', count: 0 },
      {
        to: job.jobId === undefined ? '/practice' : `/jobs/${job.jobId}/practice`,
        name: 'Practice',
        icon: 'lucide:graduation-cap',
        key: 'x',
        count: 0,
      },
      { to: '/rules', name: 'Rule book', icon: 'lucide:book-open', key: 'k', count: 0 },
    ]
  })
  const jobs: Place = { to: '/', name: 'Jobs', icon: 'lucide:folder-open', key: 'j', count: 0 }
  const all = computed(() => [...ofJob.value, ...beside.value, jobs])
  return { ofJob, beside, jobs, all }
}
