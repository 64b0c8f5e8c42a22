import { describe, expect, it } from 'vitest'
import { seeded } from '../units/seeded'
import { crowdingDistances, dominates, frontOf, hypervolume, type Scored, sortIntoFronts } from './dominance'
import { type ExploreOptions, explore, keyOfVariant, spaceFilling, type Variant } from './explore'

const scored = (...costs: number[]): Scored => ({ costs, misses: 0 })

/** Runs a search to its end and gives everything that was evaluated, in order. */
function run(choices: readonly number[], score: (variant: Variant) => Scored, options: ExploreOptions) {
  const search = explore(choices, options)
  const found: { variant: Variant; score: Scored }[] = []
  const batches: number[] = []
  for (let batch = search.next(); !batch.done; ) {
    const scores = batch.value.map(score)
    batches.push(batch.value.length)
    for (const [i, variant] of batch.value.entries()) found.push({ variant, score: scores[i]! })
    batch = search.next(scores)
  }
  return { found, batches }
}
const frontHypervolume = (found: readonly { score: Scored }[], reference: readonly [number, number]): number =>
  hypervolume(
    found.filter(({ score }) => score.misses === 0).map(({ score }) => score.costs as unknown as [number, number]),
    reference,
  )

describe('domination', () => {
  it('is being no worse in anything and better in something; whoever meets the limits comes first', () => {
    expect(dominates(scored(1, 2), scored(1, 3))).toBe(true)
    expect(dominates(scored(1, 2), scored(1, 2))).toBe(false)
    expect(dominates(scored(1, 3), scored(2, 2))).toBe(false)
    expect(dominates(scored(9, 9), { costs: [1, 1], misses: 0.1 })).toBe(true)
    expect(dominates({ costs: [9, 9], misses: 0.1 }, { costs: [1, 1], misses: 0.2 })).toBe(true)
  })

  it('sorts points into fronts, none of which dominates itself (property)', () => {
    const random = seeded(7)
    const points = Array.from({ length: 200 }, () => scored(Math.round(9 * random()), Math.round(9 * random()), Math.round(9 * random())))
    const fronts = sortIntoFronts(points)
    expect(fronts.flat().sort((a, b) => a - b)).toEqual([...points.keys()])
    for (const [r, front] of fronts.entries()) {
      for (const i of front) {
        expect(front.some((j) => dominates(points[j]!, points[i]!))).toBe(false)
        if (r > 0) expect(fronts[r - 1]!.some((j) => dominates(points[j]!, points[i]!))).toBe(true)
      }
    }
  })

  it('keeps the ends of a front farthest apart, and crowded points least', () => {
    const line = [scored(0, 10), scored(1, 9), scored(1.1, 8.9), scored(5, 5), scored(10, 0)]
    const distance = crowdingDistances(line, [0, 1, 2, 3, 4])
    expect([distance.get(0), distance.get(4)]).toEqual([Infinity, Infinity])
    expect(distance.get(3)!).toBeGreaterThan(distance.get(1)!)
  })

  it('dominates the area of its steps', () => {
    expect(
      hypervolume(
        [
          [1, 3],
          [2, 1],
          [2, 4],
        ],
        [4, 4],
      ),
    ).toBe(1 * 1 + 2 * 3)
    expect(hypervolume([[5, 5]], [4, 4])).toBe(0)
  })
})

describe('a search', () => {
  const bowl = (variant: Variant): Scored => scored(variant[0]! + 0.1 * variant[2]!, 10 - variant[0]! + (variant[1]! - 3) ** 2)

  it('whose budget reaches sees every variant once, so its front is that of brute force (2,000 variants)', () => {
    const choices = [10, 10, 20]
    const { found } = run(choices, bowl, { budget: 2000, seed: 1 })
    expect(new Set(found.map(({ variant }) => keyOfVariant(variant))).size).toBe(2000)
    const brute: Scored[] = []
    for (let a = 0; a < 10; a++) for (let b = 0; b < 10; b++) for (let c = 0; c < 20; c++) brute.push(bowl([a, b, c]))
    const costs = (points: readonly Scored[]) =>
      frontOf(points)
        .map((i) => points[i]!.costs.join())
        .sort()
    expect(costs(found.map(({ score }) => score))).toEqual(costs(brute))
  })

  it('with a fifth of the budget finds all of a front of ten in two thousand', () => {
    const { found } = run([10, 10, 20], bowl, { budget: 400, seed: 3 })
    const points = found.map(({ score }) => score)
    expect(found.length).toBeLessThanOrEqual(400)
    expect(new Set(frontOf(points).map((i) => points[i]!.costs.join())).size).toBe(10)
  })

  it('is the same for the same seed however its batches are answered, and another for another seed', () => {
    const options = { budget: 150, seed: 5, population: 20 }
    const keys = (seed: number) => run([12, 12, 12], bowl, { ...options, seed }).found.map(({ variant }) => keyOfVariant(variant))
    expect(keys(5)).toEqual(keys(5))
    expect(keys(5)).not.toEqual(keys(6))
    expect(keys(5).length).toBe(new Set(keys(5)).size)
  })

  it('prefers what meets its limits', () => {
    const limited = (variant: Variant): Scored => ({ ...bowl(variant), misses: variant[0]! < 6 ? 6 - variant[0]! : 0 })
    const { found } = run([10, 10, 20], limited, { budget: 200, seed: 2 })
    const front = frontOf(found.map(({ score }) => score))
    for (const i of front) expect(found[i]!.variant[0]).toBeGreaterThanOrEqual(6)
  })

  it('begins spread over the space: every choice of every dimension is met', () => {
    const choices = [5, 4, 3]
    const begun = spaceFilling(choices, 40, seeded(1))
    expect(begun).toHaveLength(40)
    for (const [d, n] of choices.entries()) expect(new Set(begun.map((variant) => variant[d])).size).toBe(n)
  })
})

/**
 * Published two-objective problems, 30 variables of 0 to 1 (ZDT1, ZDT2, ZDT3: Zitzler, Deb & Thiele, Evolutionary Computation
 * 8, 2000), here in hundredths. On their known fronts g = 1, so the areas that the fronts dominate up to (1, 1) follow from
 * the published equations: 1 − ∫(1 − √x) dx = 2/3, 1 − ∫(1 − x²) dx = 1/3; of ZDT3 by summing its front numerically.
 */
describe('on published test problems', () => {
  const N = 30
  const STEPS = 101
  const zdt = (h: (f1: number, g: number) => number) => (variant: Variant) => {
    const x = variant.map((choice) => choice / (STEPS - 1))
    const g = 1 + (9 * x.slice(1).reduce((sum, own) => sum + own, 0)) / (N - 1)
    return scored(x[0]!, g * h(x[0]!, g))
  }
  const zdt3 = (f1: number, g: number) => 1 - Math.sqrt(f1 / g) - (f1 / g) * Math.sin(10 * Math.PI * f1)
  const zdt3Front = Array.from({ length: 200_001 }, (_, i): [number, number] => [i / 200_000, zdt3(i / 200_000, 1)])

  it.each([
    ['ZDT1', zdt((f1, g) => 1 - Math.sqrt(f1 / g)), 2 / 3, [1, 1] as const],
    ['ZDT2', zdt((f1, g) => 1 - (f1 / g) ** 2), 1 / 3, [1, 1] as const],
    ['ZDT3', zdt(zdt3), hypervolume(zdt3Front, [1, 1]), [1, 1] as const],
  ])('%s is reached to two hundredths of the area that its front dominates, in the 25,000 evaluations of its literature', (_, problem, area, reference) => {
    const { found } = run(new Array(N).fill(STEPS), problem, { budget: 25_000, seed: 11, population: 100 })
    expect(found.length).toBeLessThanOrEqual(25_000)
    expect(frontHypervolume(found, reference)).toBeGreaterThan(0.98 * area)
    expect(frontHypervolume(found, reference)).toBeLessThan(1.0001 * area)
  })
})
