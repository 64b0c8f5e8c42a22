import { experimentsSchema, ruledOutSchema, storedExperimentSchema } from '@sable/contract/experiments'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type OpenServer, openServer } from '../../testing/openServer'
import { talkTo } from '../../testing/talk'
import { seedDemo } from '../demo/seed'

let server: OpenServer
let api: ReturnType<typeof talkTo>
beforeAll(async () => {
  server = await openServer('experiments', false)
  api = talkTo(server)
})
afterAll(() => server.close())

const add = async (question: string) =>
  storedExperimentSchema.parse((await api.post('/api/experiments').send({ question }).expect(201)).body)

describe('an experiment', () => {
  it('is asked, told of, and taken away', async () => {
    const { id, revision, ...experiment } = await add('Why does it string?')
    const changed = {
      ...experiment,
      tries: [{ print: '3f1c1a52-3b0a-4a43-9a26-0d5b1a6d7a01', did: 'same', note: '' }],
      verdict: 'Not known yet.',
    }
    const { body } = await api.put(`/api/experiments/${id}`).send({ revision, experiment: changed }).expect(200)
    expect(experimentsSchema.parse(body)).toMatchObject([{ id, revision: 2, verdict: 'Not known yet.' }])
    expect((await api.del(`/api/experiments/${id}`).expect(200)).body).toEqual([])
  })

  it('changed in two windows is not overwritten', async () => {
    const { id, revision, ...experiment } = await add('Twice?')
    await api.put(`/api/experiments/${id}`).send({ revision, experiment }).expect(200)
    const { body } = await api.put(`/api/experiments/${id}`).send({ revision, experiment }).expect(409)
    expect(body.code).toBe('experiment-changed')
    await api.put('/api/experiments/3f1c1a52-3b0a-4a43-9a26-0d5b1a6d7a01').send({ revision: 1, experiment }).expect(404)
  })

  it('rules out for its fault, printer and reel what did not help, and nothing by a print that is gone', async () => {
    const gone = await add('Gone?')
    const { id: g, revision: r, changedAt: _, ...asked } = gone
    const tries = ['3f1c1a52-3b0a-4a43-9a26-0d5b1a6d7a01', '3f1c1a52-3b0a-4a43-9a26-0d5b1a6d7a02'].map((print) => ({
      print,
      did: 'same',
      note: '',
    }))
    await api
      .put(`/api/experiments/${g}`)
      .send({ revision: r, experiment: { ...asked, fault: 'strings', tries } })
      .expect(200)
    expect((await api.get('/api/experiments/ruled-out').expect(200)).body).toEqual([])
    await seedDemo(server, false, server.uploadFolder)
    const out = ruledOutSchema.parse((await api.get('/api/experiments/ruled-out').expect(200)).body)
    expect(out.length).toBeGreaterThan(0)
    for (const { fault, printer, questions } of out) expect([fault, printer, questions].every((told) => told.length > 0)).toBe(true)
  })

  it('without a question is refused; what cannot be read is set aside', async () => {
    expect((await api.post('/api/experiments').send({ question: '' }).expect(400)).body.where).toContain('question')
    const { id } = await add('Spoilt?')
    await server.models.experiments.update({ record: '{' }, { where: { id } })
    expect((await api.get('/api/experiments').expect(200)).body.map((one: { id: string }) => one.id)).not.toContain(id)
    expect((await api.get('/api/set-aside').expect(200)).body).toMatchObject([{ kind: 'experiment', id }])
    await api.del(`/api/set-aside/experiment/${id}`).expect(200)
  })
})
