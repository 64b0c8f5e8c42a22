import { casesSchema, storedCaseSchema } from '@sable/contract/cases'
import { ruledOutSchema } from '@sable/contract/experiments'
import { shelfSchema } from '@sable/contract/shelf'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type OpenServer, openServer } from '../../testing/openServer'
import { talkTo } from '../../testing/talk'

let server: OpenServer
let api: ReturnType<typeof talkTo>
let failed: object
beforeAll(async () => {
  server = await openServer('cases')
  // The demo's own are looked at first, then taken away.
  const demo = await server.cases.list()
  expect(demo.filter(({ closed }) => closed !== undefined)).toHaveLength(3)
  expect(demo).toHaveLength(4)
  for (const { id } of demo) await server.cases.remove(id)
  api = talkTo(server)
  const [first] = await server.lineups.list()
  const { id: lineup, partId, placement, purpose, candidates } = await server.lineups.get(first!.id)
  failed = { fault: 'strings', candidate: candidates[0], partId, partName: 'carry hook', placement, purpose, lineup }
})
afterAll(() => server.close())

const open = async (more: object = {}) =>
  storedCaseSchema.parse(
    (
      await api
        .post('/api/cases')
        .send({ ...failed, ...more })
        .expect(201)
    ).body,
  )

describe('a case', () => {
  it('is opened, answered, tried, closed, and taken away', async () => {
    const { id, revision, changedAt: _, ...one } = await open({ atZ: 4 })
    const changed = {
      ...one,
      answers: { sound: 'nothing' },
      tries: [{ cause: 'hot', words: 'Print 5 °C cooler', change: { nozzleTemperature: 205 }, did: 'better', times: 2, mixed: false }],
      closed: 'It was the heat.',
    }
    const { body } = await api.put(`/api/cases/${id}`).send({ revision, case: changed }).expect(200)
    expect(casesSchema.parse(body)).toMatchObject([{ id, revision: 2, ...changed }])
    expect((await api.get('/api/cases').expect(200)).body).toEqual(body)
    expect((await api.del(`/api/cases/${id}`).expect(200)).body).toEqual([])
  })

  it('changed in two windows is not overwritten', async () => {
    const { id, revision, changedAt: _, ...one } = await open()
    await api.put(`/api/cases/${id}`).send({ revision, case: one }).expect(200)
    expect((await api.put(`/api/cases/${id}`).send({ revision, case: one }).expect(409)).body.code).toBe('case-changed')
    await api.put('/api/cases/3f1c1a52-3b0a-4a43-9a26-0d5b1a6d7a01').send({ revision: 1, case: one }).expect(404)
    await api.del(`/api/cases/${id}`)
  })

  it('of no fault that is known is refused with its place; what cannot be read is set aside by name', async () => {
    const { body } = await api
      .post('/api/cases')
      .send({ ...failed, fault: 'ghosts' })
      .expect(400)
    expect(body.where).toContain('fault')
    const { id } = await open()
    await server.models.cases.update({ record: '{' }, { where: { id } })
    expect((await api.get('/api/cases').expect(200)).body).toEqual([])
    expect((await api.get('/api/set-aside').expect(200)).body).toMatchObject([{ kind: 'case', id }])
    expect((await api.del(`/api/set-aside/case/${id}`).expect(200)).body).toEqual([])
  })

  it('teaches while it is closed, and what it ruled out stands in the log’s book', async () => {
    const { id, revision, changedAt: _, ...one } = await open({ fault: 'splitBand', atZ: 12 })
    const taught = [{ on: 'ladder', temperature: 215, flow: 9.1, noise: 0.2 }]
    const tries = [
      { cause: 'cold', words: 'Print 5 °C hotter', change: { nozzleTemperature: 215 }, was: { nozzleTemperature: 210 }, did: 'same' },
    ]
    const shelf = async () =>
      shelfSchema.parse((await api.get('/api/shelf').expect(200)).body).evidence.filter(({ reading }) => reading === id)
    await api
      .put(`/api/cases/${id}`)
      .send({ revision, case: { ...one, tries, closed: 'The flow.', found: 'flowOver', taught } })
      .expect(200)
    expect(await shelf()).toMatchObject([{ evidence: taught, from: expect.stringMatching(/^case of a band of split layers, carry hook/) }])
    const book = ruledOutSchema.parse((await api.get('/api/experiments/ruled-out').expect(200)).body)
    expect(book).toContainEqual(
      expect.objectContaining({
        fault: 'A band of split layers',
        label: 'Nozzle temperature',
        was: '210 °C',
        is: '215 °C',
        questions: ['the case of carry hook'],
      }),
    )
    // Opened again it teaches nothing.
    await api
      .put(`/api/cases/${id}`)
      .send({ revision: revision + 1, case: { ...one, tries } })
      .expect(200)
    expect(await shelf()).toEqual([])
    await api.del(`/api/cases/${id}`).expect(200)
  })
})
