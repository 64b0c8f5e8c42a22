import type { FoundVariant, Search, SearchEvent, SearchState } from '@sable/contract/search'
import { explore, keyOfVariant, type Variant } from '@sable/core/search/explore'
import { type Figures, scoreOf } from '@sable/core/search/figures'
import { choicesOf, type Dimension, familyOf, inOrderOfReuse } from '@sable/core/search/space'
import type { PartStore } from '../parts/partStore'
import type { Evaluator, OpenEvaluator } from './evaluator'
import type { SearchStore } from './searchStore'

type Listener = (event: SearchEvent) => void

/** Found variants are kept and told this often, ms. */
const TELL_MS = 400

/** The search that is being run: what it was told to do instead of going on. */
interface Running {
  readonly id: string
  wanted: 'run' | 'pause' | 'cancel' | 'leave'
  readonly over: Promise<void>
}

/**
 * Runs searches one after another in threads. What a search asks for depends only on what it has found before, so one that
 * was paused, or broken off with the server, is run again from its beginning, answered from what is kept as far as that reaches.
 */
export class SearchRunner {
  private readonly queue: string[] = []
  private readonly listeners = new Map<string, Set<Listener>>()
  private running: Running | undefined
  private idle: Promise<void> = Promise.resolve()

  constructor(
    private readonly store: SearchStore,
    private readonly parts: PartStore,
    private readonly openEvaluator: OpenEvaluator,
  ) {}

  /** Goes on with what the server left when it ended. */
  async resumeUnfinished(): Promise<void> {
    for (const id of await this.store.unfinished()) this.enqueue(id)
  }

  enqueue(id: string): void {
    if (this.queue.includes(id) || (this.running?.id === id && this.running.wanted === 'run')) return
    this.queue.push(id)
    this.idle = this.idle.then(() => this.runNext())
  }

  async resume(id: string): Promise<Search> {
    const { state } = await this.store.get(id)
    if (state === 'paused' || state === 'failed') await this.put(id, { state: 'waiting', problem: null })
    // One that says it runs may have been left so by a database that was away.
    if (state !== 'done' && state !== 'cancelled') this.enqueue(id)
    return this.store.get(id)
  }

  async pause(id: string): Promise<Search> {
    return this.stop(id, 'pause', 'paused')
  }

  /** Ends a search; what it has found stays. */
  async cancel(id: string): Promise<Search> {
    return this.stop(id, 'cancel', 'cancelled')
  }

  /** Tells how a search goes on; begins with everything that is known of it. Returns how to stop listening. */
  async watch(id: string, listener: Listener): Promise<() => void> {
    const search = await this.store.get(id)
    const own = this.listeners.get(id) ?? new Set()
    this.listeners.set(id, own)
    own.add(listener)
    listener({ search, fresh: await this.store.variants(id) })
    return () => {
      own.delete(listener)
      if (own.size === 0) this.listeners.delete(id)
    }
  }

  /** Leaves what is running, to be resumed at the next start. */
  async close(): Promise<void> {
    this.queue.length = 0
    if (this.running) this.running.wanted = 'leave'
    await this.idle
  }

  private async stop(id: string, wanted: 'pause' | 'cancel', state: SearchState): Promise<Search> {
    const at = this.queue.indexOf(id)
    if (at >= 0) this.queue.splice(at, 1)
    const search = await this.store.get(id)
    if (this.running?.id === id) {
      this.running.wanted = wanted
      await this.running.over
      return this.store.get(id)
    }
    return search.state === 'waiting' || search.state === 'paused' || search.state === 'running' ? this.put(id, { state }) : search
  }

  private async runNext(): Promise<void> {
    const id = this.queue.shift()
    if (id === undefined) return
    let end = (): void => {}
    const over = new Promise<void>((resolve) => {
      end = resolve
    })
    const running: Running = { id, wanted: 'run', over }
    this.running = running
    let evaluator: Evaluator | undefined
    try {
      const { spec } = await this.put(id, { state: 'running' })
      const { bytes, fileName, contentKey } = await this.parts.file(spec.partId)
      evaluator = this.openEvaluator({ bytes, fileName, contentKey, spec, context: await this.store.contextOf(id) })
      const finished = await this.run(running, evaluator)
      if (finished) await this.put(id, { state: 'done' })
      else if (running.wanted === 'pause') await this.put(id, { state: 'paused' })
      else if (running.wanted === 'cancel') await this.put(id, { state: 'cancelled' })
    } catch (error) {
      console.error(error)
      const problem = error instanceof Error ? error.message : String(error)
      // A database that is away cannot be told of it: the search is taken up at the next start.
      await this.put(id, { state: 'failed', problem }).catch(() => {})
    } finally {
      await evaluator?.close().catch((error) => console.error(error))
      this.running = undefined
      end()
    }
  }

  /** Returns whether the search came to its end. */
  private async run(running: Running, evaluator: Evaluator): Promise<boolean> {
    const { id } = running
    const before = await this.store.get(id)
    const { dimensions, objectives, limits, budget, seed } = before.spec
    const known = new Map((await this.store.variants(id)).map((variant) => [keyOfVariant(variant.choices), variant.figures]))
    const tally = { reused: before.reused, computed: before.computed, seconds: before.seconds, begun: performance.now(), fresh: 0 }
    const search = explore(
      dimensions.map((dimension) => choicesOf(dimension).length),
      { budget, seed },
    )
    let position = 0
    for (let batch = search.next(); !batch.done; ) {
      const places = new Map(batch.value.map((variant, i) => [keyOfVariant(variant), position + i]))
      const missing = batch.value.filter((variant) => !known.has(keyOfVariant(variant)))
      await this.evaluateAll(running, evaluator, inOrderOfReuse(missing, dimensions), dimensions, places, known, tally)
      if (running.wanted !== 'run') return false
      position += batch.value.length
      batch = search.next(batch.value.map((variant) => scoreOf(known.get(keyOfVariant(variant)), objectives, limits)))
    }
    return true
  }

  private async evaluateAll(
    running: Running,
    evaluator: Evaluator,
    ordered: readonly Variant[],
    dimensions: readonly Dimension[],
    places: ReadonlyMap<string, number>,
    known: Map<string, Figures | undefined>,
    tally: { reused: number; computed: number; seconds: number; readonly begun: number; fresh: number },
  ): Promise<void> {
    const { id } = running
    // Families stay with a lane, which remembers their stages; a lane that is done early takes from the end of another's.
    const lanes = Array.from({ length: evaluator.lanes }, (_, lane) =>
      ordered.filter((variant) => familyOf(variant, dimensions) % evaluator.lanes === lane),
    )
    const next = (lane: number): Variant | undefined =>
      lanes[lane]!.shift() ?? lanes.reduce((longest, own) => (own.length > longest.length ? own : longest)).pop()
    let fresh: FoundVariant[] = []
    const tell = async (): Promise<void> => {
      const found = fresh
      fresh = []
      await this.store.add(id, found)
      const spent = (performance.now() - tally.begun) / 1000
      const progress = { done: known.size, reused: tally.reused, computed: tally.computed, seconds: tally.seconds + spent }
      const search = await this.store.update(id, progress)
      const secondsLeft = tally.fresh > 0 ? ((search.of - search.done) * spent) / tally.fresh : undefined
      this.tell({ search, fresh: found, ...(secondsLeft === undefined ? {} : { secondsLeft }) })
    }
    let told = performance.now()
    let telling: Promise<void> = Promise.resolve()
    await Promise.all(
      lanes.map(async (_, lane) => {
        for (let variant = next(lane); variant && running.wanted === 'run'; variant = next(lane)) {
          const { figures, reused, computed } = await evaluator.evaluate(lane, variant)
          known.set(keyOfVariant(variant), figures)
          tally.reused += reused
          tally.computed += computed
          tally.fresh++
          fresh.push({ position: places.get(keyOfVariant(variant))!, choices: [...variant], ...(figures ? { figures } : {}) })
          if (performance.now() - told < TELL_MS) continue
          told = performance.now()
          telling = telling.then(tell)
          await telling
        }
      }),
    )
    await telling
    if (fresh.length > 0) await tell()
  }

  private async put(id: string, progress: Parameters<SearchStore['update']>[1]): Promise<Search> {
    const search = await this.store.update(id, progress)
    this.tell({ search, fresh: [] })
    return search
  }

  private tell(event: SearchEvent): void {
    for (const listener of this.listeners.get(event.search.id) ?? []) listener(event)
  }
}
