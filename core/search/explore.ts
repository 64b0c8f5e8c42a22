import { seeded } from '../units/seeded'
import { crowdingDistances, type Scored, sortIntoFronts } from './dominance'

/** One of the variants of a search: which choice it takes in each dimension. */
export type Variant = readonly number[]

export interface ExploreOptions {
  /** Most different variants that are evaluated. */
  readonly budget: number
  readonly seed: number
  /** Variants of a generation; even. */
  readonly population?: number
}

export const keyOfVariant = (variant: Variant): string => variant.join(',')

/** How many variants there are in all. */
export const sizeOf = (choices: readonly number[]): number => choices.reduce((product, n) => product * n, 1)

const POPULATION = 40
/** Generations in a row that bring nothing new end a search before its budget is spent. */
const STALE = 12

/**
 * Looks for the front of a space of choices: all of it when the budget reaches; else a space-filling beginning (Halton's
 * sequence, 1960, shifted by the seed) and then NSGA-II (Deb, Pratap, Agarwal & Meyarivan, IEEE Trans. Evol. Comput. 6, 2002).
 *
 * Yields batches of variants that it has not asked for before, and goes on with what they score, in their order. What it asks
 * for depends on nothing else, so a search is the same however many threads answer it, and one that was broken off is resumed
 * by answering again from what is known.
 *
 * @param choices how many choices each dimension has
 */
export function* explore(choices: readonly number[], options: ExploreOptions): Generator<Variant[], void, readonly Scored[]> {
  const { budget, seed, population = POPULATION } = options
  if (sizeOf(choices) <= budget) {
    yield* everyVariant(choices, population)
    return
  }
  const random = seeded(seed)
  const known = new Map<string, Scored>()
  const wanted = Math.min(budget, population)
  let parents = spaceFilling(choices, wanted, random)
  yield* learn(parents, known, budget)
  let stale = 0
  while (known.size < budget && stale < STALE) {
    const children = breed(parents, known, choices, population, random)
    const before = known.size
    yield* learn(children, known, budget)
    stale = known.size > before ? 0 : stale + 1
    const pool = distinct([...parents, ...children]).filter((variant) => known.has(keyOfVariant(variant)))
    parents = survivors(pool, known, population)
  }
}

function* everyVariant(choices: readonly number[], batch: number): Generator<Variant[], void, readonly Scored[]> {
  let pending: Variant[] = []
  const size = sizeOf(choices)
  for (let i = 0; i < size; i++) {
    let rest = i
    // The last dimension changes fastest.
    const variant = [...choices].reverse().map((n) => {
      const choice = rest % n
      rest = Math.floor(rest / n)
      return choice
    })
    pending.push(variant.reverse())
    if (pending.length === batch || i === size - 1) {
      yield pending
      pending = []
    }
  }
}

/** Asks for what is not known yet, as far as the budget reaches. */
function* learn(variants: readonly Variant[], known: Map<string, Scored>, budget: number): Generator<Variant[], void, readonly Scored[]> {
  const fresh = distinct(variants)
    .filter((variant) => !known.has(keyOfVariant(variant)))
    .slice(0, budget - known.size)
  if (fresh.length === 0) return
  const scores = yield fresh
  for (const [i, variant] of fresh.entries()) known.set(keyOfVariant(variant), scores[i]!)
}

const PRIMES = [2, 3, 5, 7, 11, 13, 17, 19, 23, 29, 31, 37, 41, 43, 47, 53, 59, 61, 67, 71, 73, 79, 83, 89, 97, 101, 103, 107, 109, 113]

/** Different variants spread evenly over the space: Halton's sequence, one prime a dimension, shifted round by the seed. */
export function spaceFilling(choices: readonly number[], count: number, random: () => number): Variant[] {
  const shift = choices.map(random)
  const found = new Map<string, Variant>()
  for (let i = 1; found.size < count && i < 50 * count; i++) {
    const variant = choices.map((n, d) =>
      Math.min(n - 1, Math.floor(((radicalInverse(i, PRIMES[d % PRIMES.length]!) + shift[d]!) % 1) * n)),
    )
    found.set(keyOfVariant(variant), variant)
  }
  return [...found.values()]
}

/** The digits of a number in a base, mirrored behind the point. */
function radicalInverse(i: number, base: number): number {
  let value = 0
  let place = 1 / base
  for (let rest = i; rest > 0; rest = Math.floor(rest / base)) {
    value += (rest % base) * place
    place /= base
  }
  return value
}

const CROSSING = 0.9

/** Children of parents that won a tournament: crossed, and changed in about one dimension each. */
function breed(
  parents: readonly Variant[],
  known: ReadonlyMap<string, Scored>,
  choices: readonly number[],
  count: number,
  random: () => number,
): Variant[] {
  const scores = parents.map((variant) => known.get(keyOfVariant(variant))!)
  const fronts = sortIntoFronts(scores)
  const rank = new Map(fronts.flatMap((front, r) => front.map((i) => [i, r] as const)))
  const crowding = new Map(fronts.flatMap((front) => [...crowdingDistances(scores, front)]))
  const draw = (): number => Math.floor(random() * parents.length)
  const winner = (): Variant => {
    const [a, b] = [draw(), draw()]
    const better = rank.get(a)! - rank.get(b)! || crowding.get(b)! - crowding.get(a)!
    return parents[better <= 0 ? a : b]!
  }
  return Array.from({ length: count }, () => {
    const [mother, father] = [winner(), winner()]
    const crossed = random() < CROSSING
    return choices.map((n, d) => {
      const gene = crossed ? between(mother[d]!, father[d]!, n, random) : mother[d]!
      return random() < 1 / choices.length ? mutated(gene, n, random) : gene
    })
  })
}

/** One of the two, or now and then a choice between or just beyond them, as simulated binary crossover spreads children. */
function between(a: number, b: number, n: number, random: () => number): number {
  if (random() < 0.5 || a === b) return random() < 0.5 ? a : b
  const spread = Math.abs(a - b)
  const at = Math.min(a, b) - 0.25 * spread + 1.5 * spread * random()
  return Math.max(0, Math.min(n - 1, Math.round(at)))
}

/** Mostly a near choice, seldom any: choices are in order where they are numbers. */
function mutated(gene: number, n: number, random: () => number): number {
  if (n === 1) return 0
  if (random() < 0.25) return Math.floor(random() * n)
  const reach = Math.max(1, Math.round(n * 0.15 * random() ** 2))
  const to = gene + (random() < 0.5 ? -reach : reach)
  return to < 0 || to >= n ? Math.max(0, Math.min(n - 1, 2 * gene - to)) : to
}

/** The best of a pool: front by front, of the last one those that stand farthest apart. */
function survivors(pool: readonly Variant[], known: ReadonlyMap<string, Scored>, count: number): Variant[] {
  const scores = pool.map((variant) => known.get(keyOfVariant(variant))!)
  const kept: Variant[] = []
  for (const front of sortIntoFronts(scores)) {
    if (kept.length >= count) break
    const crowding = crowdingDistances(scores, front)
    const ordered = kept.length + front.length > count ? [...front].sort((a, b) => crowding.get(b)! - crowding.get(a)! || a - b) : front
    for (const i of ordered.slice(0, count - kept.length)) kept.push(pool[i]!)
  }
  return kept
}

function distinct(variants: readonly Variant[]): Variant[] {
  return [...new Map(variants.map((variant) => [keyOfVariant(variant), variant])).values()]
}
