import { median } from 'd3-array'
import { wilson } from '../learning/coverage'
import { results } from './outcome'

/** A print as it is looked back upon. */
export interface Past {
  readonly state: string
  readonly timeS: number
  readonly massG: number
  readonly cost: number
  readonly heightMm: number
  readonly actualS?: number | undefined
  readonly weighedG?: number | undefined
  readonly atZ?: number | undefined
  readonly leftOut: boolean
}

/** Prints of one printer, spool or profile, together. */
export interface PastGroup {
  readonly key: string
  readonly prints: number
  /** Those that are of use, of all that ended, with a 95 % interval. */
  readonly success: { readonly of: number; readonly good: number; readonly share: number; readonly range: readonly [number, number] }
  /** Medians of real over foretold; undefined where nothing was timed or weighed. */
  readonly time: number | undefined
  readonly mass: number | undefined
  readonly hours: number
  readonly grams: number
  /** Of what was thrown away: the share of its height that a failed print had reached, or all of it where that is not known. */
  readonly lostCost: number
  readonly lostG: number
}

/** Groups prints that ended by a key, the most printed first. */
export function lookBack<P extends Past>(prints: readonly P[], keyOf: (print: P) => string | undefined): PastGroup[] {
  const groups = new Map<string, P[]>()
  for (const print of prints) {
    const key = keyOf(print)
    if (key === undefined || !hasEnded(print)) continue
    groups.set(key, [...(groups.get(key) ?? []), print])
  }
  return [...groups].map(([key, own]) => together(key, own)).sort((a, b) => b.prints - a.prints || a.key.localeCompare(b.key))
}

export const hasEnded = ({ state }: Pick<Past, 'state'>): boolean => (results as readonly string[]).includes(state)
const isOfUse = ({ state }: Pick<Past, 'state'>): boolean => state === 'good' || state === 'usable'

function together(key: string, prints: readonly Past[]): PastGroup {
  const good = prints.filter(isOfUse).length
  const counted = prints.filter((print) => isOfUse(print) && !print.leftOut)
  const ratios = (of: (print: Past) => number | undefined) => {
    const all = counted.flatMap((print) => of(print) ?? [])
    return all.length === 0 ? undefined : median(all)
  }
  const lost = prints.filter((print) => !isOfUse(print))
  return {
    key,
    prints: prints.length,
    success: { of: prints.length, good, share: good / prints.length, range: wilson(good, prints.length) },
    time: ratios(({ actualS, timeS }) => actualS && actualS / timeS),
    mass: ratios(({ weighedG, massG }) => weighedG && weighedG / massG),
    hours: prints.reduce((sum, print) => sum + (print.actualS ?? reached(print) * print.timeS), 0) / 3600,
    grams: prints.reduce((sum, print) => sum + (print.weighedG ?? reached(print) * print.massG), 0),
    lostCost: lost.reduce((sum, print) => sum + reached(print) * print.cost, 0),
    lostG: lost.reduce((sum, print) => sum + (print.weighedG ?? reached(print) * print.massG), 0),
  }
}

/** Share of a print that was made. */
const reached = (print: Past): number =>
  isOfUse(print) || print.atZ === undefined || print.heightMm === 0 ? 1 : Math.min(1, print.atZ / print.heightMm)
