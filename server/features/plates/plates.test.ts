import { randomUUID } from 'node:crypto'
import { storedPlateSchema, storedPlatesSchema } from '@sable/contract/plate'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type OpenServer, openServer } from '../../testing/openServer'
import { talkTo } from '../../testing/talk'

let server: OpenServer
let api: ReturnType<typeof talkTo>
beforeAll(async () => {
  server = await openServer('plates')
  api = talkTo(server)
})
afterAll(() => server.close())

const item = () => ({ id: randomUUID(), lineup: randomUUID(), candidate: randomUUID(), x: -12.5, y: 30, turn: 45 })
const all = async () => storedPlatesSchema.parse((await api.get('/api/plates').expect(200)).body)
/** Those that are not the demo's. */
const list = async () => (await all()).filter(({ name }) => name !== 'What hangs the lantern')

describe('a plate', () => {
  it('of the demo is made of columns that are there', async () => {
    const [demo] = (await all()).filter(({ name }) => name === 'What hangs the lantern')
    expect(demo!.items).toHaveLength(5)
    for (const { lineup, candidate } of demo!.items) {
      const { body } = await api.get(`/api/lineups/${lineup}`).expect(200)
      expect(body.candidates.map(({ id }: { id: string }) => id)).toContain(candidate)
    }
  })

  it('is kept, changed from its revision, and deleted', async () => {
    const [one, other] = [item(), item()]
    const made = storedPlateSchema.parse(
      (
        await api
          .post('/api/plates')
          .send({ name: 'Sunday', items: [one] })
          .expect(201)
      ).body,
    )
    expect(made).toMatchObject({ name: 'Sunday', order: 'together', items: [one], revision: 1 })
    const { id, changedAt: _, revision, ...plate } = made
    const next = { ...plate, order: 'inTurn', items: [one, other] }
    const [written] = storedPlatesSchema.parse((await api.put(`/api/plates/${id}`).send({ revision, plate: next }).expect(200)).body)
    expect(written).toMatchObject({ order: 'inTurn', items: [one, other], revision: 2 })
    // From a revision that is no longer the last it is refused, and what stands there stays.
    const refused = await api.put(`/api/plates/${id}`).send({ revision, plate }).expect(409)
    expect(refused.body).toMatchObject({ code: 'plate-changed' })
    expect(await list()).toEqual([written])
    await api.del(`/api/plates/${id}`).expect(200)
    expect(await list()).toEqual([])
    await api.put(`/api/plates/${id}`).send({ revision: 2, plate }).expect(404)
  })

  it('is refused by field where it is none', async () => {
    for (const [wrong, where] of [
      [{ name: '' }, 'name'],
      [{ name: 'a', order: 'sideways' }, 'order'],
      [{ name: 'a', items: [{ ...item(), x: 90_000 }] }, 'items.0.x'],
      [{ name: 'a', items: Array.from({ length: 65 }, item) }, 'items'],
    ] as const) {
      const { body } = await api.post('/api/plates').send(wrong).expect(400)
      expect(JSON.stringify(body), where).toContain(where)
    }
    expect(await list()).toEqual([])
  })
})
