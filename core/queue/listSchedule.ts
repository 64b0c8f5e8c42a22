import type { Ground } from './ground'
import { startFrom } from './presence'
import type { Item, Lanes } from './queue'

/** Every copy of every job, to be placed. */
export const copiesOf = ({ queue }: Ground): { job: number; copy: number }[] =>
  queue.jobs.flatMap(({ copies }, job) => Array.from({ length: copies }, (_, copy) => ({ job, copy })))

/** Shortest minutes of a job's ways. */
export const shortest = ({ queue }: Ground, job: number): number => Math.min(...queue.jobs[job]!.options.map(({ minutes }) => minutes))

/** Orders in which copies are handed out: the longest first (Graham 1969), by deadline, and as they were given. */
export const orders: readonly ((ground: Ground, a: number, b: number) => number)[] = [
  (ground, a, b) => shortest(ground, b) - shortest(ground, a),
  ({ queue }, a, b) => (queue.jobs[a]!.deadline ?? Number.POSITIVE_INFINITY) - (queue.jobs[b]!.deadline ?? Number.POSITIVE_INFINITY) || 0,
  () => 0,
]

/** List scheduling: each copy in its turn goes where it ends first. Ties go to the printer that stands first. */
export function listSchedule(ground: Ground, order: (typeof orders)[number]): Lanes {
  const { queue, windows, printerOf } = ground
  const lanes: Item[][] = queue.printers.map(() => [])
  const free = queue.printers.map(({ freeAt = 0 }) => freeAt)
  const left = new Map((queue.spools ?? []).map(({ key, grams }) => [key, grams]))
  for (const { job: at, copy } of copiesOf(ground).sort((a, b) => order(ground, a.job, b.job))) {
    const { options, notBefore = 0 } = queue.jobs[at]!
    let best: { lane: number; option: number; end: number; isShort: boolean } | undefined
    for (const [option, { printer, minutes, spool, grams = 0 }] of options.entries()) {
      const lane = printerOf.get(printer)!
      const setUp = lanes[lane]!.length > 0 ? queue.printers[lane]!.changeMinutes : 0
      const end = startFrom(Math.max(free[lane]! + setUp, notBefore), setUp, windows) + minutes
      const isShort = spool !== undefined && (left.get(spool) ?? Number.POSITIVE_INFINITY) < grams
      if (!best || (isShort === best.isShort ? end < best.end : !isShort)) best = { lane, option, end, isShort }
    }
    if (!best) continue
    lanes[best.lane]!.push({ job: at, copy, option: best.option })
    free[best.lane] = best.end
    const { spool, grams = 0 } = options[best.option]!
    if (spool !== undefined && left.has(spool)) left.set(spool, left.get(spool)! - grams)
  }
  return lanes
}
