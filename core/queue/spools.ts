import type { Placed, Queue } from './queue'

/** What becomes of a reel: what is used of it, what is left, and the first print for which it will not last. */
export interface SpoolUse {
  readonly key: string
  readonly grams: number
  readonly usedG: number
  readonly leftG: number
  /** It lasts surely, perhaps, or not. */
  readonly lasts: 'surely' | 'perhaps' | 'no'
  /** Id of the job at which it runs out. */
  readonly runsOutAt?: string
}

export function spoolUses({ spools = [], jobs }: Pick<Queue, 'spools' | 'jobs'>, placed: readonly Placed[]): SpoolUse[] {
  return spools.map(({ key, grams, doubtG = 0 }) => {
    let usedG = 0
    let runsOutAt: string | undefined
    for (const { job, option } of placed.toSorted((a, b) => a.startsAt - b.startsAt)) {
      const { spool, grams: own = 0 } = jobs[job]!.options[option]!
      if (spool !== key) continue
      usedG += own
      if (usedG > grams && runsOutAt === undefined) runsOutAt = jobs[job]!.id
    }
    const lasts = usedG <= grams - doubtG ? 'surely' : usedG <= grams + doubtG ? 'perhaps' : 'no'
    return { key, grams, usedG, leftG: grams - usedG, lasts, ...(runsOutAt === undefined ? {} : { runsOutAt }) }
  })
}
