import { drawnTowerSchema, towerTruthSchema } from '@sable/contract/trainer'
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

describe('a tower to learn on', () => {
  it('shows what is to be seen and not what it is; an answer is told the truth', async () => {
    const { body } = await api.get('/api/trainer/4').expect(200)
    expect(drawnTowerSchema.parse(body).kind).toBe('temperature')
    expect(JSON.stringify(body)).not.toContain('truth')
    const told = towerTruthSchema.parse((await api.post('/api/trainer/4').send({ value: 205 }).expect(200)).body)
    expect(told.truth).toBeGreaterThan(150)
    await api.post('/api/trainer/4').send({ value: 'hot' }).expect(400)
    await api.get('/api/trainer/minus').expect(400)
  })

  it('is read by the trials’ own rules within a few degrees, and within a tenth of the flow', async () => {
    const off = { temperature: [] as number[], flow: [] as number[] }
    for (let seed = 0; seed < 60; seed++) {
      const { kind } = drawnTowerSchema.parse((await api.get(`/api/trainer/${seed}`).expect(200)).body)
      const { truth, rule } = towerTruthSchema.parse((await api.post(`/api/trainer/${seed}`).send({ value: 1 }).expect(200)).body)
      if (rule !== undefined) off[kind].push(kind === 'flow' ? Math.abs(Math.log(rule / truth)) : Math.abs(rule - truth))
    }
    const median = (values: number[]): number => values.sort((a, b) => a - b)[values.length >> 1]!
    expect(median(off.temperature)).toBeLessThan(5)
    expect(median(off.flow)).toBeLessThan(0.1)
  })
})
