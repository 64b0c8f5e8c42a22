import type { Stood } from './asBefore'
import { drawnEnds } from './draws'
import type { JobOption, Placed, Queue } from './queue'
import { type Refused, type Schedule, type ScheduleChoice, scheduleWork } from './schedule'
import { type SpoolUse, spoolUses } from './spools'

/** A copy on the clock, with the 80 % range of its end and how often it misses its deadline. */
export interface PlannedItem extends Placed {
  /** Id of its job. */
  readonly of: string
  /** Key of its printer. */
  readonly on: string
  /** How it is printed. */
  readonly as: JobOption
  readonly deadline?: number | undefined
  readonly low: number
  readonly high: number
  readonly lateShare: number
}

/** A schedule with all that is told of it, as plain data. */
export interface QueuePlan {
  readonly items: readonly PlannedItem[]
  readonly makespan: number
  /** 80 % range of the end of all. */
  readonly low: number
  readonly high: number
  readonly lowerBound: number
  readonly late: readonly string[]
  readonly refused: readonly Refused[]
  readonly spools: readonly SpoolUse[]
}

/** Everything of a schedule that can be told. */
export function told({ ground, lanes, placed, makespan, lowerBound, late, refused }: Schedule): QueuePlan {
  const { jobs, printers } = ground.queue
  const drawn = drawnEnds(ground, lanes)
  const places = lanes.map((lane) => new Map(lane.map(({ job, copy }, place) => [`${job} ${copy}`, place])))
  const inOrder = placed
    .map((one) => ({
      ...one,
      of: jobs[one.job]!.id,
      on: printers[one.printer]!.key,
      as: jobs[one.job]!.options[one.option]!,
      deadline: jobs[one.job]!.deadline,
      ...drawn[one.printer]![places[one.printer]!.get(`${one.job} ${one.copy}`)!]!,
    }))
    .sort((a, b) => a.startsAt - b.startsAt)
  // One copy is as good as another: they are counted in the order of starting.
  const seen = new Map<string, number>()
  const items = inOrder.map((item) => {
    const copy = seen.get(item.of) ?? 0
    seen.set(item.of, copy + 1)
    return { ...item, copy }
  })
  const most = (of: (item: PlannedItem) => number): number => items.reduce((end, item) => Math.max(end, of(item)), 0)
  return {
    items,
    makespan,
    low: most(({ low }) => low),
    high: most(({ high }) => high),
    lowerBound,
    late,
    refused,
    spools: spoolUses(ground.queue, placed),
  }
}

/** A plan as the next one is asked to leave it. */
export const standing = ({ items }: QueuePlan): Stood[] => items.map(({ of, on, as: { spool, way } }) => ({ of, on, spool, way }))

/** The same as work that tells its progress. */
export function* planWork(queue: Queue, choice?: ScheduleChoice): Generator<number, QueuePlan> {
  return told(yield* scheduleWork(queue, choice))
}
