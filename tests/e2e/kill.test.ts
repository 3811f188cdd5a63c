import { Appended, Job } from '#shared/api'
import { freshDb, post, serve } from '../support/app'

it('a server killed between any two writes loses nothing it acknowledged', async () => {
  const db = freshDb()
  const acknowledged: string[] = []
  let job = ''
  for (let round = 0; round < 4; round++) {
    const server = await serve({ db })
    if (!job) job = Appended.parse(await (await post(`${server.url}/api/jobs`, { name: 'Killed', purpose: 'service', edition: 2020 })).json()).job.id
    // Killed without warning at a moment the writes know nothing of.
    const killed = new Promise<void>(resolve => setTimeout(() => void server.stop('SIGKILL').then(resolve), 150 + round * 90))
    for (let n = 0; n < 2000; n++) {
      const id = `k-${round}-${n}`
      try {
        const response = await post(`${server.url}/api/jobs/${job}/observations`, { observations: [{ id, at: new Date(Date.UTC(2026, 0, 1, 0, 0, round, n % 1000)).toISOString(), by: 'Ann', act: 'note', subject: 'premises', field: 'client', value: `client ${round} ${n}`, grade: 'told' }] })
        if (response.ok) acknowledged.push(id)
        else throw new Error(await response.text())
      } catch { break }
    }
    await killed
  }
  expect(acknowledged.length).toBeGreaterThan(20)
  const server = await serve({ db })
  const stored = new Set(Job.parse(await (await fetch(`${server.url}/api/jobs/${job}`)).json()).observations.map(o => o.id))
  expect(acknowledged.filter(id => !stored.has(id))).toEqual([])
  await server.stop()
})
