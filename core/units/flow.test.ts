import { describe, expect, it } from 'vitest'
import { medians } from '../constants/constants'
import { assumedFlowLimit } from '../physics/melt/flowLimit'
import { setupOf } from '../testing/setups'
import { filamentArea, filamentLength, flowAt, lineArea, massOf, speedForFlow } from './flow'
import { convertSpeed } from './speed'

// Common practice, no source; the ids are those of the project's design notes.
describe('flow arithmetic', () => {
  it('CP-F1: 0.2 × 0.4 mm at 100 mm/s is 8 mm³/s', () => expect(flowAt(lineArea(0.2, 0.4), 100)).toBeCloseTo(8, 12))

  it('CP-F2: 12 mm³/s allows 150 mm/s, 25 a little over 300, and 500 mm/s would need 40', () => {
    expect(speedForFlow(12, lineArea(0.2, 0.4))).toBeCloseTo(150, 9)
    expect(speedForFlow(25, lineArea(0.2, 0.4))).toBeCloseTo(312.5, 9)
    expect(flowAt(lineArea(0.2, 0.4), 500)).toBeCloseTo(40, 9)
  })

  it('CP-F3: 0.15 × 0.4 mm at 500 mm/s is 30 mm³/s', () => expect(flowAt(lineArea(0.15, 0.4), 500)).toBeCloseTo(30, 9))

  it('CP-F4: an ordinary hot end with PLA is assumed to carry 10–15 mm³/s, a long one with fast filament 25–30', () => {
    const ordinary = assumedFlowLimit(setupOf('dory').printer, setupOf().material, {}, medians.melt)
    const fast = assumedFlowLimit(setupOf('lugger').printer, setupOf('lugger', 'bore-0.4', 'fast-pla').material, {}, medians.melt)
    expect(ordinary).toBeGreaterThanOrEqual(10)
    expect(ordinary).toBeLessThanOrEqual(15)
    expect(fast).toBeGreaterThanOrEqual(25)
    expect(fast).toBeLessThanOrEqual(30)
  })

  it('CP-F11: 3000 mm/min is 50 mm/s', () => {
    expect(convertSpeed.fromPerMinute(3000)).toBe(50)
    expect(convertSpeed.toPerMinute(50)).toBe(3000)
  })

  it('CP-A2: a kilogram of 1.75 mm PLA at 1.24 g/cm³ is about 335 m', () => {
    expect(filamentLength((1000 / 1.24) * 1000, 1.75) / 1000).toBeCloseTo(335, 0)
    expect(massOf(filamentArea(1.75) * 335_000, 1.24)).toBeGreaterThan(995)
  })
})
