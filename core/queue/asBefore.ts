import type { Ground } from './ground'
import { judge } from './improve'
import { copiesOf } from './listSchedule'
import type { Item, Lanes } from './queue'

/** Where a copy of a job stood in an earlier plan; all of a plan in the order of starting. */
export interface Stood {
  readonly of: string
  readonly on: string
  readonly spool?: string | undefined
  readonly way?: number | undefined
}

/** So many copies that stood nowhere are put in where they cost least; of more it is better to plan anew. */
const MOST_NEW = 12

/** A plan as it stood, as far as it can stand: what is new or has no printer any more is put in where it costs least. */
export function lanesAsBefore(ground: Ground, before: readonly Stood[]): Lanes | undefined {
  const { queue, printerOf } = ground
  const jobs = new Map(queue.jobs.map(({ id }, at) => [id, at]))
  const lanes: Item[][] = queue.printers.map(() => [])
  const left = new Map(queue.jobs.map(({ copies }, at) => [at, copies]))
  for (const { of, on, spool, way } of before) {
    const job = jobs.get(of)
    const copies = job === undefined ? 0 : left.get(job)!
    if (job === undefined || copies === 0) continue
    const { options, copies: all } = queue.jobs[job]!
    const here = [...options.entries()].filter(([, option]) => option.printer === on)
    const [option] = here.find(([, own]) => own.spool === spool && own.way === way) ?? here[0] ?? []
    if (option === undefined) continue
    lanes[printerOf.get(on)!]!.push({ job, copy: all - copies, option })
    left.set(job, copies - 1)
  }
  const added = copiesOf(ground).filter(({ job, copy }) => copy >= queue.jobs[job]!.copies - left.get(job)!)
  if (added.length > MOST_NEW) return undefined
  return added.reduce<Lanes>((all, { job, copy }) => {
    const ways = queue.jobs[job]!.options.flatMap(({ printer }, option) => {
      const lane = printerOf.get(printer)!
      return Array.from({ length: all[lane]!.length + 1 }, (_, place) =>
        all.with(lane, all[lane]!.toSpliced(place, 0, { job, copy, option })),
      )
    })
    return ways.map((way) => judge(ground, way)).reduce((a, b) => (b.cost < a.cost ? b : a)).lanes
  }, lanes)
}
