import { describe, expect, it } from 'vitest'
import { noPurpose } from '../physics/strength/purpose'
import { type Figures, limitsOf, meets, scoreOf } from './figures'
import { checkDimension, choicesOf, type Dimension, dimensionSchema, familyOf, inOrderOfReuse, type Start, startOf } from './space'

const start: Start = {
  base: { printer: 'lugger', nozzle: 'bore-0.4', material: 'pla', spool: 'reel', values: { wallCount: 3 }, overrides: [] },
  placement: { scale: 1, rotateDeg: [0, 0, 0] },
  purpose: { ...noPurpose, load: { ...noPurpose.load, kind: 'bend', axis: 'y' } },
}
const dimensions: Dimension[] = [
  { kind: 'setting', name: 'outerWallSpeed', values: [20, 40] },
  { kind: 'setting', name: 'layerHeight', values: [0.1, 0.2, 0.3] },
  { kind: 'material', keys: ['pla', 'petg'] },
  { kind: 'orientation', ways: ['as it lies', 'on its back'] },
]
const figures: Figures = { time: 3600, filament: 20, cost: 2, surface: 15, gloss: 0.5, strength: 80, sway: 0.01, strings: 1, stops: 0 }

describe('the space of a search', () => {
  it('makes candidates of its choices; another material leaves the reel, and the load turns with the part', () => {
    const same = startOf(start, dimensions, [1, 2, 0, 0])
    expect(same.base).toEqual({ ...start.base, values: { wallCount: 3, outerWallSpeed: 40, layerHeight: 0.3 } })
    expect(same.placement).toEqual(start.placement)
    const other = startOf(start, dimensions, [0, 0, 1, 1])
    expect(other.base.material).toBe('petg')
    expect(other.base.spool).toBeUndefined()
    expect(other.placement.rotateDeg[0]).toBe(-90)
    // What points along y points along z on the part's back.
    expect(other.purpose.load.axis).toBe('z')
  })

  it('is computed with what lies farthest up the pipeline changing least', () => {
    const all = [0, 1].flatMap((speed) =>
      [0, 1, 2].flatMap((height) => [0, 1].flatMap((material) => [0, 1].map((way) => [speed, height, material, way]))),
    )
    const ordered = inOrderOfReuse(all, dimensions)
    const changes = (d: number) => ordered.filter((variant, i) => i > 0 && variant[d] !== ordered[i - 1]![d]).length
    // Two orientations, three heights each, two speeds each, two materials each.
    expect([changes(3), changes(1), changes(0), changes(2)]).toEqual([1, 5, 11, 23])
    expect(new Set(ordered.map(String)).size).toBe(24)
  })

  it('has a family for those that share layers and regions', () => {
    expect(familyOf([0, 1, 0, 1], dimensions)).toBe(familyOf([1, 1, 1, 1], dimensions))
    expect(new Set([0, 1, 2].flatMap((height) => [0, 1].map((way) => familyOf([0, height, 0, way], dimensions)))).size).toBe(6)
  })

  it('refuses what a setting cannot be, and settings that there are not', () => {
    expect(() => checkDimension({ kind: 'setting', name: 'layerHeight', values: [0.2, 90] })).toThrow(/ayer height/)
    expect(dimensionSchema.safeParse({ kind: 'setting', name: 'magic', values: [1] }).success).toBe(false)
    expect(choicesOf(dimensions[3]!)).toEqual(['as it lies', 'on its back'])
  })
})

describe('what a search sees of a variant', () => {
  const objectives = [
    { figure: 'time', better: 'less' },
    { figure: 'strength', better: 'more' },
  ] as const

  it('is small where a figure is good, and tells by how much it misses limits', () => {
    expect(scoreOf(figures, objectives, [])).toEqual({ costs: [3600, -80], misses: 0 })
    expect(scoreOf(figures, objectives, [{ figure: 'time', most: 1800 }]).misses).toBeCloseTo(1)
    expect(scoreOf(figures, objectives, [{ figure: 'strength', least: 100 }]).misses).toBeCloseTo(0.2)
    expect(scoreOf({ ...figures, stops: 2 }, objectives, []).misses).toBe(2)
    expect(scoreOf(undefined, objectives, []).misses).toBe(Infinity)
  })

  it('keeps to the limits of the purpose', () => {
    const limits = limitsOf({ ...noPurpose, limits: { maxTimeS: 3600, minLoadN: 80 } })
    expect(limits).toEqual([
      { figure: 'time', most: 3600 },
      { figure: 'strength', least: 80 },
    ])
    expect(meets(figures, limits)).toBe(true)
    expect(meets({ ...figures, strength: 79.9 }, limits)).toBe(false)
  })
})
