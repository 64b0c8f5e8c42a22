import { type Placed, type Queue, takesOf } from './queue'

/** What becomes of a reel: what is used of it, what is left, and the first print for which it will not last. */
export interface SpoolUse {
  readonly key: string
  readonly grams: number
  readonly doubtG: number
  readonly usedG: number
  readonly leftG: number
  /** It lasts surely, perhaps, or not. */
  readonly lasts: 'surely' | 'perhaps' | 'no'
  /** Id of the job at which it runs out. */
  readonly runsOutAt?: string
}

/** What sums of shares are off by, g. */
const ROUNDING = 1e-6

export function spoolUses({ spools = [], jobs }: Pick<Queue, 'spools' | 'jobs'>, placed: readonly Placed[]): SpoolUse[] {
  return spools.map(({ key, grams, doubtG = 0 }) => {
    let usedG = 0
    let runsOutAt: string | undefined
    for (const one of placed.toSorted((a, b) => a.startsAt - b.startsAt))
      for (const take of takesOf(one, jobs[one.job]!.options[one.option]!)) {
        if (take.spool !== key) continue
        usedG += take.grams
        if (usedG > grams + ROUNDING && runsOutAt === undefined) runsOutAt = jobs[one.job]!.id
      }
    const lasts = usedG <= grams - doubtG ? 'surely' : usedG <= grams + doubtG ? 'perhaps' : 'no'
    return { key, grams, doubtG, usedG, leftG: grams - usedG, lasts, ...(runsOutAt === undefined ? {} : { runsOutAt }) }
  })
}
