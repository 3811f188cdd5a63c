/** Opens the job named in the address; says whether it is loading or why it cannot be. */
export function useOpenJob() {
  const job = useJobStore()
  const route = useRoute()
  const problem = ref('')
  const isLoading = ref(true)
  async function load() {
    isLoading.value = true
    problem.value = ''
    try {
      await job.open(String(route.params.jobId))
    } catch (error) {
      problem.value = (error as Error).message
    } finally {
      isLoading.value = false
    }
  }
  void load()
  return { job, problem, isLoading, load }
}
