/** What a picture is of, and what has to be in its frame; both can be said later. */
export interface Taken {
  readonly of?: string
  readonly frame?: string
}

/** Takes pictures onto this device: first the picture, then what is known of it. */
export function usePhotoTaking() {
  const job = useJobStore()
  const device = useDeviceStore()
  const busy = ref(false)
  const problem = ref('')
  const waiting = shallowRef<File>()

  /** Judged by content, so that what the server would refuse is not taken in the first place. */
  async function isPicture(file: File): Promise<boolean> {
    try {
      ;(await createImageBitmap(file)).close()
      return true
    } catch {
      return false
    }
  }
  /** Its name comes when the server has stored it. */
  async function send(file: File, { of, frame }: Taken = {}): Promise<void> {
    problem.value = ''
    waiting.value = file
    busy.value = true
    const id = crypto.randomUUID()
    const note = (field: string, value: string, grade: 'seen' | 'measured' = 'seen') => ({
      act: 'note' as const,
      subject: id,
      field,
      value,
      grade,
    })
    if (!(await isPicture(file))) {
      problem.value = 'This is not a photograph Corvit can keep: JPEG, PNG or WebP are'
      busy.value = false
      return
    }
    try {
      await device.holdPhoto({ id, job: job.jobId!, subject: id, picture: file, by: job.assessor })
      job.record([
        { act: 'add', subject: id, kind: 'photo', parent: 'premises' },
        ...(of ? [note('of', of)] : []),
        note('takenAt', new Date().toISOString(), 'measured'),
        ...(frame ? [note('shows', frame)] : []),
      ])
      waiting.value = undefined
      await device.flush()
    } catch {
      problem.value =
        `This device cannot keep the photograph (${device.storageProblem || 'no room'}). ` +
        'What is recorded is safe.'
    } finally {
      busy.value = false
    }
  }
  return { busy, problem, waiting, send }
}
