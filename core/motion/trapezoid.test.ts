import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { deviationCornerSquared, instantChangeCorner } from './cornerSpeed'
import { peakSpeed, timeAtPeak } from './trapezoid'

const fastest = (l: number, v0: number, v1: number, cap: number, a: number): number =>
  timeAtPeak(l, v0, v1, Math.min(cap, peakSpeed(l, v0, v1, a)), a)

const positive = (max: number) => fc.double({ min: 0.01, max, noNaN: true })

describe('a single straight', () => {
  it('takes l/v + v/a from rest to rest when it is long enough, else 2·√(l/a) (kinematics, any textbook)', () => {
    fc.assert(
      fc.property(positive(300), positive(500), fc.double({ min: 10, max: 20_000, noNaN: true }), (l, v, a) => {
        const expected = l >= (v * v) / a ? l / v + v / a : 2 * Math.sqrt(l / a)
        expect(fastest(l, 0, 0, v, a)).toBeCloseTo(expected, 9)
      }),
    )
  })

  it('takes as long backwards as forwards', () => {
    fc.assert(
      fc.property(positive(100), fc.double({ min: 0, max: 100 }), fc.double({ min: 0, max: 100 }), positive(10_000), (l, v0, v1, a) => {
        fc.pre(Math.abs(v1 * v1 - v0 * v0) <= 2 * a * l)
        expect(fastest(l, v0, v1, 120, a)).toBeCloseTo(fastest(l, v1, v0, 120, a), 9)
      }),
    )
  })
})

describe('corners', () => {
  it('lets a square corner pass at the corner speed, whatever the acceleration (Jeon 2011, from memory)', () => {
    for (const c of [1, 8, 20]) expect(Math.sqrt(deviationCornerSquared(0, c, Number.POSITIVE_INFINITY))).toBeCloseTo(c, 9)
  })

  it('does not hold a straight, stops where the way turns back, and falls with the sharpness between', () => {
    expect(deviationCornerSquared(1, 8, 100)).toBe(Number.POSITIVE_INFINITY)
    expect(deviationCornerSquared(-1, 8, 100)).toBe(0)
    const speeds = [0.99, 0.7, 0.2, -0.3, -0.9].map((cos) => deviationCornerSquared(cos, 8, 1e9))
    for (let i = 1; i < speeds.length; i++) expect(speeds[i]!).toBeLessThan(speeds[i - 1]!)
  })

  it('holds a circle of short chords to the centripetal speed √(a·r)', () => {
    const [r, a] = [10, 1000]
    for (const n of [60, 120, 240]) {
      const turn = (2 * Math.PI) / n
      const chord = 2 * r * Math.sin(turn / 2)
      // ½·a·l·tan(θ/2) with θ = π − turn is ½·a·l/tan(turn/2) = a·r·cos(turn/2), so chords come to a·r from below.
      const v2 = deviationCornerSquared(Math.cos(turn), 1000, a * chord)
      expect(Math.abs(v2 / (a * r) - 1)).toBeLessThan(0.002)
    }
  })

  it('changes no axis by more than the allowed jump', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 6.28, noNaN: true }),
        fc.double({ min: 0, max: 6.28, noNaN: true }),
        positive(30),
        (a, b, jump) => {
          const [dx, dy] = [Math.cos(b) - Math.cos(a), Math.sin(b) - Math.sin(a)]
          fc.pre(Math.hypot(dx, dy) > 1e-6)
          const v = instantChangeCorner(dx, dy, 0, jump)
          expect(Math.max(Math.abs(dx), Math.abs(dy)) * v).toBeCloseTo(jump, 6)
        },
      ),
    )
  })
})
