import { drawnTowerSchema, type TowerKind, towerTruthSchema } from '@sable/contract/trainer'
import { towerBands, towerProgram } from '@sable/standins/testing'
import { median } from 'd3-array'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type OpenServer, openServer } from '../../testing/openServer'
import { talkTo } from '../../testing/talk'

let server: OpenServer
let api: ReturnType<typeof talkTo>
beforeAll(async () => {
  server = await openServer('trainer', false)
  api = talkTo(server)
})
afterAll(() => server.close())

const heat = [180, 185, 190, 195, 200, 205, 210, 215, 220]
const pull = [0, 0.4, 0.8, 1.2, 1.6, 2]
const flow = [12, 14, 16, 18, 20, 22, 24, 26, 28, 30]

const ask = (seed: string, kind: string, values: readonly number[], program: readonly string[]) =>
  api
    .post(`/api/trainer/${seed}`)
    .query({ kind, bands: JSON.stringify(towerBands(values)) })
    .type('application/octet-stream')
    .send(program.join('\n'))

/** By how much the trial's rule is off, over several machines. */
async function offBy(kind: TowerKind, values: readonly number[], program: readonly string[]): Promise<number[]> {
  const off: number[] = []
  for (let seed = 0; seed < 12; seed++) {
    const { id } = drawnTowerSchema.parse((await ask(String(seed), kind, values, program).expect(201)).body)
    const { truth, rule } = towerTruthSchema.parse((await api.post(`/api/trainer/${id}/answer`).send({ value: 1 }).expect(200)).body)
    if (rule !== undefined) off.push(Math.abs(rule - truth))
  }
  return off
}

describe('a tower to learn on', () => {
  it('shows what is to be seen and not what it is; an answer is told the truth', async () => {
    const { body } = await ask('4', 'temperature', heat, towerProgram(heat.length, { heat })).expect(201)
    const { id, thing } = drawnTowerSchema.parse(body)
    expect(thing.heightMm).toBeCloseTo(36, 3)
    expect(JSON.stringify(body)).not.toContain('truth')
    const told = towerTruthSchema.parse((await api.post(`/api/trainer/${id}/answer`).send({ value: 205 }).expect(200)).body)
    expect(told.truth).toBeGreaterThan(150)
    await api.post(`/api/trainer/${id}/answer`).send({ value: 'hot' }).expect(400)
    await api.post('/api/trainer/a3a3a3a3-0000-4000-8000-000000000000/answer').send({ value: 200 }).expect(404)
  })

  it('is read by the trials’ own rules within some degrees, a band of flow or two, and a step of pull', async () => {
    expect(median(await offBy('temperature', heat, towerProgram(heat.length, { heat, pull: heat.map(() => 0.8) })))).toBeLessThan(6)
    expect(median(await offBy('flowLadder', flow, towerProgram(flow.length, { flow })))).toBeLessThan(4)
    expect(median(await offBy('retraction', pull, towerProgram(pull.length, { pull })))).toBeLessThan(0.6)
  })

  it('refuses what is none: bands that are no list, a seed that is no number, a program that lays nothing', async () => {
    const refused = await api.post('/api/trainer/4').query({ kind: 'temperature', bands: 'x' }).type('application/octet-stream').send('G28')
    expect(refused.status).toBe(400)
    await ask('minus', 'temperature', heat, ['G28']).expect(400)
    const { body } = await ask('4', 'temperature', heat, ['G28', 'M84']).expect(422)
    expect(body.detail).toContain('Nothing was laid')
  })
})
