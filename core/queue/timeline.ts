import { mergedWindows, startFrom } from './presence'
import type { Item, Job, JobOption, Lanes, Placed, Queue, QueuePrinter, Window } from './queue'

/** A queue made ready to be laid on the clock many times. */
export interface Ground {
  readonly queue: Queue
  readonly windows: readonly Window[] | undefined
  readonly printerOf: ReadonlyMap<string, number>
  /** Whether two printers could want the same reel. */
  readonly sharesSpools: boolean
  /** What lanes came to. */
  readonly seen: WeakMap<readonly Item[], { readonly lane: number; readonly sums: Sums }>
}

export function groundOf(queue: Queue): Ground {
  const users = new Map<string, Set<string>>()
  for (const { options } of queue.jobs)
    for (const { spool, printer } of options) if (spool !== undefined) users.set(spool, (users.get(spool) ?? new Set()).add(printer))
  return {
    queue,
    windows: queue.presence && mergedWindows(queue.presence),
    printerOf: new Map(queue.printers.map(({ key }, i) => [key, i])),
    sharesSpools: [...users.values()].some((printers) => printers.size > 1),
    seen: new WeakMap(),
  }
}

/** Where a lane has come to. */
interface Head {
  free: number
  spool: string | undefined
  nozzle: string | undefined
  isUsed: boolean
}

const headOf = ({ freeAt = 0, spool, nozzle }: QueuePrinter): Head => ({ free: freeAt, spool, nozzle, isUsed: false })

/** What a person does before an item: nothing on a clear bed with the right reel and nozzle. */
function setUpOf(
  { changeMinutes, spoolMinutes = 0, nozzleMinutes = 0 }: QueuePrinter,
  { isUsed, spool, nozzle }: Head,
  option: JobOption,
): number {
  const isOtherSpool = option.spool !== undefined && spool !== undefined && option.spool !== spool
  const isOtherNozzle = option.nozzle !== undefined && nozzle !== undefined && option.nozzle !== nozzle
  return (isUsed ? changeMinutes : 0) + (isOtherSpool ? spoolMinutes : 0) + (isOtherNozzle ? nozzleMinutes : 0)
}

/** How long an item takes; in a drawn world not what was foretold. */
export type Minutes = (item: Item, job: Job, option: JobOption) => number
const foretold: Minutes = (_, __, option) => option.minutes

/**
 * Lays lanes on the clock: each item as early as its printer, its reel and somebody who is there allow. Items whose reel is on another printer
 * wait for it; of several printers that want one reel, whichever could start first has it.
 */
export function timeline(ground: Ground, lanes: Lanes, minutes: Minutes = foretold): Placed[] {
  return ground.sharesSpools ? together(ground, lanes, minutes) : lanes.flatMap((items, lane) => laneAlone(ground, lane, items, minutes))
}

/** A lane whose reels no other one wants. */
export function laneAlone(ground: Ground, lane: number, items: readonly Item[], minutes: Minutes = foretold): Placed[] {
  const head = headOf(ground.queue.printers[lane]!)
  return items.map((item) => put(ground, lane, head, item, startOf(ground, lane, head, item, 0), minutes))
}

interface Start {
  readonly startsAt: number
  readonly setUp: number
}

/** @param reelFree when its reel is free, min */
function startOf({ queue, windows }: Ground, lane: number, head: Head, item: Item, reelFree: number): Start {
  const job = queue.jobs[item.job]!
  const option = job.options[item.option]!
  const setUp = setUpOf(queue.printers[lane]!, head, option)
  const reel = option.spool === head.spool ? 0 : reelFree
  return { startsAt: startFrom(Math.max(head.free + setUp, reel + setUp, job.notBefore ?? 0), setUp, windows), setUp }
}

function put({ queue }: Ground, lane: number, head: Head, item: Item, { startsAt, setUp }: Start, minutes: Minutes): Placed {
  const job = queue.jobs[item.job]!
  const option = job.options[item.option]!
  const endsAt = startsAt + minutes(item, job, option)
  head.free = endsAt
  head.isUsed = true
  head.spool = option.spool ?? head.spool
  head.nozzle = option.nozzle ?? head.nozzle
  return { ...item, printer: lane, setUpAt: startsAt - setUp, startsAt, endsAt }
}

/** Lanes that wait for each other's reels, one item after another: the one that can start first. */
function together(ground: Ground, lanes: Lanes, minutes: Minutes): Placed[] {
  const { queue } = ground
  const placed: Placed[] = []
  const reels = new Map<string, number>()
  const heads = queue.printers.map(headOf)
  const next = lanes.map(() => 0)
  const spoolOf = (lane: number): string | undefined => {
    const item = lanes[lane]![next[lane]!]
    return item && queue.jobs[item.job]!.options[item.option]!.spool
  }
  const startNow = (lane: number): Start | undefined => {
    const item = lanes[lane]![next[lane]!]
    return item && startOf(ground, lane, heads[lane]!, item, reels.get(spoolOf(lane) ?? '') ?? 0)
  }
  const starts = lanes.map((_, lane) => startNow(lane))
  for (;;) {
    let first = -1
    for (let lane = 0; lane < starts.length; lane++)
      if (starts[lane] && (first < 0 || starts[lane]!.startsAt < starts[first]!.startsAt)) first = lane
    if (first < 0) return placed
    const spool = spoolOf(first)
    const one = put(ground, first, heads[first]!, lanes[first]![next[first]!]!, starts[first]!, minutes)
    placed.push(one)
    next[first]!++
    if (spool !== undefined) reels.set(spool, one.endsAt)
    // Only those that wait for the same reel begin later now.
    for (let lane = 0; lane < starts.length; lane++)
      if (lane === first || (spool !== undefined && starts[lane] && spoolOf(lane) === spool)) starts[lane] = startNow(lane)
  }
}

/** What a schedule is judged by: the end of all, minutes late by weight, the mean end, and grams that no reel has. */
export interface Worth {
  readonly makespan: number
  readonly late: number
  readonly meanEnd: number
  readonly missingG: number
  /** Copies that nobody is there to start. */
  readonly unstarted: number
}

/** What some items come to, to be added up with those of other lanes. */
interface Sums {
  readonly end: number
  readonly late: number
  readonly sumOfEnds: number
  readonly used: ReadonlyMap<string, number> | undefined
  readonly unstarted: number
}

function sumsOf({ queue }: Ground, placed: readonly Placed[]): Sums {
  let [end, late, sumOfEnds, unstarted] = [0, 0, 0, 0]
  const used = queue.spools && new Map<string, number>()
  for (const { job: at, option, endsAt } of placed) {
    const { deadline, weight = 1, options } = queue.jobs[at]!
    if (endsAt === Number.POSITIVE_INFINITY) {
      unstarted++
      continue
    }
    if (endsAt > end) end = endsAt
    sumOfEnds += endsAt
    if (deadline !== undefined && endsAt > deadline) late += weight * (endsAt - deadline)
    if (!used) continue
    const { spool, grams = 0 } = options[option]!
    if (spool !== undefined) used.set(spool, (used.get(spool) ?? 0) + grams)
  }
  return { end, late, sumOfEnds, used, unstarted }
}

function added({ queue }: Ground, all: readonly Sums[], count: number): Worth {
  const missing = (key: string, grams: number): number => Math.max(0, all.reduce((sum, { used }) => sum + (used?.get(key) ?? 0), 0) - grams)
  return {
    makespan: all.reduce((most, { end }) => Math.max(most, end), 0),
    late: all.reduce((sum, { late }) => sum + late, 0),
    meanEnd: count === 0 ? 0 : all.reduce((sum, { sumOfEnds }) => sum + sumOfEnds, 0) / count,
    missingG: (queue.spools ?? []).reduce((sum, { key, grams }) => sum + missing(key, grams), 0),
    unstarted: all.reduce((sum, one) => sum + one.unstarted, 0),
  }
}

export const worthOf = (ground: Ground, placed: readonly Placed[]): Worth => added(ground, [sumsOf(ground, placed)], placed.length)

/** What lanes are worth; of lanes that were seen before nothing is computed again. Lanes are never changed, only replaced. */
export function worthOfLanes(ground: Ground, lanes: Lanes): Worth {
  if (ground.sharesSpools) return worthOf(ground, timeline(ground, lanes))
  let count = 0
  const all = lanes.map((items, lane) => {
    count += items.length
    let known = ground.seen.get(items)
    if (known?.lane !== lane) {
      known = { lane, sums: sumsOf(ground, laneAlone(ground, lane, items)) }
      ground.seen.set(items, known)
    }
    return known.sums
  })
  return added(ground, all, count)
}

/** A minute late weighs as much as so many of the end of all; a gram that no reel has as much as these. Assumed. */
const [LATE, MISSING, EARLY] = [20, 60, 0.01]
/** One that is never started is worse than anything that is. */
const UNSTARTED = 1e7
export const costOf = ({ makespan, late, meanEnd, missingG, unstarted }: Worth): number =>
  UNSTARTED * unstarted + makespan + LATE * late + MISSING * missingG + EARLY * meanEnd
