import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { predict } from '../pipeline/predict'
import { StageCache } from '../pipeline/stageCache'
import { testKernel } from '../testing/kernel'
import { setupOf } from '../testing/setups'
import { blockMesh, partOf } from '../testing/solids'
import { seeded } from '../units/seeded'
import { averageEffects, inPracticeOrder, type Made, orders, prefixes, setKey, stepsBetween, withoutStraySpool, withSteps } from './trail'

const slow: Made = {
  printer: 'lugger',
  nozzle: 'bore-0.4',
  material: 'pla',
  values: { layerHeight: 0.12, infillDensity: 30, wallCount: 4, ironing: 'on' },
  overrides: [],
}
const fast: Made = {
  printer: 'lugger',
  nozzle: 'bore-0.6',
  material: 'pla',
  values: { layerHeight: 0.3, infillDensity: 10, wallCount: 2 },
  overrides: [{ name: 'top', fromZ: 3, values: { fanSpeed: 50 } }],
}
const steps = stepsBetween(slow, fast)
const all = new Set(steps.map(({ id }) => id))

describe('steps between two candidates', () => {
  it('are their single changes, and none between equals', () => {
    expect(steps.map(({ id }) => id)).toEqual(['nozzle', 'layerHeight', 'wallCount', 'ironing', 'infillDensity', 'overrides'])
    expect(steps.find(({ id }) => id === 'ironing')).toMatchObject({ from: 'on', to: undefined })
    expect(stepsBetween(slow, slow)).toEqual([])
  })

  it('lead from the one to the other, in any order and through any set', () => {
    expect(withSteps(slow, fast, steps, new Set())).toEqual(slow)
    expect(withSteps(slow, fast, steps, all)).toEqual(fast)
    fc.assert(
      fc.property(fc.shuffledSubarray(steps), (some) => {
        const made = withSteps(slow, fast, some, all)
        for (const step of steps) {
          const end = some.includes(step) ? fast : slow
          if (step.kind === 'value') expect(made.values[step.name]).toBe(end.values[step.name])
          if (step.kind === 'setup') expect(made[step.field]).toBe(end[step.field])
        }
      }),
    )
  })

  it('stand in the order of common practice: density, height, walls, nozzle, then the rest (CP-T3)', () => {
    expect(inPracticeOrder(steps).map(({ id }) => id)).toEqual([
      'infillDensity',
      'layerHeight',
      'wallCount',
      'nozzle',
      'ironing',
      'overrides',
    ])
  })

  it('leave a spool away while the material is another', () => {
    const made = { ...slow, spool: 'amber' }
    expect(withoutStraySpool(made, () => 'petg').spool).toBeUndefined()
    expect(withoutStraySpool(made, () => 'pla')).toBe(made)
  })
})

describe('a trail', () => {
  it('sums to the difference whatever its order, and so do averages over orders', async () => {
    const kernel = await testKernel
    const cache = new StageCache(40)
    const part = partOf('trail', blockMesh(16, 12, 4))
    const known = new Map<string, number>()
    const timeOf = (taken: ReadonlySet<string>): number => {
      const key = setKey(taken)
      let time = known.get(key)
      if (time === undefined) {
        const { printer, nozzle, material, values, overrides } = withSteps(slow, fast, steps, taken)
        const setup = setupOf(printer, nozzle, material)
        time = predict(part, { scale: 1, rotateDeg: [0, 0, 0] }, setup, values, { kernel, cache, overrides }).timeS
        known.set(key, time)
      }
      return time
    }
    const whole = timeOf(all) - timeOf(new Set())
    for (const order of [steps, inPracticeOrder(steps), [...steps].reverse()]) {
      const sets = prefixes(order)
      expect(sets[0]!.size).toBe(0)
      expect(timeOf(sets.at(-1)!)).toBe(timeOf(all))
      const effects = order.map((_, n) => timeOf(sets[n + 1]!) - timeOf(sets[n]!))
      expect(effects.reduce((sum, effect) => sum + effect, 0)).toBeCloseTo(whole, 6)
    }
    const averages = averageEffects(steps, orders(steps, 4, seeded(7)), timeOf)
    expect([...averages.values()].reduce((sum, effect) => sum + effect, 0)).toBeCloseTo(whole, 6)
  }, 60_000)

  it('of a game with a known answer gives its Shapley values', () => {
    // A glove game (any text on cooperative games): one left glove, two right ones; a pair is worth 1. Values 2/3, 1/6, 1/6.
    const gloves = ['left', 'right', 'other'].map((name) => ({ ...steps[0]!, id: name }))
    const worth = (taken: ReadonlySet<string>): number => (taken.has('left') && taken.size > 1 ? 1 : 0)
    const some = orders(gloves, 100, seeded(7))
    expect(some).toHaveLength(6)
    const values = averageEffects(gloves, some, worth)
    expect(values.get('left')).toBeCloseTo(2 / 3, 12)
    expect(values.get('right')).toBeCloseTo(1 / 6, 12)
    expect(values.get('other')).toBeCloseTo(1 / 6, 12)
  })

  it('takes random orders of many steps, the same for the same seed', () => {
    const many = Array.from({ length: 9 }, (_, i) => ({ ...steps[0]!, id: `s${i}` }))
    const names = (some: ReturnType<typeof orders>) => some.map((order) => order.map(({ id }) => id).join())
    const one = orders(many, 12, seeded(7))
    expect(one).toHaveLength(12)
    expect(names(one)).toEqual(names(orders(many, 12, seeded(7))))
    for (const order of one) expect(new Set(order).size).toBe(9)
  })
})
