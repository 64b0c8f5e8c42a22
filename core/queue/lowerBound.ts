import type { Ground } from './ground'
import { copiesOf, shortest } from './listSchedule'
import { startFrom } from './presence'

/**
 * No schedule ends before this, minutes: not before the longest copy that is started at once; not before all work is shared evenly by the
 * printers that may do it, work of fewer printers by those alone, with no more than one print in each of a printer's nights; with more copies than
 * printers not before the two that must share one; and not before all that wants one reel is printed one after another.
 */
export function lowerBound(ground: Ground): number {
  const { queue, windows, printerOf } = ground
  const copies = copiesOf(ground)
  const firstStart = (lane: number, notBefore = 0): number => startFrom(Math.max(queue.printers[lane]!.freeAt ?? 0, notBefore), 0, windows)
  let bound = 0
  for (const { job } of copies) {
    const { options, notBefore } = queue.jobs[job]!
    const soonest = Math.min(...options.map(({ printer, minutes }) => firstStart(printerOf.get(printer)!, notBefore) + minutes))
    bound = Math.max(bound, soonest)
  }
  // Work that only some printers may do, for every such set of printers.
  const sets = new Map<string, number[]>()
  const setOf = (job: number): number[] =>
    [...new Set(queue.jobs[job]!.options.map(({ printer }) => printerOf.get(printer)!))].sort((a, b) => a - b)
  for (const { job } of copies) sets.set(setOf(job).join(), setOf(job))
  sets.set('all', [...queue.printers.keys()])
  for (const lanes of sets.values()) {
    const own = copies.filter(({ job }) => setOf(job).every((lane) => lanes.includes(lane)))
    if (own.length === 0) continue
    const least = own.map(({ job }) => leastOf(ground, job)).sort((a, b) => b - a)
    // Where copies share plates, nobody has to do anything between them.
    const change = own.some(({ job }) => sharesPlates(ground, job))
      ? 0
      : Math.min(...lanes.map((lane) => queue.printers[lane]!.changeMinutes))
    const work = least.reduce((sum, minutes) => sum + minutes, 0) + Math.max(0, own.length - lanes.length) * change
    const starts = lanes.map((lane) => firstStart(lane))
    bound = Math.max(bound, endOfWork(ground, starts, work, Math.max(...own.map(({ job }) => longestAlone(ground, job)))))
    // Of the longest, one more than there are printers: two of them share one, the two shortest at best.
    if (least.length > lanes.length) bound = Math.max(bound, Math.min(...starts) + least[lanes.length]! + least[lanes.length - 1]! + change)
  }
  // What all wants one reel, and no other may follow it, is printed one after another.
  for (const key of reelsOf(ground)) {
    const own = copies.filter(({ job }) => queue.jobs[job]!.options.every(({ spool }) => spool === key))
    if (own.length === 0 || ground.spoolOf.get(key)?.followedBy !== undefined) continue
    const earliest = Math.min(
      ...own.flatMap(({ job }) => queue.jobs[job]!.options.map(({ printer }) => firstStart(printerOf.get(printer)!))),
    )
    bound = Math.max(bound, earliest + own.reduce((sum, { job }) => sum + leastOf(ground, job), 0))
  }
  return bound
}

const sharesPlates = ({ queue }: Ground, job: number): boolean => {
  const { copies, options } = queue.jobs[job]!
  return copies > 1 && options.some(({ perPlate = 1 }) => perPlate > 1)
}

/** Least minutes that a copy takes on a printer, where it may go on by itself on the plate of another. */
function leastOf(ground: Ground, job: number): number {
  if (!sharesPlates(ground, job)) return shortest(ground, job)
  return Math.min(
    ...ground.queue.jobs[job]!.options.map(({ minutes, perPlate = 1, startMinutes = 0 }) =>
      perPlate > 1 ? Math.max(0, minutes - startMinutes) : minutes,
    ),
  )
}

/** For how long a printer prints at most with nobody there: the copies of a full plate. */
const longestAlone = ({ queue }: Ground, job: number): number => {
  const { copies, options } = queue.jobs[job]!
  return Math.max(...options.map(({ minutes, perPlate = 1 }) => minutes * Math.min(perPlate, copies)))
}

/**
 * When so much work can be done at the earliest, by printers that are free from then on: all of the hours in which somebody is there, and of each
 * gap between two of them what one print can fill.
 */
function endOfWork({ windows }: Ground, starts: readonly number[], work: number, longest: number): number {
  const capacity = (until: number): number =>
    starts.reduce((sum, start) => {
      let [from, own] = [start, 0]
      for (const window of windows ?? []) {
        if (window.to <= from) continue
        if (from >= until) break
        // What was started just before they went.
        if (window.from > from) own += from === start ? 0 : Math.min(longest, Math.min(until, window.from) - from)
        own += Math.max(0, Math.min(until, window.to) - Math.max(from, window.from))
        from = window.to
      }
      const rest = Math.max(0, until - from)
      return sum + own + (windows ? Math.min(longest, rest) : rest)
    }, 0)
  let [low, high] = [0, Math.max(...starts, windows?.at(-1)?.to ?? 0) + work]
  if (!Number.isFinite(high)) return 0
  for (let i = 0; i < STEPS && high - low > 1e-9; i++) {
    const middle = (low + high) / 2
    if (capacity(middle) >= work - 1e-9) high = middle
    else low = middle
  }
  return low
}
const STEPS = 60

const reelsOf = ({ queue }: Ground): Set<string> =>
  new Set(queue.jobs.flatMap(({ options }) => options.flatMap(({ spool }) => spool ?? [])))
