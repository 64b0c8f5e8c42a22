import type { FoundVariant, Search, SearchEvent } from '@sable/contract/search'
import { explore, keyOfVariant, type Variant } from '@sable/core/search/explore'
import { type Figures, scoreOf } from '@sable/core/search/figures'
import { choicesOf, type Dimension, familyOf, inOrderOfReuse } from '@sable/core/search/space'
import { toSolve } from '@sable/core/search/toSolve'
import type { Control, JobKind } from '../../jobs/jobRunner'
import type { Lanes, OpenLanes } from '../../jobs/lanes'
import { TimeLeft } from '../../jobs/timeLeft'
import type { PartStore } from '../parts/partStore'
import type { SearchStore } from './searchStore'
import type { Evaluated, SearchUnit, SearchWork } from './searchUnits'

/** Found variants are kept and told this often, ms. */
const TELL_MS = 400

type VariantLanes = Lanes<SearchUnit, Evaluated>

/**
 * Searches as a kind of job. What a search asks for depends only on what it has found before, so one that was paused, or broken
 * off with the server, is run again from its beginning, answered from what is kept as far as that reaches: the same seed finds
 * the same on any number of lanes, wherever they are.
 */
export const searchJob = (store: SearchStore, parts: PartStore, openLanes: OpenLanes): JobKind => ({
  found: (id) => store.variants(id),

  event: async (id, fresh, secondsLeft): Promise<SearchEvent> => ({
    search: await store.get(id),
    fresh: fresh as FoundVariant[],
    ...(secondsLeft === undefined ? {} : { secondsLeft }),
  }),

  async run(control) {
    const search = await store.get(control.id)
    const { bytes, fileName, contentKey } = await parts.file(search.spec.partId)
    const shared: SearchWork = { bytes, fileName, contentKey, spec: search.spec, context: await store.contextOf(control.id) }
    const lanes = openLanes<SearchUnit, Evaluated>('search', shared)
    control.onStop(() => void lanes.leave?.())
    try {
      return await new Exploration(store, control, search, lanes).run()
    } finally {
      await lanes.close().catch((error) => console.error(error))
    }
  },
})

/** One run of a search. */
class Exploration {
  private readonly known = new Map<string, Figures | undefined>()
  private readonly begun = performance.now()
  private reused: number
  private computed: number
  /** Variants that were evaluated in this run. */
  private evaluated = 0
  private readonly left = new TimeLeft()
  private fresh: FoundVariant[] = []

  constructor(
    private readonly store: SearchStore,
    private readonly control: Control,
    private readonly search: Search,
    private readonly lanes: VariantLanes,
  ) {
    this.reused = search.reused
    this.computed = search.computed
  }

  /** Returns whether the search came to its end. */
  async run(): Promise<boolean> {
    const { dimensions, objectives, limits, budget, seed } = this.search.spec
    for (const { choices, figures } of await this.store.variants(this.search.id)) this.known.set(keyOfVariant(choices), figures)
    const steps = explore(
      dimensions.map((dimension) => choicesOf(dimension).length),
      { budget, seed },
    )
    let position = 0
    for (let batch = steps.next(); !batch.done; ) {
      const places = new Map(batch.value.map((variant, i) => [keyOfVariant(variant), position + i]))
      const missing = batch.value.filter((variant) => !this.known.has(keyOfVariant(variant)))
      await this.evaluateAll(inOrderOfReuse(missing, dimensions), dimensions, places)
      if (!this.control.isWanted()) return false
      position += batch.value.length
      batch = steps.next(batch.value.map((variant) => scoreOf(this.known.get(keyOfVariant(variant)), objectives, limits)))
    }
    return this.solveFront()
  }

  /** Solves the front, as far as that was not done before. Returns whether it came to its end. */
  private async solveFront(): Promise<boolean> {
    const { spec, id } = this.search
    const found = await this.store.variants(id)
    const front = toSolve(
      found.map(({ figures }) => figures),
      spec,
    )
    const missing = front.map((i) => found[i]!).filter(({ figures }) => figures!.solvedN === undefined)
    await Promise.all(
      Array.from({ length: this.lanes.count }, async (_, lane) => {
        for (let next = missing.shift(); next && this.control.isWanted(); next = missing.shift()) {
          const solved = await this.lanes.run(lane, { variant: next.choices, isSolved: true })
          if (!solved) return
          const variant = { ...next, ...(solved.figures ? { figures: solved.figures } : {}) }
          await this.store.replace(id, [variant])
          await this.report([variant])
        }
      }),
    )
    return this.control.isWanted()
  }

  private async evaluateAll(
    ordered: readonly Variant[],
    dimensions: readonly Dimension[],
    places: ReadonlyMap<string, number>,
  ): Promise<void> {
    const { count } = this.lanes
    // Families stay with a lane, which remembers their stages; a lane that is done early takes from the end of another's.
    const lanes = Array.from({ length: count }, (_, lane) => ordered.filter((variant) => familyOf(variant, dimensions) % count === lane))
    const next = (lane: number): Variant | undefined =>
      lanes[lane]!.shift() ?? lanes.reduce((longest, own) => (own.length > longest.length ? own : longest)).pop()
    let told = performance.now()
    let telling: Promise<void> = Promise.resolve()
    await Promise.all(
      lanes.map(async (_, lane) => {
        for (let variant = next(lane); variant && this.control.isWanted(); variant = next(lane)) {
          const found = await this.lanes.run(lane, { variant })
          if (!found) return
          const { figures, reused, computed } = found
          this.known.set(keyOfVariant(variant), figures)
          this.reused += reused
          this.computed += computed
          this.evaluated++
          this.fresh.push({ position: places.get(keyOfVariant(variant))!, choices: [...variant], ...(figures ? { figures } : {}) })
          if (performance.now() - told < TELL_MS) continue
          told = performance.now()
          telling = telling.then(() => this.tell())
          await telling
        }
      }),
    )
    await telling
    if (this.fresh.length > 0) await this.tell()
  }

  private async tell(): Promise<void> {
    const found = this.fresh
    this.fresh = []
    await this.store.add(this.search.id, found)
    await this.report(found)
  }

  private async report(found: readonly FoundVariant[]): Promise<void> {
    const spent = (performance.now() - this.begun) / 1000
    const done = this.known.size
    // How long its front takes to solve nobody has seen yet.
    const secondsLeft = done < this.search.of ? this.left.of(performance.now(), this.evaluated, this.search.of - done) : undefined
    await this.control.tell(
      { done, reused: this.reused, computed: this.computed, seconds: this.search.seconds + spent },
      found,
      secondsLeft,
    )
  }
}
