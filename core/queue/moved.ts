import { group } from 'd3-array'
import type { QueuePlan } from './plan'

/** A plan and the moment from which its minutes count, ms since 1970. */
export interface PlanAt {
  readonly plan: QueuePlan
  readonly now: number
}

/** What became of a job from one plan to the next. */
export interface Moved {
  readonly job: string
  /** Keys of its printers before and after, each once, in the order of starting; the same where they did not change. */
  readonly from: readonly string[]
  readonly to: readonly string[]
  /** By how many minutes its last copy ends later; earlier where negative. Absent where it was not planned before, or is not now. */
  readonly laterBy?: number
  readonly isNew?: true
  /** It cannot be planned any more. */
  readonly isRefused?: true
  /** It misses its deadline now and did not, or the other way. */
  readonly late?: 'now' | 'no longer'
}

/** Less is not told, min: plans are made anew while time goes on. */
const LEAST = 15
const MINUTE = 60_000

/** Jobs that another plan has elsewhere or at another time, those that moved most first. Jobs that are no longer to be planned are left out. */
export function movedBetween(before: PlanAt, after: PlanAt): Moved[] {
  const byJob = ({ plan }: PlanAt) => group(plan.items, ({ of }) => of)
  const [old, now] = [byJob(before), byJob(after)]
  const refused = new Set(after.plan.refused.map(({ job }) => job))
  const wasRefused = new Set(before.plan.refused.map(({ job }) => job))
  const moves = [...new Set([...old.keys(), ...now.keys()])].flatMap((job): Moved[] => {
    const [was, is] = [old.get(job) ?? [], now.get(job) ?? []]
    const printersOf = (items: QueuePlan['items']): string[] => [...new Set(items.map(({ on }) => on))]
    const [from, to] = [printersOf(was), printersOf(is)]
    if (is.length === 0) return refused.has(job) ? [{ job, from, to, isRefused: true }] : []
    if (was.length === 0) return [{ job, from, to, ...(wasRefused.has(job) ? {} : { isNew: true as const }) }]
    const end = (items: QueuePlan['items'], at: number): number => at + MINUTE * Math.max(...items.map(({ endsAt }) => endsAt))
    const laterBy = (end(is, after.now) - end(was, before.now)) / MINUTE
    const [wasLate, isLate] = [before.plan.late.includes(job), after.plan.late.includes(job)]
    const isElsewhere = from.length !== to.length || from.some((key) => !to.includes(key))
    if (!isElsewhere && Math.abs(laterBy) < LEAST && wasLate === isLate) return []
    return [
      {
        job,
        from: isElsewhere ? from : to,
        to,
        laterBy,
        ...(wasLate === isLate ? {} : { late: isLate ? ('now' as const) : ('no longer' as const) }),
      },
    ]
  })
  return moves.sort((a, b) => Math.abs(b.laterBy ?? Number.POSITIVE_INFINITY) - Math.abs(a.laterBy ?? Number.POSITIVE_INFINITY) || 0)
}
