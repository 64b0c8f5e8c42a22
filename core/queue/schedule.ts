import { rollup } from 'd3-array'
import { formatDuration } from '../units/format'
import { lanesAsBefore, type Stood } from './asBefore'
import { type Ground, groundOf } from './ground'
import { bestOfAll, FEW, type Found, improve, judge } from './improve'
import { copiesOf, listSchedule, orders } from './listSchedule'
import { lowerBound } from './lowerBound'
import { longestGap, mergedWindows, startFrom } from './presence'
import type { Item, Job, Placed, Queue } from './queue'
import { thereIs } from './reels'
import { timeline } from './timeline'
import { worthOf } from './worth'

/** A job that cannot be placed, why, and the nearest thing that works. */
export interface Refused {
  readonly job: string
  readonly why: string
}

export interface Schedule extends Found {
  readonly placed: readonly Placed[]
  readonly ground: Ground
  readonly makespan: number
  readonly lowerBound: number
  /** Ids of jobs of which a copy ends after their deadline. */
  readonly late: readonly string[]
  readonly refused: readonly Refused[]
}

export interface ScheduleChoice {
  readonly seed?: number
  /** Moves that are looked at; by the size of the queue where that is not told. */
  readonly rounds?: number
  /** A plan that stood before: it stays as far as it can, unless another is better by more than this share of its cost. */
  readonly before?: readonly Stood[] | undefined
  readonly worthMoving?: number
}

/** What another plan has to be better by for things to be moved, as a share of its cost, where nothing else is told; assumed. */
const WORTH_MOVING = 0.01

/** Moves that are looked at by each copy; and items that are laid on the clock meanwhile, at most: more of large queues. Assumed, for a second or two. */
const [ROUNDS_EACH, LEAST_ROUNDS, MOST_LAID, LARGE] = [1000, 3000, 600_000, 200]

function roundsFor({ isJoint, queue }: Ground, copies: number): number {
  // A move touches two lanes, or all of them where they wait for each other's reels.
  const laid = isJoint ? copies : Math.max(1, (2 * copies) / queue.printers.length)
  return Math.round(Math.max(LEAST_ROUNDS, Math.min(ROUNDS_EACH * copies, (MOST_LAID * Math.max(1, copies / LARGE)) / laid)))
}

/**
 * Places every copy of every job on a printer and on the clock: list schedules of several orders, the best of them improved by moves. Few copies
 * are placed in all ways. Yields the share that is done; deterministic for a seed.
 */
export function* scheduleWork(
  given: Queue,
  { seed = 1, rounds: asked, before, worthMoving = WORTH_MOVING }: ScheduleChoice = {},
): Generator<number, Schedule> {
  const { queue, refused } = withoutRefused(given)
  const ground = groundOf(queue)
  const copies = copiesOf(ground)
  let best: Found = orders.map((order) => judge(ground, listSchedule(ground, order))).reduce((a, b) => (b.cost < a.cost ? b : a))
  const ways = copies.reduce((product, { job }) => product * queue.jobs[job]!.options.length, 1)
  if (copies.length > 0 && copies.length <= FEW && ways <= 800) best = bestOfAll(ground, copies)
  else if (copies.length > 1) {
    const rounds = asked ?? roundsFor(ground, copies.length)
    best = yield* improve(ground, best, rounds, seed)
  }
  const standing = before && lanesAsBefore(ground, before)
  if (standing) {
    const stood = judge(ground, standing)
    if (best.cost > (1 - worthMoving) * stood.cost) best = stood
  }
  // Copies that nobody can start any more are no part of the schedule.
  const all = timeline(ground, best.lanes)
  const unstarted = all.filter(({ startsAt }) => !Number.isFinite(startsAt))
  const isOut = (item: Item): boolean => unstarted.some(({ job, copy }) => job === item.job && copy === item.copy)
  const lanes = unstarted.length === 0 ? best.lanes : best.lanes.map((lane) => lane.filter((item) => !isOut(item)))
  const placed = unstarted.length === 0 ? all : timeline(ground, lanes)
  const { makespan } = worthOf(ground, placed)
  const isLate = ({ deadline }: Job, at: number): boolean =>
    deadline !== undefined && placed.some(({ job, endsAt }) => job === at && endsAt > deadline + 1e-9)
  return {
    lanes,
    placed,
    ground,
    cost: best.cost,
    makespan,
    // A bound of all copies says nothing of a schedule of some.
    lowerBound: unstarted.length === 0 ? Math.min(makespan, lowerBound(ground)) : 0,
    late: queue.jobs.filter(isLate).map(({ id }) => id),
    refused: [
      ...refused,
      ...[
        ...rollup(
          unstarted,
          (own) => own.length,
          ({ job }) => job,
        ),
      ].map(([job, count]) => {
        const { id, copies: wanted } = queue.jobs[job]!
        const what = wanted === 1 ? 'it' : count === wanted ? 'any of them' : `${count} of ${wanted} copies`
        return {
          job: id,
          why: `Nobody is there to start ${what} before the last hour of presence ends. Add hours, or put it before others.`,
        }
      }),
    ],
  }
}

/** The same without progress. */
export function schedule(queue: Queue, choice?: ScheduleChoice): Schedule {
  const work = scheduleWork(queue, choice)
  for (;;) {
    const step = work.next()
    if (step.done) return step.value
  }
}

/** Jobs that no schedule can hold are told, and left out. */
function withoutRefused(queue: Queue): { queue: Queue; refused: Refused[] } {
  const refused: Refused[] = []
  const known = new Set(queue.printers.map(({ key }) => key))
  const windows = queue.presence && mergedWindows(queue.presence)
  const peace = queue.quiet && queue.quiet.length > 0 ? longestGap(mergedWindows(queue.quiet)) : Number.POSITIVE_INFINITY
  const ground = groundOf(queue)
  const jobs = queue.jobs.flatMap((job): Job[] => {
    const there = job.options.filter(({ printer, minutes }) => known.has(printer) && minutes > 0 && Number.isFinite(minutes))
    const options = there.filter(({ minutes, high = minutes }) => high <= peace)
    const why =
      job.options.length === 0
        ? 'There is no printer for it. Allow one of those that are in the queue.'
        : there.length === 0
          ? `None of its printers is in the queue: ${[...new Set(job.options.map(({ printer }) => printer))].join(', ')}. Allow ${queue.printers[0]?.key ?? 'a printer'}.`
          : options.length === 0
            ? `It takes up to ${formatDuration(60 * Math.min(...there.map(({ minutes, high = minutes }) => high)))}, and between quiet hours there are ${formatDuration(60 * peace)}. Shorten the quiet hours, or give it a faster way.`
            : startFrom(job.notBefore ?? 0, 0, windows) === Number.POSITIVE_INFINITY
              ? 'Nobody is there to start it. Add an hour of presence after its earliest start.'
              : tooMuch(options, ground)
    if (why === undefined) return [{ ...job, options }]
    refused.push({ job: job.id, why })
    return []
  })
  return { queue: { ...queue, jobs }, refused }
}

/** One copy needs more than any of its reels has, with those that may follow it, as far as reels are told. */
function tooMuch(options: Job['options'], ground: Ground): string | undefined {
  const lacks = options.map(({ spool, grams = 0 }) => {
    const there = spool === undefined ? undefined : thereIs(ground, spool)
    return there !== undefined && grams > there ? { spool: spool!, grams, there } : undefined
  })
  if (lacks.some((lack) => lack === undefined)) return undefined
  const [least] = lacks.sort((a, b) => a!.grams - a!.there - (b!.grams - b!.there))
  const reel = ground.spoolOf.get(least!.spool)!
  return `${reel.key} will not last: ${Math.round(least!.grams)} g are needed, about ${Math.round(reel.grams)} g are left${reel.followedBy === undefined ? '' : ', and the next reel does not have the rest'}. Take a reel with more, ${reel.followedBy === undefined ? 'let it go on from another, ' : ''}or a new one.`
}
