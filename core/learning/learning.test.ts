import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { breakingStress, sectionModulus } from './bars'
import { cleanWindow } from './cleanWindow'
import { narrowByWeight } from './flowFactor'
import { type FlowLine, flowAt, flowLine, withLadder } from './flowLine'
import { narrow, narrowPlain } from './logNormal'
import { dampingOf, frequencyOf } from './rings'
import { countedOoze, leastPull, letThrough, meanOoze, spreadOfOoze, unknownOoze } from './stringCounts'

/* Expected values were worked out apart from this code, by the formulas of the conjugate updates that each file names. */

describe('readings narrow what is thought', () => {
  it('bars that broke at 44, 47.5 and 42.8 MPa, of a material told as 50', () => {
    const { median, spread } = narrow({ median: 50, spread: 0.2 }, { values: [44, 47.5, 42.8], noise: 0.1, batch: 0.05 })
    expect(median).toBeCloseTo(45.36, 1)
    expect(spread).toBeCloseTo(0.0713, 3)
  })

  it('bonds of 0.52 and 0.47 where 0.65 was told', () => {
    const { median, spread } = narrow({ median: 0.65, spread: 0.25 }, { values: [0.52, 0.47], noise: 0.15, batch: 0.05 })
    expect(median).toBeCloseTo(0.519, 3)
    expect(spread).toBeCloseTo(0.106, 3)
  })

  it('one flawed bar of three moves strength by far less than its share', () => {
    const prior = { median: 50, spread: 0.2 }
    const [sound, flawed] = [44, 0.65 * 44].map((third) => narrow(prior, { values: [45, 46, third], noise: 0.1, batch: 0.05 }).median)
    // A plain mean of logarithms would fall by a third of the flaw: 12 %, less what the prior holds.
    expect(flawed! / sound!).toBeGreaterThan(0.94)
    expect(flawed! / sound!).toBeLessThan(1)
  })

  it('nothing read leaves all as it is', () => {
    expect(narrow({ median: 3, spread: 0.4 }, { values: [], noise: 0.1 })).toEqual({ median: 3, spread: 0.4 })
  })

  it('on a plain scale a mean of as many readings as the prior is worth lies in the middle', () => {
    const { median, spread } = narrowPlain({ median: 0.4, spread: 0.2 }, { values: [0.8], noise: 0.2 })
    expect(median).toBeCloseTo(0.6, 9)
    expect(spread).toBeCloseTo(0.2 / Math.SQRT2, 9)
  })

  it('in any order to the same, and no reading makes it less certain', () => {
    const reading = fc.double({ min: 0.1, max: 10, noNaN: true })
    fc.assert(
      fc.property(fc.array(reading, { minLength: 1, maxLength: 12 }), (values) => {
        const prior = { median: 1, spread: 0.3 }
        const [there, back] = [values, values.toReversed()].map((all) => narrow(prior, { values: all, noise: 0.2, batch: 0.05 }))
        expect(back!.median).toBeCloseTo(there!.median, 9)
        expect(there!.spread).toBeLessThan(prior.spread)
        expect(there!.spread).toBeLessThanOrEqual(narrow(prior, { values: values.slice(1), noise: 0.2, batch: 0.05 }).spread)
      }),
    )
  })
})

describe('a flow ladder', () => {
  const before = flowLine(25.6, 0.2, 0.26, 0.06)
  const after = (...points: readonly (readonly [number, number])[]): FlowLine =>
    points.reduce((line, [temperature, flow]) => withLadder(line, { temperature, flow }), before)

  it('that failed at 21 mm³/s and 210 °C', () => {
    expect(flowAt(after([210, 21]), 210).median).toBeCloseTo(21.58, 2)
    expect(flowAt(after([210, 21]), 210).spread).toBeCloseTo(0.074, 3)
    expect(flowAt(after([210, 21]), 220).median).toBeCloseTo(27.99, 2)
  })

  it('at 17 and 200 °C, and at 26 and 220 °C', () => {
    const line = after([200, 17], [220, 26])
    expect(Math.exp(line.q)).toBeCloseTo(21.33, 1)
    expect(line.slope).toBeCloseTo(0.235, 3)
    expect(flowAt(line, 230).median).toBeCloseTo(34.1, 1)
  })

  it('in any order tells the same, and each makes it more certain at its own temperature', () => {
    const point = fc.tuple(fc.integer({ min: 190, max: 240 }), fc.double({ min: 5, max: 50, noNaN: true }))
    fc.assert(
      fc.property(fc.array(point, { minLength: 2, maxLength: 6 }), (points) => {
        const [there, back] = [after(...points), after(...points.toReversed())]
        expect(back.q).toBeCloseTo(there.q, 9)
        expect(back.slope).toBeCloseTo(there.slope, 9)
        const [at] = points[0]!
        expect(flowAt(there, at).spread).toBeLessThanOrEqual(flowAt(after(...points.slice(1)), at).spread + 1e-12)
      }),
    )
  })
})

describe('counted strings', () => {
  it('seven of an exposure of three make 1.8 a way', () => {
    const ooze = countedOoze(unknownOoze, [
      { count: 4, exposure: 1 },
      { count: 3, exposure: 2 },
    ])
    expect(meanOoze(ooze)).toBeCloseTo(1.8, 9)
    expect(spreadOfOoze(ooze)).toBeCloseTo(1 / 3, 9)
  })

  it('a pull is as long as it must be for half a string', () => {
    const [ooze, ways, slack, stays] = [1.2, 6, 0.35, 0.03]
    const pull = leastPull(ooze, ways, slack, stays, 2)!
    expect(ooze * ways * letThrough(pull, slack, stays)).toBeCloseTo(0.5, 9)
    expect(leastPull(ooze, 100, slack, stays, 2)).toBeUndefined()
    expect(leastPull(0.01, 2, slack, stays, 2)).toBe(0)
  })
})

describe('a temperature tower', () => {
  it('with gaps up to 200, clean at 205 and 210, strings from 215 is best at 207.5 °C', () => {
    const seen = cleanWindow([
      { temperature: 195, seen: 'gaps' },
      { temperature: 200, seen: 'gaps' },
      { temperature: 205, seen: 'clean' },
      { temperature: 210, seen: 'clean' },
      { temperature: 215, seen: 'strings' },
      { temperature: 220, seen: 'strings' },
    ])!
    expect(seen.best).toBeCloseTo(207.5, 1)
    expect(seen.low).toBeGreaterThan(200)
    expect(seen.high).toBeLessThan(215)
  })

  it('that was not read tells nothing', () => {
    expect(cleanWindow([])).toBeUndefined()
  })
})

describe('what else is measured', () => {
  it('20 waves on 42 mm at 100 mm/s are 47.6 Hz, and waves that halve in 5 are damped by 2.2 %', () => {
    expect(frequencyOf(100, 20, 42)).toBeCloseTo(47.6, 1)
    expect(dampingOf(2, 1, 5)).toBeCloseTo(Math.log(2) / (10 * Math.PI), 9)
  })

  it('prints of 20, 45 and 80 g that weigh 21, 47 and 83 flow 3.3 % more', () => {
    const { median, spread } = narrowByWeight({ median: 1, spread: 0.03 }, [
      { predictedG: 20, weighedG: 21 },
      { predictedG: 45, weighedG: 47 },
      { predictedG: 80, weighedG: 83 },
    ])
    expect(100 * Math.log(median)).toBeCloseTo(3.33, 2)
    expect(100 * spread).toBeCloseTo(1.19, 2)
  })

  it('a bar of 8 × 4 mm that breaks under 24 N at 40 mm bore 45 MPa', () => {
    expect(breakingStress(24, 40, sectionModulus(8, 4))).toBeCloseTo(45, 9)
  })
})
