import type { Ground } from './ground'
import { type Item, type Lanes, type Placed, takesOf } from './queue'
import { laneAlone, timeline } from './timeline'

/** What a schedule is judged by: the end of all, minutes late by weight, the mean end, grams that no reel has, grams that should have been used up. */
export interface Worth {
  readonly makespan: number
  readonly late: number
  readonly meanEnd: number
  readonly missingG: number
  readonly leftOverG: number
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
  for (const one of placed) {
    const { job: at, option, endsAt } = one
    const { deadline, wishedBy, weight = 1, options } = queue.jobs[at]!
    if (endsAt === Number.POSITIVE_INFINITY) {
      unstarted++
      continue
    }
    if (endsAt > end) end = endsAt
    sumOfEnds += endsAt
    if (deadline !== undefined && endsAt > deadline) late += weight * (endsAt - deadline)
    if (wishedBy !== undefined && endsAt > wishedBy) late += WISHED * (endsAt - wishedBy)
    if (!used) continue
    for (const { spool, grams } of takesOf(one, options[option]!)) used.set(spool, (used.get(spool) ?? 0) + grams)
  }
  return { end, late, sumOfEnds, used, unstarted }
}

function added({ queue }: Ground, all: readonly Sums[], count: number): Worth {
  const used = (key: string): number => all.reduce((sum, one) => sum + (one.used?.get(key) ?? 0), 0)
  const spools = queue.spools ?? []
  return {
    makespan: all.reduce((most, { end }) => Math.max(most, end), 0),
    late: all.reduce((sum, { late }) => sum + late, 0),
    meanEnd: count === 0 ? 0 : all.reduce((sum, { sumOfEnds }) => sum + sumOfEnds, 0) / count,
    missingG: spools.reduce((sum, { key, grams }) => sum + Math.max(0, used(key) - grams), 0),
    leftOverG: spools.reduce((sum, { key, grams, useUp }) => sum + (useUp ? Math.max(0, grams - used(key)) : 0), 0),
    unstarted: all.reduce((sum, one) => sum + one.unstarted, 0),
  }
}

export const worthOf = (ground: Ground, placed: readonly Placed[]): Worth => added(ground, [sumsOf(ground, placed)], placed.length)

/** What lanes of a queue came to. */
const laid = new WeakMap<Ground, WeakMap<readonly Item[], { readonly lane: number; readonly sums: Sums }>>()

/** What lanes are worth; of lanes that were seen before nothing is computed again. Lanes are never changed, only replaced. */
export function worthOfLanes(ground: Ground, lanes: Lanes): Worth {
  if (ground.isJoint) return worthOf(ground, timeline(ground, lanes))
  let seen = laid.get(ground)
  if (!seen) {
    seen = new WeakMap()
    laid.set(ground, seen)
  }
  let count = 0
  const all = lanes.map((items, lane) => {
    count += items.length
    let known = seen.get(items)
    if (known?.lane !== lane) {
      known = { lane, sums: sumsOf(ground, laneAlone(ground, lane, items)) }
      seen.set(items, known)
    }
    return known.sums
  })
  return added(ground, all, count)
}

/** A minute late weighs as much as so many of the end of all; a gram that no reel has, and one that should have been used up, as much as these. Assumed. */
const [LATE, MISSING, LEFT_OVER, EARLY] = [20, 60, 0.5, 0.01]
/** A minute after the moment that was only wished for, beside one after a deadline. Assumed. */
const WISHED = 0.25
/** One that is never started is worse than anything that is. */
const UNSTARTED = 1e7
export const costOf = ({ makespan, late, meanEnd, missingG, leftOverG, unstarted }: Worth): number =>
  UNSTARTED * unstarted + makespan + LATE * late + MISSING * missingG + LEFT_OVER * leftOverG + EARLY * meanEnd
