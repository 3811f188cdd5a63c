import type { Page } from 'puppeteer-core'

interface JobStore {
  jobId?: string
  unsent: number
  saveState: string
  conflicts: unknown[]
  note(subject: string, field: string, value: unknown): void
  record(drafts: unknown[]): void
  log(): { id: string }[]
  house: { subjects: Map<string, { facts: Record<string, { state: string; value?: unknown }> }> }
}
interface DeviceStore {
  holdPhoto(photo: {
    id: string
    job: string
    subject: string
    picture: Blob
    by: string
  }): Promise<void>
}
declare global {
  interface Window {
    jobStore(): JobStore
    deviceStore(): DeviceStore
  }
}

/** Lets a test record many observations the way the screens do, without typing each. */
export const withStore = (page: Page) =>
  page.evaluateOnNewDocument(() => {
    const storeOf = (name: string) => {
      const root = document.querySelector('#__nuxt') as unknown as {
        __vue_app__: { config: { globalProperties: { $pinia: { _s: Map<string, unknown> } } } }
      }
      return root.__vue_app__.config.globalProperties.$pinia._s.get(name)
    }
    window.jobStore = () => storeOf('job') as JobStore
    window.deviceStore = () => storeOf('device') as DeviceStore
  })

/** A device whose clock is wrong by so many milliseconds. */
export const withClockOff = (page: Page, ms: number) =>
  page.evaluateOnNewDocument(off => {
    const Real = Date
    class Off extends Real {
      constructor(...given: unknown[]) {
        if (given.length === 0) super(Real.now() + off)
        else super(...(given as [number]))
      }

      static override now() {
        return Real.now() + off
      }
    }
    window.Date = Off as DateConstructor
  }, ms)

/** A browser that refuses to store anything. */
export const withoutStorage = (page: Page) =>
  page.evaluateOnNewDocument(() => {
    const refuse = () => {
      throw new DOMException('The quota has been exceeded.', 'QuotaExceededError')
    }
    IDBObjectStore.prototype.add = refuse
    IDBObjectStore.prototype.put = refuse
  })

export const isOpen = (page: Page) =>
  page.waitForFunction(() => window.jobStore().jobId !== undefined, { timeout: 15_000 })
export const logIds = (page: Page) =>
  page.evaluate(() =>
    window
      .jobStore()
      .log()
      .map(o => o.id)
      .sort(),
  )
/** Everything known, as plain text, to compare two screens. */
export const knownOf = (page: Page) =>
  page.evaluate(() => {
    const known: string[] = []
    for (const [id, subject] of window.jobStore().house.subjects) {
      for (const [field, fact] of Object.entries(subject.facts))
        if (fact.state === 'known') known.push(`${id}.${field}=${JSON.stringify(fact.value)}`)
    }
    return known.sort()
  })
