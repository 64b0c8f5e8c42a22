import { serveCaliper } from '@sable/standins/caliper'
import { Machine } from '@sable/standins/printer/machine'
import { serveScale } from '@sable/standins/scale'
import { serveTable } from '@sable/standins/table'
import { towerProgram } from '@sable/standins/testing'
import { runProgram } from '@sable/standins/thing'
import { truthFrom } from '@sable/standins/truth'
import express from 'express'
import request from 'supertest'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { answerProblem } from '../../http/problems'
import { type Instruments, instrumentRoutes } from './instrumentRoutes'

const machine = new Machine({ ...truthFrom(3), flowFactor: 1, shrinks: 0 })
for (const _ of runProgram(machine, towerProgram(1, {})));
const open: { close: () => Promise<void> }[] = []
const at = (port: number) => ({ host: '127.0.0.1', port })
let there: Instruments
beforeAll(async () => {
  const [scale, caliper, table] = await Promise.all([
    serveScale({ seed: 1, port: 0, grossG: 600, machine }),
    serveCaliper({ seed: 1, port: 0, machine }),
    serveTable({ port: 0, machine }),
  ])
  open.push(scale, caliper, table)
  there = { scale: at(scale.port), caliper: at(caliper.port), table: at(table.port) }
})
afterAll(() => Promise.all(open.map(({ close }) => close())))

const api = (instruments: Instruments) => request(express().use(instrumentRoutes(instruments)).use(answerProblem))

describe('instruments at the ends of wires', () => {
  it('tell which of them are there', async () => {
    expect((await api(there).get('/')).body).toEqual({ scale: true, caliper: true, table: true })
    expect((await api({}).get('/')).body).toEqual({ scale: false, caliper: false, table: false })
  })

  it('a scale tells the reel less what was taken, a caliper the thing by its axes', async () => {
    const { grams } = (await api(there).get('/scale').expect(200)).body
    expect(grams).toBeGreaterThan(595)
    expect(grams).toBeLessThan(601.5)
    // Two columns of 8 mm, 20 mm apart; 20 layers of 0.2 mm.
    for (const [axis, mm] of [['X', 36] as const, ['Y', 8] as const, ['Z', 4] as const]) {
      const told = (await api(there).get(`/caliper/${axis}`).expect(200)).body.mm
      expect(Math.abs(told - mm), axis).toBeLessThan(0.6)
    }
    await api(there).get('/caliper/W').expect(400)
  })

  it('the table shows what was laid and nothing of the machine’s truth', async () => {
    const { body } = await api(there).get('/table').expect(200)
    expect(body.thing.heightMm).toBeCloseTo(4, 6)
    expect(body.pulledApartAtN).toBeGreaterThan(0)
    for (const name of Object.keys(truthFrom(1))) expect(JSON.stringify(body)).not.toContain(name)
  })

  it('silent or missing ones are told as such', async () => {
    const gone = await api({ scale: at(9), caliper: at(9), table: at(9) }).get('/scale')
    expect(gone.status).toBe(502)
    expect(gone.body.detail).toContain('The scale tells no weight')
    expect((await api({}).get('/caliper/X')).body.detail).toBe('No caliper is connected.')
  })
})
