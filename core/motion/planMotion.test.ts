import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { settingsOf, setupOf } from '../testing/setups'
import { code, type Toolpath, ToolpathBuilder } from '../toolpath/toolpath'
import type { MotionSettings } from './askedPace'
import { deviationCornerSquared } from './cornerSpeed'
import { limiterCode } from './limiters'
import { planMotion as planWith } from './planMotion'
import { timeFigures } from './timeFigures'

const AREA = 0.2 * 0.4
const { printer } = setupOf()
/** Nothing in the way but what a test puts there. */
const free = {
  ...printer,
  limits: { speed: { x: 1e4, y: 1e4, z: 1e4 }, acceleration: { x: 1e6, y: 1e6, z: 1e6 }, extruderSpeed: 1e4, extruderAcceleration: 1e7 },
}
const planMotion = (path: Toolpath, own: MotionSettings, machine: typeof free) => planWith(path, () => own, machine)
const settings = (values: Partial<MotionSettings>): MotionSettings => ({
  ...settingsOf({ minLayerTime: 0, flowLimit: 200, firstLayerSpeed: 500 }),
  ...values,
})

/** A path of outer wall through points, on one layer. */
function wall(points: readonly (readonly [number, number])[], feature: number = code.outerWall): Toolpath {
  const out = new ToolpathBuilder()
  out.startAt(points[0]![0], points[0]![1], 0.2)
  out.startLayer()
  for (const [x, y] of points.slice(1)) {
    if (feature === code.travel) out.moveTo(x, y)
    else out.layTo(x, y, feature, AREA, 0.4)
  }
  return out.finish()
}

const coordinate = fc.integer({ min: -400, max: 400 }).map((tenths) => tenths / 10)
/** Corner after corner, each at least 2 mm from the one before. */
const zigzag = fc
  .array(fc.tuple(coordinate, coordinate), { minLength: 6, maxLength: 16 })
  .map((points) => points.filter(([x, y], i) => points.slice(0, i).every(([px, py]) => Math.hypot(x - px, y - py) > 2)))
  .filter((points) => points.length >= 3)

describe('planning motion', () => {
  it('runs a single straight as the closed formula says', () => {
    const motion = planMotion(
      wall([
        [0, 0],
        [100, 0],
      ]),
      settings({ outerWallSpeed: 150, acceleration: 1000 }),
      free,
    )
    expect(motion.layerTime[0]).toBeCloseTo(100 / 150 + 150 / 1000, 6)
    expect(motion.peak[0]).toBeCloseTo(150, 4)
    expect(motion.limiter[0]).toBe(limiterCode.asked)
  })

  it('agrees within 0.5 % with a brute-force simulation in small steps of time', () => {
    fc.assert(
      fc.property(zigzag, fc.integer({ min: 300, max: 5000 }), fc.integer({ min: 20, max: 250 }), (points, acceleration, speed) => {
        const path = wall(points)
        const planned = planMotion(path, settings({ outerWallSpeed: speed, acceleration, cornerSpeed: 8 }), free).layerTime[0]!
        const simulated = simulate(points, speed, acceleration, 8)
        expect(Math.abs(planned - simulated) / simulated).toBeLessThan(0.005)
      }),
      { numRuns: 60, seed: 7 },
    )
  })

  it('takes as long in reverse', () => {
    fc.assert(
      fc.property(zigzag, (points) => {
        const there = planMotion(wall(points), settings({ outerWallSpeed: 120 }), free).layerTime[0]!
        const back = planMotion(wall(points.toReversed()), settings({ outerWallSpeed: 120 }), free).layerTime[0]!
        expect(back).toBeCloseTo(there, 6)
      }),
      { seed: 3 },
    )
  })

  it('passes no corner faster than it may, by either school', () => {
    fc.assert(
      fc.property(zigzag, fc.constantFrom('deviation' as const, 'instantChange' as const), (points, cornerSchool) => {
        const a = 2000
        const motion = planMotion(wall(points), settings({ outerWallSpeed: 200, acceleration: a, cornerSpeed: 6 }), {
          ...free,
          cornerSchool,
        })
        // A move of peak p and length l cannot be slower at either end than √(p² − 2·a·l), so that must not exceed the corner.
        for (let i = 1; i < points.length - 1; i++) {
          const [u, lu] = direction(points[i - 1]!, points[i]!)
          const [v, lv] = direction(points[i]!, points[i + 1]!)
          if (lu < 1e-9 || lv < 1e-9) continue
          const most =
            cornerSchool === 'deviation'
              ? Math.sqrt(deviationCornerSquared(u[0] * v[0] + u[1] * v[1], 6, a * Math.min(lu, lv)))
              : 6 / Math.max(Math.abs(v[0] - u[0]), Math.abs(v[1] - u[1]), 1e-12)
          const atLeast = Math.sqrt(Math.max(0, motion.peak[i]! ** 2 - 2 * a * lv))
          expect(atLeast).toBeLessThanOrEqual(most + 1e-3)
        }
      }),
      { seed: 9 },
    )
  })

  it('holds 500 mm/s to 150 at 12 mm³/s on a 0.2 × 0.4 line, and says why (CP-F2, common practice)', () => {
    const motion = planMotion(
      wall([
        [0, 0],
        [400, 0],
      ]),
      settings({ outerWallSpeed: 500, flowLimit: 12, acceleration: 20_000 }),
      free,
    )
    expect(motion.peak[0]).toBeCloseTo(150, 4)
    expect(motion.limiter[0]).toBe(limiterCode.flow)
  })

  it('names the limiter of each kind', () => {
    const limits = (change: object) => ({ ...free, limits: { ...free.limits, ...change } })
    const straight = wall([
      [0, 0],
      [200, 0],
    ])
    const fast = settings({ outerWallSpeed: 300, acceleration: 50_000 })
    const limiterOf = (path: Toolpath, s: MotionSettings, p: typeof free) => planMotion(path, s, p).limiter[0]
    expect(limiterOf(straight, fast, limits({ speed: { x: 100, y: 1e4, z: 1e4 } }))).toBe(limiterCode.axis)
    expect(
      limiterOf(
        wall([
          [0, 0],
          [0, 200],
        ]),
        fast,
        limits({ speed: { x: 100, y: 1e4, z: 1e4 } }),
      ),
    ).toBe(limiterCode.asked)
    expect(limiterOf(straight, fast, limits({ extruderSpeed: 5 }))).toBe(limiterCode.extruder)
    expect(
      limiterOf(
        wall([
          [0, 0],
          [2, 0],
        ]),
        settings({ outerWallSpeed: 300, acceleration: 800 }),
        free,
      ),
    ).toBe(limiterCode.acceleration)
    expect(limiterOf(straight, settings({ outerWallSpeed: 300, firstLayerSpeed: 25 }), free)).toBe(limiterCode.firstLayer)
  })

  it('runs a diagonal faster than either axis allows alone', () => {
    const limited = { ...free, limits: { ...free.limits, speed: { x: 100, y: 100, z: 10 } } }
    const motion = planMotion(
      wall([
        [0, 0],
        [300, 300],
      ]),
      settings({ outerWallSpeed: 500, acceleration: 50_000 }),
      limited,
    )
    expect(motion.peak[0]).toBeCloseTo(100 * Math.SQRT2, 3)
  })

  it('never retracts faster than the firmware feeds (CP-R5, common practice)', () => {
    const out = new ToolpathBuilder()
    out.startAt(0, 0, 0.2)
    out.startLayer()
    out.inPlace(code.retract)
    out.moveTo(30, 0)
    out.inPlace(code.pushBack)
    const slow = { ...free, limits: { ...free.limits, extruderSpeed: 50 } }
    const at = (retractSpeed: number) => planMotion(out.finish(), settings({ retractLength: 5, retractSpeed, pushBackSpeed: 25 }), slow)
    expect(at(80).duration[0]).toBeCloseTo(at(50).duration[0]!, 6)
    expect(at(25).duration[0]).toBeCloseTo(5 / 25 + 25 / 1e7, 4)
    expect(at(80).duration[2]).toBeCloseTo(5 / 25, 4)
  })

  it('slows a layer until it takes its least time, but never below the floor speed (CP-C1, common practice)', () => {
    const square: [number, number][] = [
      [0, 0],
      [20, 0],
      [20, 20],
      [0, 20],
      [0, 0],
    ]
    const at = (minLayerTime: number, floorSpeed: number) =>
      planMotion(wall(square), settings({ outerWallSpeed: 100, minLayerTime, floorSpeed }), free)
    const slowed = at(5, 5)
    expect(slowed.layerTime[0]).toBeCloseTo(5, 2)
    expect(slowed.layerScale[0]).toBeLessThan(0.3)
    expect(slowed.limiter[0]).toBe(limiterCode.layerTime)
    const floored = at(60, 10)
    expect(floored.layerTime[0]).toBeGreaterThan(80 / 10)
    expect(floored.layerTime[0]).toBeLessThan(80 / 10 + 0.5)
    const { layersTooFast, layersSlowed } = timeFigures(wall(square), floored, () => 60)
    expect([layersTooFast, layersSlowed]).toEqual([1, 1])
  })

  it('tells the real speed of a feature and what holds it there', () => {
    const path = wall([
      [0, 0],
      [300, 0],
      [300, 1],
      [0, 1],
    ])
    const s = settings({ outerWallSpeed: 500, flowLimit: 12, acceleration: 20_000 })
    const figures = timeFigures(path, planMotion(path, s, free), () => 0)
    expect(figures.realSpeeds.outerWall.speedMmS).toBeCloseTo(150, 3)
    expect(figures.realSpeeds.outerWall.limiter).toBe('flow')
    expect(Object.values(figures.limiters).reduce((sum, share) => sum + share, 0)).toBeCloseTo(1, 9)
    expect(Object.values(figures.timeByFeatureS).reduce((sum, t) => sum + t, 0)).toBeCloseTo(figures.timeS, 4)
  })
})

type Point = readonly [number, number]

function direction(a: Point, b: Point): [Point, number] {
  const length = Math.hypot(b[0] - a[0], b[1] - a[1])
  return [[(b[0] - a[0]) / length, (b[1] - a[1]) / length], length]
}

/**
 * Steps through time: speeds up whenever it could still brake for every corner and the end that lie ahead, else holds or
 * brakes. Knows nothing of passes or trapezoids.
 */
function simulate(points: readonly Point[], speed: number, acceleration: number, cornerSpeed: number): number {
  const limits: { at: number; most: number }[] = []
  let total = 0
  for (let i = 1; i < points.length; i++) {
    const [u, length] = direction(points[i - 1]!, points[i]!)
    total += length
    if (i === points.length - 1) break
    const [v, next] = direction(points[i]!, points[i + 1]!)
    limits.push({
      at: total,
      most: Math.sqrt(deviationCornerSquared(u[0] * v[0] + u[1] * v[1], cornerSpeed, acceleration * Math.min(length, next))),
    })
  }
  limits.push({ at: total, most: 0 })
  const dt = 1e-5
  let [at, v, t, ahead] = [0, 0, 0, 0]
  while (at < total - 1e-6) {
    while (ahead < limits.length - 1 && limits[ahead]!.at <= at) ahead++
    let most = speed
    for (let k = ahead; k < limits.length; k++) {
      const left = Math.max(0, limits[k]!.at - at)
      if (left > (speed * speed) / (2 * acceleration)) break
      most = Math.min(most, Math.sqrt(limits[k]!.most ** 2 + 2 * acceleration * left))
    }
    v = Math.min(v + acceleration * dt, most)
    // Standing still it takes at least the first step.
    at += Math.max(v, acceleration * dt) * dt
    t += dt
  }
  return t
}
