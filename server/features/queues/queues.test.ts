import { printLinesSchema } from '@sable/contract/prints'
import { queueNow, stateOf } from '@sable/contract/queueNow'
import { queuesSchema, storedQueueSchema } from '@sable/contract/queues'
import { schedule } from '@sable/core/queue/schedule'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type OpenServer, openServer } from '../../testing/openServer'
import { talkTo } from '../../testing/talk'

let server: OpenServer
let api: ReturnType<typeof talkTo>
beforeAll(async () => {
  server = await openServer('queues')
  api = talkTo(server)
})
afterAll(() => server.close())

const list = async () => queuesSchema.parse((await api.get('/api/queues').expect(200)).body)
const lines = async () =>
  new Map(printLinesSchema.parse((await api.get('/api/prints?limit=1000').expect(200)).body).prints.map((line) => [line.id, line]))
const around = async () => ({ lines: await lines(), reels: [], printers: [] })

describe('a queue', () => {
  it('of the demo is placed on three printers within hours of presence', async () => {
    const [{ jobs, ...rest }] = (await list()) as [Awaited<ReturnType<typeof list>>[number]]
    expect(jobs).toHaveLength(14)
    const found = schedule(queueNow({ jobs, ...rest }, await around(), new Date()), { rounds: 500 })
    expect(found.refused).toEqual([])
    expect(found.placed).toHaveLength(21)
    expect(new Set(found.placed.map(({ printer }) => printer)).size).toBe(3)
  })

  it('follows the log: what runs keeps its printer busy, what failed is printed again, what is done is out', async () => {
    const [{ id, revision, changedAt: _, ...queue }] = (await list()) as [Awaited<ReturnType<typeof list>>[number]]
    const [job] = queue.jobs as [(typeof queue.jobs)[number]]
    const { line } = (await api.post('/api/prints').send(job.ways[0]!).expect(201)).body
    const begun = { ...queue, jobs: queue.jobs.map((one) => (one === job ? { ...one, prints: [line.id] } : one)) }
    const [kept] = queuesSchema.parse((await api.put(`/api/queues/${id}`).send({ revision, queue: begun }).expect(200)).body)
    const state = async () => stateOf(kept!.jobs[0]!, await lines())
    expect(await state()).toMatchObject({ done: 0, failed: 0, left: job.copies })
    await api.post(`/api/prints/${line.id}/start`).send({}).expect(200)
    expect(await state()).toMatchObject({ done: 0, left: job.copies - 1 })
    const busy = queueNow(kept!, await around(), new Date()).printers.find(({ key }) => key === line.printer)!
    expect(busy.freeAt).toBeGreaterThan(5)
    await api
      .put(`/api/prints/${line.id}/outcome`)
      .send({ outcome: { result: 'spoiled' } })
      .expect(200)
    expect(await state()).toMatchObject({ done: 0, failed: 1, left: job.copies })
  })

  it('changed in two windows is not overwritten, is removed, and refuses what it cannot be with its place', async () => {
    const made = storedQueueSchema.parse((await api.post('/api/queues').send({ name: 'second', machines: [] }).expect(201)).body)
    const { id, revision, changedAt: _, ...queue } = made
    await api
      .put(`/api/queues/${id}`)
      .send({ revision, queue: { ...queue, name: 'renamed' } })
      .expect(200)
    expect((await api.put(`/api/queues/${id}`).send({ revision, queue }).expect(409)).body.code).toBe('queue-changed')
    const bad = { ...queue, hours: [{ days: [1], from: '20:00', to: '08:00' }] }
    const { body } = await api.put(`/api/queues/${id}`).send({ revision: 2, queue: bad }).expect(400)
    expect(body.where).toContain('hours')
    await api.del(`/api/queues/${id}`).expect(200)
    expect((await list()).map(({ name }) => name)).not.toContain('renamed')
  })

  it('that cannot be read is set aside by name', async () => {
    const { id } = (await api.post('/api/queues').send({ name: 'third', machines: [] }).expect(201)).body
    await server.models.queues.update({ record: '{' }, { where: { id } })
    expect((await list()).length).toBe(1)
    expect((await api.get('/api/set-aside').expect(200)).body).toMatchObject([{ kind: 'queue', id }])
    expect((await api.del(`/api/set-aside/queue/${id}`).expect(200)).body).toEqual([])
  })
})
