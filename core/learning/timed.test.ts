import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { conformal, scoreOf, wilson } from './coverage'
import { paceOf, type TimedPrint, timeAt, timed } from './timed'

/* Expected values were worked out apart from this code, with a general linear-algebra library. */

const before = paceOf([0, 0, 150], [0.2, 0.04, 60])
const actual = [796, 2086.2, 3904.3, 7502.5] as const
const printsOf = (actuals: readonly number[]): TimedPrint[] =>
  [600, 1800, 3600, 7200].map((predictedS, i) => ({ predictedS, slope: [0.4, 0.35, 0.2, 0.1][i]!, startS: 0, actualS: actuals[i]! }))

describe('four prints by the clock', () => {
  it('tell acceleration, pace and start apart', () => {
    const { mean, covariance } = timed(before, printsOf(actual))
    expect(mean[0]).toBeCloseTo(-0.18, 3)
    expect(Math.sqrt(covariance[0]!)).toBeCloseTo(0.084, 3)
    expect(mean[1]).toBeCloseTo(0.006, 4)
    expect(mean[2]).toBeCloseTo(148.4, 1)
  })

  it('of which the last paused for a third of its time say nearly the same', () => {
    const { mean } = timed(before, printsOf([...actual.slice(0, 3), 1.3 * actual[3]]))
    expect(mean[0]).toBeCloseTo(-0.139, 3)
    expect(mean[1]).toBeCloseTo(0.0188, 4)
    expect(mean[2]).toBeCloseTo(150.4, 1)
  })

  it('a fifth print that paused moves what is foretold for the next by less than 3 %', () => {
    const five = [...printsOf(actual), { predictedS: 2700, slope: 0.25, startS: 0, actualS: 3010 }]
    for (const bad of five.keys()) {
      const one = timed(
        before,
        five.map((print, i) => (i === bad ? { ...print, actualS: 1.3 * print.actualS } : print)),
      )
      const next = { predictedS: 3000, slope: 0.25, startS: 0 }
      expect(Math.abs(Math.log(timeAt(one.mean, next) / timeAt(timed(before, five).mean, next)))).toBeLessThan(0.03)
    }
  })

  it('in any order tell the same, and one that is taken out was never there', () => {
    const print = fc.record({
      predictedS: fc.double({ min: 300, max: 30_000, noNaN: true }),
      slope: fc.double({ min: 0.02, max: 0.6, noNaN: true }),
      startS: fc.constant(0),
      off: fc.double({ min: 0.95, max: 1.1, noNaN: true }),
    })
    fc.assert(
      fc.property(fc.array(print, { minLength: 1, maxLength: 8 }), (prints) => {
        const all = prints.map(({ off, ...own }) => ({ ...own, actualS: 150 + off * own.predictedS }))
        const [there, back] = [timed(before, all), timed(before, all.toReversed())]
        for (const i of [0, 1, 2]) expect(back.mean[i]).toBeCloseTo(there.mean[i]!, 6)
        for (const i of [0, 4, 8]) expect(there.covariance[i]).toBeLessThanOrEqual(before.covariance[i]! + 1e-12)
      }),
    )
  })
})

describe('ranges by what predictions were off', () => {
  it('nine scores without those expected beforehand: the eighth', () => {
    expect(conformal([0.1, 0.2, 0.4, 0.5, 0.6, 0.8, 0.9, 1.3, 2.2], [])).toBe(1.3)
  })

  it('too few scores say nothing; with those expected they do', () => {
    expect(conformal([0.5], [])).toBeUndefined()
    expect(conformal([], [])).toBeUndefined()
    expect(conformal([])).toBe(1.645)
  })

  it('holds about four of five of what follows, whatever it is drawn from', () => {
    // Scores of a heavy tail, without luck: the middles of 40 even parts of |Cauchy|.
    const scores = Array.from({ length: 40 }, (_, i) => Math.tan((Math.PI / 2) * ((i + 0.5) / 40)))
    const q = conformal(scores, [])!
    expect((2 / Math.PI) * Math.atan(q)).toBeCloseTo(0.8, 1)
  })

  it('a print foretold as 60 min with 5 % that took 66 is 1.9 standard deviations off', () => {
    expect(scoreOf(66, 60, 0.05)).toBeCloseTo(1.906, 3)
  })
})

describe('a share with its interval', () => {
  // Newcombe 1998, Statistics in Medicine 17, table I: Wilson's score interval of 81/263, 15/148, 0/20 and 1/29.
  it.each([
    [81, 263, 0.2553, 0.3662],
    [15, 148, 0.0624, 0.1605],
    [0, 20, 0, 0.1611],
    [1, 29, 0.0061, 0.1718],
  ])('%i of %i', (successes, of, low, high) => {
    expect(wilson(successes, of)[0]).toBeCloseTo(low, 4)
    expect(wilson(successes, of)[1]).toBeCloseTo(high, 4)
  })
})
