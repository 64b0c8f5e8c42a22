import { setupOf, shelfSchema } from '@sable/contract/shelf'
import { type Reading, type Trial, trialsSchema } from '@sable/contract/trials'
import { resolveSettings } from '@sable/core/setup/resolve'
import { planTrial } from '@sable/core/trials/plan'
import { heightsOf } from '@sable/core/trials/spec/trial'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type OpenServer, openServer } from '../../testing/openServer'
import { talkTo } from '../../testing/talk'

let server: OpenServer
let api: ReturnType<typeof talkTo>
beforeAll(async () => {
  server = await openServer('trials')
  api = talkTo(server)
})
afterAll(() => server.close())

const place = { printer: 'lugger', nozzle: 'bore-0.4', material: 'pla', spool: 'rope-ends' }
const shelf = async () => shelfSchema.parse((await api.get('/api/shelf').expect(200)).body)
const setup = async () => setupOf(place, await shelf())!
const ladder = async () => planTrial('flowLadder', await setup(), { range: { from: 10, to: 24, step: 1 } }).spec
const make = async (): Promise<Trial> =>
  (
    await api
      .post('/api/trials')
      .send({ ...place, spec: await ladder() })
      .expect(201)
  ).body as Trial
const read = async (trial: Trial, front: number): Promise<Reading> =>
  (
    await api
      .post('/api/trials/readings')
      .send({ trial: trial.id, bands: [], whole: { front, back: front + 1 } })
      .expect(201)
  ).body as Reading

describe('a trial', () => {
  it('that is read changes what its spool may be asked, on that printer alone', async () => {
    const before = resolveSettings(await setup(), {}).settings.flowLimit
    const trial = await make()
    const reading = await read(trial, heightsOf(trial.spec, 3).fromZ + 0.4)
    expect(reading.found).toContain('Fails at 13 mm³/s')
    const after = resolveSettings(await setup(), {}).settings.flowLimit
    expect(after).toBeLessThan(0.8 * before)
    const elsewhere = setupOf({ ...place, printer: 'cutter' }, await shelf())!
    expect(elsewhere.material.ladder).toBeUndefined()
  })

  it('whose reading is left out never was, and can be taken in again', async () => {
    const asked = async () => resolveSettings(await setup(), {}).settings.flowLimit
    const before = await asked()
    const trial = await make()
    const reading = await read(trial, heightsOf(trial.spec, 0).fromZ + 0.4)
    const after = await asked()
    expect(after).not.toBe(before)
    await api.put(`/api/trials/readings/${reading.id}/left-out`).send({ leftOut: true }).expect(200)
    expect(await asked()).toBe(before)
    await api.put(`/api/trials/readings/${reading.id}/left-out`).send({ leftOut: false }).expect(200)
    expect(await asked()).toBe(after)
  })

  it('cannot be taken away once it was read, and before that it can', async () => {
    const trial = await make()
    const other = await make()
    await read(trial, 5)
    await api.del(`/api/trials/${trial.id}`).expect(409)
    const { body } = await api.del(`/api/trials/${other.id}`).expect(200)
    expect(trialsSchema.parse(body).trials.map(({ id }) => id)).not.toContain(other.id)
  })

  it.each([
    [{ whole: { front: 300 } }, 422, 'above the top of the print'],
    [{ whole: { front: 'low' } }, 422, 'is not possible'],
    [{ whole: { colour: 3 } }, 422, 'Nothing asks for'],
    [{ bands: Array.from({ length: 40 }, () => ({})) }, 422, 'the print has 15'],
    [{ trial: '3f1c1a52-3b0a-4a43-9a26-0d5b1a6d7a01' }, 404, 'no such trial'],
  ])('a reading of %j is refused with %i in a sentence', async (change, status, words) => {
    const trial = await make()
    const { body } = await api
      .post('/api/trials/readings')
      .send({ trial: trial.id, bands: [], whole: {}, ...change })
      .expect(status)
    expect(body.detail).toContain(words)
  })

  it('on a nozzle that the shelf lacks is refused', async () => {
    const { body } = await api
      .post('/api/trials')
      .send({ ...place, nozzle: 'nowhere', spec: await ladder() })
      .expect(422)
    expect(body.where).toContain('nowhere')
  })

  it('that cannot be read is set aside by name, and stops nothing', async () => {
    const trial = await make()
    await server.models.trials.update({ trial: '{"version":1,"value":{}}' }, { where: { id: trial.id } })
    expect(trialsSchema.parse((await api.get('/api/trials').expect(200)).body).trials.map(({ id }) => id)).not.toContain(trial.id)
    const { body } = await api.get('/api/set-aside').expect(200)
    expect(body).toMatchObject([{ kind: 'trial', id: trial.id }])
    await api.del(`/api/set-aside/trial/${trial.id}`).expect(200)
    await shelf()
  })
})

describe('a photograph of a print', () => {
  const upload = (trial: string, bytes: Uint8Array) =>
    api.post(`/api/trials/${trial}/photos`).type('application/octet-stream').send(Buffer.from(bytes))

  it('is kept small and upright, and given back', async () => {
    const trial = await make()
    const taken = await sharp({ create: { width: 4000, height: 3000, channels: 3, background: '#996633' } })
      .jpeg()
      .withMetadata({ orientation: 6 })
      .toBuffer()
    const { body } = await upload(trial.id, taken).expect(201)
    expect(trialsSchema.parse((await api.get('/api/trials')).body).photos).toContainEqual({ id: body.id, trial: trial.id })
    const kept = await api.get(`/api/trials/photos/${body.id}`).expect(200)
    expect(await sharp(kept.body as Buffer).metadata()).toMatchObject({ format: 'jpeg', width: 1200, height: 1600 })
    await api.del(`/api/trials/photos/${body.id}`).expect(200)
    await api.get(`/api/trials/photos/${body.id}`).expect(404)
  })

  it('that is none, or too large, is refused in a sentence', async () => {
    const trial = await make()
    const { body } = await upload(trial.id, new TextEncoder().encode('solid, no picture')).expect(422)
    expect(body.detail).toContain('no picture that can be opened')
    const large = await api
      .post(`/api/trials/${trial.id}/photos`)
      .type('application/octet-stream')
      .set('Content-Length', String(80 * 2 ** 20))
      .expect(413)
    expect(large.body.detail).toContain('The photograph is larger than 40 MB')
  })
})
