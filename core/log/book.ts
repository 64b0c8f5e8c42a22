import type { Nozzle } from '../shelf/nozzle'
import type { Spool } from '../shelf/spool'

/** What one print took: of a reel, of a nozzle, of a machine. */
export interface Took {
  /** ISO time at which it ended. */
  readonly at: string
  readonly name: string
  readonly printer: string
  readonly nozzle: string
  readonly hours: number
  readonly cost: number
  /** Of abrasive filament. */
  readonly isAbrasive: boolean
  readonly reels: readonly {
    readonly spool: string
    /** On the scale before and after, g. */
    readonly beforeG?: number | undefined
    readonly afterG?: number | undefined
    /** It ended in this print. */
    readonly ranOut?: boolean | undefined
    /** Foretold, as far as it was printed, g. */
    readonly foretoldG: number
  }[]
}

/** From one time on the scale to the next: what is gone, what prints took of it, and what nobody can tell. */
export interface Stretch {
  readonly from: string
  readonly to: string
  readonly goneG: number
  readonly printedG: number
  readonly unexplainedG: number
  readonly prints: number
}

interface OnScale {
  readonly at: string
  readonly grossG: number
}

const took = (reel: Took['reels'][number]): number =>
  reel.beforeG !== undefined && reel.afterG !== undefined ? reel.beforeG - reel.afterG : reel.foretoldG

/** A reel's times on the scale, those of its record and those of its prints, the oldest first. A day's record stands at its noon. */
export function onScale({ key, weighings }: Pick<Spool, 'key' | 'weighings'>, prints: readonly Took[]): OnScale[] {
  const own = prints.flatMap(({ at, hours, reels }) =>
    reels
      .filter(({ spool }) => spool === key)
      .flatMap(({ beforeG, afterG }) => [
        ...(beforeG === undefined ? [] : [{ at: new Date(Date.parse(at) - hours * 3.6e6).toISOString(), grossG: beforeG }]),
        ...(afterG === undefined ? [] : [{ at, grossG: afterG }]),
      ]),
  )
  return [...weighings.map(({ on, grossG }) => ({ at: `${on}T12:00:00.000Z`, grossG })), ...own].sort((a, b) => a.at.localeCompare(b.at))
}

/** What happened to a reel between one time on the scale and the next, the newest first; only where something was gone. */
export function stretchesOf(spool: Pick<Spool, 'key' | 'weighings'>, prints: readonly Took[]): Stretch[] {
  const weighed = onScale(spool, prints)
  const own = prints.flatMap((print) =>
    print.reels.filter((reel) => reel.spool === spool.key).map((reel) => ({ at: print.at, grams: took(reel) })),
  )
  return weighed
    .slice(1)
    .flatMap(({ at: to, grossG }, i): Stretch[] => {
      const { at: from, grossG: before } = weighed[i]!
      const goneG = before - grossG
      const within = own.filter(({ at }) => at > from && at <= to)
      if (Math.abs(goneG) < 0.5 && within.length === 0) return []
      const printedG = within.reduce((sum, { grams }) => sum + grams, 0)
      return [{ from, to, goneG, printedG, unexplainedG: goneG - printedG, prints: within.length }]
    })
    .reverse()
}

/** A reel as it is by now: its last time on the scale, less what was printed since. The record itself is not touched. */
export function spoolNow<S extends Spool>(spool: S, prints: readonly Took[]): S {
  const end = prints.findLast(({ reels }) => reels.some((reel) => reel.spool === spool.key && reel.ranOut))
  const reelG = end?.reels.find((reel) => reel.spool === spool.key)?.afterG
  // A reel that ended tells what reels of its maker weigh; one that was weighed again since was filled anew.
  if (end && !spool.weighings.some(({ on }) => on > end.at.slice(0, 10)))
    return {
      ...spool,
      empty: true,
      weighings: reelG === undefined ? spool.weighings : [...spool.weighings, { on: end.at.slice(0, 10), grossG: reelG }],
    }
  const last = onScale(spool, prints).at(-1)
  if (!last) return spool
  const since = prints.flatMap(({ at, reels }) => (at > last.at ? reels.filter((reel) => reel.spool === spool.key) : []))
  const grossG = last.grossG - since.reduce((sum, reel) => sum + took(reel), 0)
  const isRecord = since.length === 0 && spool.weighings.at(-1)?.grossG === last.grossG
  return isRecord || !(grossG > 0) ? spool : { ...spool, weighings: [...spool.weighings, { on: last.at.slice(0, 10), grossG }] }
}

/** A nozzle with the hours and the abrasive grams of its prints added to what its record says. */
export function nozzleNow<N extends Nozzle>(nozzle: N, prints: readonly Took[]): N {
  const own = prints.filter((print) => print.nozzle === nozzle.key)
  if (own.length === 0) return nozzle
  const abrasive = own.filter(({ isAbrasive }) => isAbrasive).flatMap(({ reels }) => reels)
  return {
    ...nozzle,
    hoursRun: (nozzle.hoursRun ?? 0) + own.reduce((sum, { hours }) => sum + hours, 0),
    abrasiveGrams: (nozzle.abrasiveGrams ?? 0) + abrasive.reduce((sum, reel) => sum + took(reel), 0),
  }
}

/** Hours and money of a machine's prints. */
export const machineUse = (printer: string, prints: readonly Took[]): { prints: number; hours: number; cost: number } => {
  const own = prints.filter((print) => print.printer === printer)
  return { prints: own.length, hours: own.reduce((sum, { hours }) => sum + hours, 0), cost: own.reduce((sum, { cost }) => sum + cost, 0) }
}
