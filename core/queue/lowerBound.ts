import { copiesOf, shortest } from './listSchedule'
import { startFrom } from './presence'
import type { Ground } from './timeline'

/**
 * No schedule ends before this, minutes: not before the longest copy that is started at once; not before all work is shared evenly by the
 * printers that may do it, work of fewer printers by those alone; with more copies than printers not before the two that must share one; and not
 * before all that wants one reel is printed one after another.
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
    const work = own.reduce((sum, { job }) => sum + shortest(ground, job), 0)
    const change = Math.min(...lanes.map((lane) => queue.printers[lane]!.changeMinutes))
    const changes = Math.max(0, own.length - lanes.length) * change
    const starts = lanes.reduce((sum, lane) => sum + firstStart(lane), 0)
    bound = Math.max(bound, (work + changes + starts) / lanes.length)
    // Of the longest, one more than there are printers: two of them share one, the two shortest at best.
    const longest = own.map(({ job }) => shortest(ground, job)).sort((a, b) => b - a)
    const earliest = Math.min(...lanes.map((lane) => firstStart(lane)))
    if (longest.length > lanes.length) bound = Math.max(bound, earliest + longest[lanes.length]! + longest[lanes.length - 1]! + change)
  }
  // What all wants one reel is printed one after another.
  for (const key of reelsOf(ground)) {
    const own = copies.filter(({ job }) => queue.jobs[job]!.options.every(({ spool }) => spool === key))
    if (own.length === 0) continue
    const earliest = Math.min(
      ...own.flatMap(({ job }) => queue.jobs[job]!.options.map(({ printer }) => firstStart(printerOf.get(printer)!))),
    )
    bound = Math.max(bound, earliest + own.reduce((sum, { job }) => sum + shortest(ground, job), 0))
  }
  return bound
}

const reelsOf = ({ queue }: Ground): Set<string> =>
  new Set(queue.jobs.flatMap(({ options }) => options.flatMap(({ spool }) => spool ?? [])))
