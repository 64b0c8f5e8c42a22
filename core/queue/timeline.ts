import type { Ground } from './ground'
import { disturbs, startFrom, startInPeace } from './presence'
import type { Item, Job, JobOption, Lanes, Placed, QueuePrinter, Take } from './queue'
import { type Left, takesFrom } from './reels'

/** Where a lane has come to. */
interface Head {
  free: number
  spool: string | undefined
  nozzle: string | undefined
  isUsed: boolean
  /** The way of which the last copies are, and how many of them stand on the plate. */
  way: JobOption | undefined
  onPlate: number
}

const headOf = ({ freeAt = 0, spool, nozzle }: QueuePrinter): Head => ({
  free: freeAt,
  spool,
  nozzle,
  isUsed: false,
  way: undefined,
  onPlate: 0,
})

/** What a person does before an item: nothing on a clear bed with the right reel and nozzle. */
function setUpOf(
  { changeMinutes, spoolMinutes = 0, nozzleMinutes = 0 }: QueuePrinter,
  { isUsed, spool, nozzle }: Head,
  wanted: string | undefined,
  option: JobOption,
): number {
  const isOtherSpool = wanted !== undefined && spool !== undefined && wanted !== spool
  const isOtherNozzle = option.nozzle !== undefined && nozzle !== undefined && option.nozzle !== nozzle
  return (isUsed ? changeMinutes : 0) + (isOtherSpool ? spoolMinutes : 0) + (isOtherNozzle ? nozzleMinutes : 0)
}

/** How long an item takes; in a drawn world not what was foretold. */
export type Minutes = (item: Item, job: Job, option: JobOption) => number
const foretold: Minutes = (_, __, option) => option.minutes

/**
 * Lays lanes on the clock: each item as early as its printer, its reel and somebody who is there allow. Copies of one way that follow each other
 * share plates as far as these hold them. Items whose reel is on another printer wait for it; of several printers that want one reel, whichever
 * could start first has it.
 */
export function timeline(ground: Ground, lanes: Lanes, minutes: Minutes = foretold): Placed[] {
  return ground.isJoint ? together(ground, lanes, minutes) : lanes.flatMap((items, lane) => laneAlone(ground, lane, items, minutes))
}

/** A lane whose reels no other one wants. */
export function laneAlone(ground: Ground, lane: number, items: readonly Item[], minutes: Minutes = foretold): Placed[] {
  const head = headOf(ground.queue.printers[lane]!)
  return items.map((item) => put(ground, lane, head, item, startOf(ground, lane, head, item, none), none, minutes))
}

/** Reels that lanes share: when each is free, and what is left of it. */
interface Shared {
  readonly freeAt: Map<string, number>
  readonly left: Left
}
const none: Shared = { freeAt: new Map(), left: new Map() }

interface Start {
  readonly startsAt: number
  readonly setUp: number
  readonly isOnPlate: boolean
  /** Only where prints may go on from other reels. */
  readonly takes: readonly Take[] | undefined
}

function startOf(ground: Ground, lane: number, head: Head, item: Item, { freeAt, left }: Shared): Start {
  const { queue, windows, quiet } = ground
  const job = queue.jobs[item.job]!
  const option = job.options[item.option]!
  const takes = ground.joinsReels ? takesFrom(ground, left, option) : undefined
  const spool = takes ? takes[0]?.spool : option.spool
  const lasts = option.high ?? option.minutes
  if (head.way === option && head.onPlate < (option.perPlate ?? 1) && (spool === undefined || spool === head.spool))
    if (!quiet || !disturbs(quiet, head.free, lasts)) return { startsAt: head.free, setUp: 0, takes, isOnPlate: true }
  const setUp = setUpOf(queue.printers[lane]!, head, spool, option)
  const reel = spool === undefined || spool === head.spool ? 0 : (freeAt.get(spool) ?? 0)
  const earliest = Math.max(head.free + setUp, reel + setUp, job.notBefore ?? 0)
  const startsAt = quiet ? startInPeace(earliest, setUp, lasts, windows, quiet) : startFrom(earliest, setUp, windows)
  return { startsAt, setUp, takes, isOnPlate: false }
}

function put(ground: Ground, lane: number, head: Head, item: Item, start: Start, shared: Shared, minutes: Minutes): Placed {
  const { startsAt, setUp, isOnPlate } = start
  const job = ground.queue.jobs[item.job]!
  const option = job.options[item.option]!
  const lasts = Math.max(0, minutes(item, job, option) - (isOnPlate ? (option.startMinutes ?? 0) : 0))
  const changed = start.takes && start.takes.length > 1 ? withChanges(ground, lane, startsAt, start.takes, lasts, shared) : undefined
  const takes = changed?.takes ?? start.takes
  const endsAt = changed?.endsAt ?? startsAt + lasts
  head.free = endsAt
  head.isUsed = true
  head.spool = (takes ? takes.at(-1)?.spool : option.spool) ?? head.spool
  head.nozzle = option.nozzle ?? head.nozzle
  head.onPlate = isOnPlate ? head.onPlate + 1 : 1
  head.way = option
  const { job: of, copy, option: way } = item
  const placed: Placed = { job: of, copy, option: way, printer: lane, setUpAt: startsAt - setUp, startsAt, endsAt }
  const isPlain = takes === undefined || (takes.length < 2 && takes[0]?.spool === option.spool)
  if (!isOnPlate && isPlain) return placed
  return { ...placed, ...(isOnPlate ? { isOnPlate } : {}), ...(isPlain ? {} : { takes }) }
}

/** A print whose reel runs out waits until the next one is free and somebody has changed it. */
function withChanges(
  { queue, windows }: Ground,
  lane: number,
  startsAt: number,
  takes: readonly Take[],
  lasts: number,
  { freeAt }: Shared,
) {
  const { spoolMinutes = 0 } = queue.printers[lane]!
  const grams = takes.reduce((sum, take) => sum + take.grams, 0)
  let at = startsAt
  const changed = takes.map((take, i): Take => {
    const out = at
    if (i > 0) at = startFrom(Math.max(out, freeAt.get(take.spool) ?? 0) + spoolMinutes, spoolMinutes, windows)
    const from = at
    at += (lasts * take.grams) / grams
    return i === 0 ? take : { ...take, from }
  })
  return { endsAt: at, takes: changed }
}

/** Lanes that wait for each other's reels, one item after another: the one that can start first. */
function together(ground: Ground, lanes: Lanes, minutes: Minutes): Placed[] {
  const { queue, spoolOf } = ground
  const placed: Placed[] = []
  const shared: Shared = {
    freeAt: new Map(),
    left: ground.joinsReels ? new Map([...spoolOf].map(([key, { grams }]) => [key, grams])) : none.left,
  }
  const heads = queue.printers.map(headOf)
  const next = lanes.map(() => 0)
  const starts: (Start | undefined)[] = lanes.map(() => undefined)
  /** The reel of what comes next on each lane. */
  const wanted: (string | undefined)[] = lanes.map(() => undefined)
  const look = (lane: number): void => {
    const item = lanes[lane]![next[lane]!]
    starts[lane] = item && startOf(ground, lane, heads[lane]!, item, shared)
    wanted[lane] = item && queue.jobs[item.job]!.options[item.option]!.spool
  }
  for (let lane = 0; lane < lanes.length; lane++) look(lane)
  for (;;) {
    let first = -1
    for (let lane = 0; lane < starts.length; lane++)
      if (starts[lane] && (first < 0 || starts[lane]!.startsAt < starts[first]!.startsAt)) first = lane
    if (first < 0) return placed
    const spool = wanted[first]
    const one = put(ground, first, heads[first]!, lanes[first]![next[first]!]!, starts[first]!, shared, minutes)
    placed.push(one)
    next[first]!++
    const takes = one.takes ?? starts[first]!.takes
    if (takes) use(shared, takes, one.endsAt)
    else if (spool !== undefined) shared.freeAt.set(spool, one.endsAt)
    // Only those that wait for one of the same reels begin otherwise now.
    for (let lane = 0; lane < starts.length; lane++) {
      const isTouched = takes
        ? starts[lane]?.takes?.some((own) => takes.some((take) => take.spool === own.spool))
        : spool !== undefined && wanted[lane] === spool
      if (lane === first || isTouched) look(lane)
    }
  }
}

/** Reels are free when the print has gone on from the next one, and have less on them. */
function use({ freeAt, left }: Shared, takes: readonly Take[], endsAt: number): void {
  for (const [i, { spool, grams }] of takes.entries()) {
    freeAt.set(spool, takes[i + 1]?.from ?? endsAt)
    const there = left.get(spool)
    if (there !== undefined) left.set(spool, Math.max(0, there - grams))
  }
}
