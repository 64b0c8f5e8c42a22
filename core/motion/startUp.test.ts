import { describe, expect, it } from 'vitest'
import { heatingTime, startUpTime } from './startUp'

describe('starting up', () => {
  it('heats as a first-order system: two thirds of the way after one time constant (any text on systems)', () => {
    const heater = { tauS: 100, reachC: 122 }
    expect(heatingTime(heater, 22 + 100 * (1 - Math.exp(-1)), 22)).toBeCloseTo(100, 9)
    expect(heatingTime(heater, 20, 22)).toBe(0)
    expect(heatingTime(heater, 122, 22)).toBe(Infinity)
  })

  it('waits for the slower of bed and nozzle, then homes and purges; says nothing where it knows nothing', () => {
    const start = { homingS: 20, purgeS: 10, bed: { tauS: 200, reachC: 120 }, nozzle: { tauS: 60, reachC: 320 } }
    expect(startUpTime({ start }, { nozzle: 210, bed: 60 }, 22)).toBeCloseTo(heatingTime(start.bed, 60, 22) + 30, 9)
    expect(startUpTime({ start }, { nozzle: 210, bed: 0 }, 22)).toBeCloseTo(heatingTime(start.nozzle, 210, 22) + 30, 9)
    expect(startUpTime({ start }, { nozzle: 210, bed: 130 }, 22)).toBeUndefined()
    expect(startUpTime({ start: undefined }, { nozzle: 210, bed: 60 }, 22)).toBeUndefined()
  })
})
