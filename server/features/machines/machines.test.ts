import { machineStateSchema } from '@sable/contract/machines'
import { type Print, printSchema } from '@sable/contract/prints'
import { shelfSchema } from '@sable/contract/shelf'
import { asModelled } from '@sable/core/mesh/place'
import { type StandinPrinter, servePrinter } from '@sable/standins/printer/serve'
import { ConnectionError } from 'sequelize'
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { type OpenServer, openServer } from '../../testing/openServer'
import { talkTo } from '../../testing/talk'
import { createProgramStore } from '../prints/programStore'
import { createMachineDesk } from './machineDesk'
import { createRunStore } from './runStore'
import { tcpTransport } from './transport'

let server: OpenServer
let api: ReturnType<typeof talkTo>
let machine: StandinPrinter
beforeAll(async () => {
  server = await openServer('machines')
  api = talkTo(server)
})
afterAll(() => server.close())
beforeEach(async () => {
  machine = await servePrinter({ seed: 5, port: 0, times: 400 })
  await addressed(`127.0.0.1:${machine.port}`)
})
afterEach(async () => {
  await api.post('/api/machines/lugger/disconnect').expect(200)
  await machine.close()
})

async function addressed(address: string): Promise<void> {
  const { printers } = shelfSchema.parse((await api.get('/api/shelf').expect(200)).body)
  const { starter: _, archived: __, revision, ...record } = printers.find(({ key }) => key === 'lugger')!
  await api
    .put('/api/shelf/printers/lugger')
    .send({ revision, record: { ...record, address } })
    .expect(200)
}

/** Squares one above the other: heats, homes, and lays some of what a part would. */
const program = (layers: number): string =>
  [
    '; a tower',
    'M83',
    'M140 S50',
    'M104 S200',
    'M190 S50',
    'M109 S200',
    'G28',
    ...Array.from({ length: layers }, (_, i) => [
      `G1 Z${(0.2 * (i + 1)).toFixed(2)} F600`,
      'G1 X30 Y0 E1 F3000',
      'G1 X30 Y30 E1',
      'G1 X0 Y30 E1',
      'G1 X0 Y0 E1',
    ]).flat(),
    'M104 S0',
    'M140 S0',
  ].join('\n')

async function planned(layers: number): Promise<string> {
  const foretold = {
    timeS: 100,
    startS: 100,
    massG: 2,
    cost: 0.1,
    heightMm: 0.2 * layers,
    slope: 0.2,
    spreads: { time: 0.1, filament: 0.03 },
    reach: { time: 1.28, filament: 1.28 },
    inForce: {},
    figures: [],
  }
  const frozen = {
    printer: 'lugger',
    nozzle: 'bore-0.4',
    material: 'pla',
    name: 'tower',
    placement: asModelled,
    values: {},
    overrides: [],
    resolved: {},
    foretold,
  }
  const { body } = await api.post('/api/prints').send(frozen).expect(201)
  await api.post(`/api/prints/${body.line.id}/program`).type('text/plain').send(program(layers)).expect(201)
  return body.line.id
}
const print = async (id: string): Promise<Print> => printSchema.parse((await api.get(`/api/prints/${id}`).expect(200)).body)
const state = async () => machineStateSchema.parse((await api.get('/api/machines/lugger').expect(200)).body)
const act = (name: string, body: object = {}) => api.post(`/api/machines/lugger/${name}`).send(body)
const patience = { timeout: 30_000, interval: 50 }

describe('a machine at the end of a wire', () => {
  it('is sent a program, tells heat and height meanwhile, and its own clock says how long it took', async () => {
    const id = await planned(40)
    await act('connect').expect(200)
    expect(await state()).toMatchObject({ phase: 'idle' })
    await act('print', { print: id }).expect(200)
    await act('print', { print: id }).expect(409)
    await expect.poll(async () => (await state()).nozzle.now, patience).toBeGreaterThan(150)
    await expect.poll(async () => (await state()).phase, patience).toBe('idle')
    const { line } = await print(id)
    expect(line).toMatchObject({ state: 'running', endedAt: expect.any(String) })
    // 40 layers of 120 mm at 50 mm/s are 96 s; heating and homing come before.
    expect(line.clockS!).toBeGreaterThan(120)
    expect(machine.machine.making.layers.reduce((sum, { feed }) => sum + feed, 0)).toBeCloseTo(160, 3)
    expect(machine.machine.nozzle.target).toBe(0)
    expect((await state()).broken).toBeUndefined()
  })

  it('that is held sends nothing more until it goes on; ended in order its heaters are off', async () => {
    const id = await planned(400)
    await act('connect').expect(200)
    await act('print', { print: id }).expect(200)
    await expect.poll(async () => (await state()).z, patience).toBeGreaterThan(2)
    await act('pause').expect(200)
    await expect.poll(() => machine.machine.isIdle, patience).toBe(true)
    const held = (await state()).accepted
    await new Promise((done) => setTimeout(done, 300))
    expect(await state()).toMatchObject({ phase: 'held', accepted: held })
    await act('resume').expect(200)
    await expect.poll(async () => (await state()).accepted, patience).toBeGreaterThan(held)
    await act('end').expect(200)
    // What a person has ended is not offered to be gone on with.
    const ended = await state()
    expect(ended.phase).toBe('idle')
    expect(ended.broken).toBeUndefined()
    await expect.poll(() => machine.machine.nozzle.target + machine.machine.bed.target, patience).toBe(0)
  })

  it('is stopped at once: heaters off, and nothing more is taken', async () => {
    const id = await planned(400)
    await act('connect').expect(200)
    await act('print', { print: id }).expect(200)
    await expect.poll(async () => (await state()).accepted, patience).toBeGreaterThan(20)
    await act('halt').expect(200)
    await expect.poll(() => machine.machine.nozzle.target, patience).toBe(0)
    expect((await state()).message).toContain('Switch the machine off and on')
  })

  it('a line that the wire loses is sent again, and all is laid once', async () => {
    const id = await planned(60)
    await act('connect').expect(200)
    await act('print', { print: id }).expect(200)
    await expect.poll(async () => (await state()).accepted, patience).toBeGreaterThan(30)
    machine.loseLine()
    await expect.poll(async () => (await state()).phase, patience).toBe('idle')
    expect(machine.machine.making.layers.reduce((sum, { feed }) => sum + feed, 0)).toBeCloseTo(240, 3)
  })

  it('whose server dies goes on where it was, once a person says so: no line is run twice', async () => {
    const id = await planned(300)
    await act('connect').expect(200)
    await act('print', { print: id }).expect(200)
    await expect.poll(async () => (await state()).accepted, patience).toBeGreaterThan(200)
    // Another server takes over with what the database holds, and nothing else.
    server.machines.close()
    const runs = createRunStore(server.models)
    await expect.poll(async () => (await runs.broken('lugger'))?.printId, patience).toBe(id)
    const desk = createMachineDesk({
      shelf: server.shelf,
      prints: server.prints,
      programs: createProgramStore(server.models),
      runs,
      open: tcpTransport,
    })
    await desk.connect('lugger', false)
    expect((await desk.state('lugger')).broken).toMatchObject({ print: id })
    expect(machine.machine.isIdle || (await desk.state('lugger')).phase === 'idle').toBe(true)
    await desk.print('lugger', id)
    await expect.poll(async () => (await desk.state('lugger')).phase, patience).toBe('idle')
    expect(machine.machine.making.layers.reduce((sum, { feed }) => sum + feed, 0)).toBeCloseTo(1200, 3)
    expect(new Set(machine.machine.making.layers.map(({ z }) => z)).size).toBe(300)
    desk.close()
  })

  it('that was switched off in between is not gone on with: what it stands at is said', async () => {
    const id = await planned(300)
    await act('connect').expect(200)
    await act('print', { print: id }).expect(200)
    await expect.poll(async () => (await state()).accepted, patience).toBeGreaterThan(100)
    const { port } = machine
    await machine.close()
    await expect.poll(async () => (await state()).phase, patience).toBe('away')
    const { broken } = await state()
    expect(broken).toMatchObject({ print: id, total: 1510 })
    machine = await servePrinter({ seed: 5, port, times: 400 })
    await act('connect').expect(200)
    await act('print', { print: id }).expect(200)
    await expect.poll(async () => (await state()).message, patience).toContain('switched off in between')
    expect((await print(id)).line.state).toBe('running')
    expect(machine.machine.making.layers).toEqual([])
    await act('give-up', { print: id }).expect(200)
    expect((await state()).broken).toBeUndefined()
  })

  it('that has cooled down meanwhile is heated again before it goes on', async () => {
    const id = await planned(300)
    await act('connect').expect(200)
    await act('print', { print: id }).expect(200)
    await expect.poll(async () => (await state()).accepted, patience).toBeGreaterThan(200)
    await act('disconnect').expect(200)
    // Its own watchdog turned the heaters off; it still knows which line it awaits.
    machine.machine.nozzle.target = 0
    machine.machine.bed.target = 0
    await expect.poll(() => machine.machine.nozzle.celsius, patience).toBeLessThan(60)
    await act('connect').expect(200)
    await act('print', { print: id }).expect(200)
    await expect.poll(async () => (await state()).phase, patience).toBe('idle')
    // Every line was laid: nothing was fed into a cold nozzle.
    expect(machine.machine.making.layers.reduce((sum, { feed }) => sum + feed, 0)).toBeCloseTo(1200, 3)
  })

  it('that comes to its end while the database is away is told of when that is back', async () => {
    const id = await planned(20)
    let fails = 4
    const runs = createRunStore(server.models)
    const desk = createMachineDesk({
      shelf: server.shelf,
      prints: {
        ...server.prints,
        cameToEnd: async (...of) => {
          if (fails-- > 0) throw new ConnectionError(new Error('connect ECONNREFUSED'))
          await server.prints.cameToEnd(...of)
        },
      },
      programs: createProgramStore(server.models),
      runs,
      open: tcpTransport,
    })
    await desk.connect('lugger', false)
    await desk.print('lugger', id)
    await expect.poll(async () => (await print(id)).line.clockS, patience).toBeGreaterThan(60)
    expect(fails).toBeLessThan(0)
    expect(await runs.broken('lugger')).toBeUndefined()
    desk.close()
  })

  it('beyond this computer is not reached without a person’s word; where nothing answers, that is said', async () => {
    await addressed('192.0.2.7:4000')
    expect((await act('connect').expect(409)).body).toMatchObject({
      code: 'not-beyond-loopback',
      remedy: expect.stringContaining('never start a heater from afar'),
    })
    await addressed('127.0.0.1:9')
    expect((await act('connect').expect(502)).body.detail).toContain('Nothing answers at 127.0.0.1:9')
    await addressed(`127.0.0.1:${machine.port}`)
    const id = await planned(2)
    expect((await act('print', { print: id }).expect(409)).body.code).toBe('machine-away')
  })
})
