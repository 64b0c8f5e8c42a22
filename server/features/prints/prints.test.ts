import { type FrozenPrint, type Print, printLinesSchema, printSchema, trailSchema } from '@sable/contract/prints'
import { setupOf, shelfSchema } from '@sable/contract/shelf'
import { asModelled } from '@sable/core/mesh/place'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type OpenServer, openServer } from '../../testing/openServer'
import { talkTo } from '../../testing/talk'

let server: OpenServer
let api: ReturnType<typeof talkTo>
beforeAll(async () => {
  server = await openServer('prints')
  api = talkTo(server)
})
afterAll(() => server.close())

const place = { printer: 'towline', nozzle: 'bore-0.4', material: 'pla', spool: 'rope-ends' }
const frozen = (more: Partial<FrozenPrint> = {}, foretold: Partial<FrozenPrint['foretold']> = {}): FrozenPrint => ({
  ...place,
  name: 'wick-knob',
  profile: 'everyday',
  placement: asModelled,
  values: { layerHeight: 0.2 },
  overrides: [],
  resolved: { layerHeight: { value: 0.2, origin: 'profile' } },
  foretold: {
    timeS: 3600,
    startS: 200,
    massG: 40,
    cost: 1.1,
    heightMm: 30,
    slope: 0.3,
    spreads: { time: 0.08, filament: 0.03 },
    reach: { time: 1.28, filament: 1.28 },
    inForce: {},
    figures: [],
    ...foretold,
  },
  ...more,
})
const plan = async (more?: Partial<FrozenPrint>, foretold?: Partial<FrozenPrint['foretold']>): Promise<Print> =>
  printSchema.parse((await api.post('/api/prints').send(frozen(more, foretold)).expect(201)).body)
const begin = async (...from: Parameters<typeof plan>): Promise<string> => {
  const { line } = await plan(...from)
  await api.post(`/api/prints/${line.id}/start`).send({}).expect(200)
  return line.id
}
const end = async (id: string, outcome: object): Promise<Print> =>
  printSchema.parse((await api.put(`/api/prints/${id}/outcome`).send({ outcome }).expect(200)).body)
const setup = async () => setupOf(place, shelfSchema.parse((await api.get('/api/shelf').expect(200)).body))!

describe('a print', () => {
  it('is planned, runs and ends, and says each time where it stands', async () => {
    const { line } = await plan()
    expect(line).toMatchObject({ state: 'planned', timeS: 3800, massG: 40, leftOut: false })
    // 1.28 standard deviations of 8 % to either side.
    expect(line.timeRange[1] / line.timeS).toBeCloseTo(Math.exp(1.28 * 0.08), 9)
    const { body: running } = await api.post(`/api/prints/${line.id}/start`).send({}).expect(200)
    expect(running.line).toMatchObject({ state: 'running', startedAt: expect.any(String) })
    await api.post(`/api/prints/${line.id}/start`).send({}).expect(409)
    const ended = await end(line.id, { result: 'usable', actualS: 4000, spools: [{ spool: 'rope-ends', beforeG: 300, afterG: 258.5 }] })
    expect(ended.line).toMatchObject({ state: 'usable', actualS: 4000, weighedG: 41.5, endedAt: expect.any(String) })
    expect(ended.kept!.evidence).toEqual([
      { on: 'timed', predictedS: 3600, slope: 0.3, startS: 200, actualS: 4000 },
      { on: 'weight', predictedG: 40, weighedG: 41.5 },
    ])
    expect(ended.kept!.scores.time).toBeCloseTo(Math.log(4000 / 3800) / 0.08, 9)
  })

  it('keeps what was foretold, whatever is known afterwards', async () => {
    const id = await begin()
    const before = (await api.get(`/api/prints/${id}`).expect(200)).body.frozen
    await end(id, { result: 'good', actualS: 5200 })
    expect((await api.get(`/api/prints/${id}`).expect(200)).body.frozen).toEqual(before)
  })

  it('that ended moves the time of its printer, and left out it never was', async () => {
    const before = (await setup()).known?.['print.acceleration']
    const id = await begin()
    await end(id, { result: 'good', actualS: 4600 })
    const after = (await setup()).known!['print.acceleration']!
    expect(after.value).toBeLessThan(before?.value ?? 1)
    expect(after.spread).toBeLessThan(before?.spread ?? 0.2)
    await api.put(`/api/prints/${id}/left-out`).send({ leftOut: true }).expect(200)
    expect((await setup()).known?.['print.acceleration']).toEqual(before)
  })

  it('that was foretold by what was known by then is held against nothing known', async () => {
    const id = await begin({}, { inForce: { 'print.acceleration': 0.9, 'print.pace': 1.02, 'print.start': 40, 'print.flow': 1.05 } })
    const { kept } = await end(id, { result: 'good', actualS: 3800, weighedG: 40 })
    const timed = kept!.evidence.find((one) => one.on === 'timed')!
    const weight = kept!.evidence.find((one) => one.on === 'weight')!
    expect(timed.predictedS).toBeCloseTo(3600 / (1.02 * 0.9 ** -0.3), 6)
    expect(timed.startS).toBe(160)
    expect(weight.predictedG).toBeCloseTo(40 / 1.05, 9)
  })

  it('that was spoiled or stopped teaches nothing of time and mass', async () => {
    const id = await begin()
    const { line, kept } = await end(id, { result: 'spoiled', atZ: 12.4, actualS: 900, faults: [{ what: 'layers shifted', atZ: 12.4 }] })
    expect(line).toMatchObject({ state: 'spoiled', atZ: 12.4, faults: [{ what: 'layers shifted', atZ: 12.4 }] })
    expect(kept!.evidence).toEqual([])
  })

  it.each([
    [{ result: 'spoiled', atZ: 44 }, 422, 'above the top of the print, 30.0 mm'],
    [{ result: 'good', spools: [{ spool: 'rope-ends', beforeG: 200, afterG: 240 }] }, 400, 'weighs more after the print'],
    [{ result: 'excellent' }, 400, 'result'],
    [{ result: 'good', marks: { sides: 9 } }, 400, 'sides'],
  ])('an outcome of %j is refused with %i in a sentence', async (outcome, status, words) => {
    const id = await begin()
    const { body } = await api.put(`/api/prints/${id}/outcome`).send({ outcome })
    expect(body.status).toBe(status)
    expect(`${body.detail} ${body.where}`).toContain(words)
    expect((await api.get(`/api/prints/${id}`)).body.line.state).toBe('running')
  })

  it('on a spool that the shelf lacks is refused; one that never began can be taken away, one that did stays', async () => {
    expect((await api.post('/api/prints').send(frozen({ spool: 'nowhere' }))).body).toMatchObject({ status: 422, code: 'record-unknown' })
    const { line } = await plan()
    await api.del(`/api/prints/${line.id}`).expect(204)
    await api.get(`/api/prints/${line.id}`).expect(404)
    const id = await begin()
    await api.del(`/api/prints/${id}`).expect(409)
  })

  it('stands in the trail of its part, each beside the one before; of other parts whose names begin alike it is not', async () => {
    const name = `harbour lid ${Date.now()}`
    const a = await begin({ name })
    await end(a, { result: 'good', actualS: 3500, marks: { sides: 3 } })
    const b = await begin({ name, resolved: { layerHeight: { value: 0.28, origin: 'profile' } } })
    await end(b, { result: 'usable', marks: { sides: 2, top: 3 }, against: { print: a, verdict: 'worse' } })
    await begin({ name: `${name} II` })
    await plan({ name })
    const { body } = await api.get('/api/prints/trail').query({ name }).expect(200)
    const trail = trailSchema.parse(body)
    expect(trail.map(({ line }) => line.id)).toEqual([a, b])
    expect(trail[1]).toMatchObject({ changed: [{ label: 'Layer height', was: '0.2 mm', is: '0.28 mm' }], mark: 2.5, verdict: 'worse' })
  })

  it('is found by printer, state and words, which mean themselves', async () => {
    const id = await begin({ name: 'bumper foot 100 %' })
    await end(id, { result: 'stopped', note: 'Ran *out* of filament_ twice.' })
    const found = async (query: string) =>
      printLinesSchema.parse((await api.get(`/api/prints?${query}`).expect(200)).body).prints.map((one) => one.id)
    expect(await found('words=twice%20bumper')).toEqual([id])
    expect(await found(`words=${encodeURIComponent('100 %')}`)).toEqual([id])
    expect(await found(`words=${encodeURIComponent('filamentX')}`)).toEqual([])
    expect(await found('state=stopped&printer=towline')).toContain(id)
    expect(await found('printer=lugger&words=bumper')).toEqual([])
    const { body } = await api.get('/api/prints?limit=2&skip=1').expect(200)
    expect(body.prints).toHaveLength(2)
    expect(body.total).toBeGreaterThan(3)
  })

  it('has photographs, which go where it goes', async () => {
    const { line } = await plan()
    const bytes = await sharp({ create: { width: 30, height: 20, channels: 3, background: '#996633' } })
      .png()
      .toBuffer()
    const { body } = await api.post(`/api/prints/${line.id}/photos`).type('application/octet-stream').send(bytes).expect(201)
    expect((await api.get(`/api/prints/${line.id}`)).body.photos).toEqual([body.id])
    expect((await api.get(`/api/prints/photos/${body.id}`).expect(200)).type).toBe('image/jpeg')
    // As the camera took it only where that was wished for.
    const raw = async (id: string): Promise<Buffer> =>
      (await api.get(`/api/prints/photos/${id}/original`).buffer(true).parse(asBytes).expect(200)).body
    expect(await raw(body.id)).not.toEqual(bytes)
    const whole = await api.post(`/api/prints/${line.id}/photos?original=kept`).type('application/octet-stream').send(bytes).expect(201)
    expect(await raw(whole.body.id)).toEqual(bytes)
    await api.del(`/api/prints/photos/${whole.body.id}`).expect(200)
    await api.del(`/api/prints/${line.id}`).expect(204)
    await api.get(`/api/prints/photos/${body.id}`).expect(404)
  })

  it('that cannot be read is set aside by name, and stops neither list nor shelf', async () => {
    const id = await begin({ name: 'spoilt page' })
    await server.models.prints.update({ summary: '{"version":1,"value":{}}' }, { where: { id } })
    const { body } = await api.get('/api/prints').expect(200)
    expect(body.prints.map((one: { id: string }) => one.id)).not.toContain(id)
    expect((await api.get('/api/set-aside').expect(200)).body).toMatchObject([{ kind: 'print', id, name: 'spoilt page' }])
    await setup()
    await api.del(`/api/set-aside/print/${id}`).expect(200)
  })
})

/** What is no text is taken as it comes. */
function asBytes(response: unknown, done: (error: Error | null, bytes: Buffer) => void): void {
  const stream = response as NodeJS.ReadableStream
  const pieces: Buffer[] = []
  stream.on('data', (piece: Buffer) => pieces.push(Buffer.from(piece)))
  stream.on('end', () => done(null, Buffer.concat(pieces)))
}
