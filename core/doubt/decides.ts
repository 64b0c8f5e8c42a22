import type { ConstantId } from '../constants/constants'
import { type FigureId, figureIds } from '../figures/table/figure'
import { EIGHTY } from '../learning/coverage'
import { knownOf } from '../setup/knownSetup'
import type { Doubtful } from './doubt'

/** A candidate whose figures are in doubt. */
export interface Weighed {
  readonly name: string
  readonly values: Readonly<Partial<Record<FigureId, number>>>
  readonly doubtful: Doubtful
  /** Least or most that is wanted of a figure. */
  readonly limits?: Readonly<Partial<Record<FigureId, number>>>
}

/** A choice that is open now and settled once something is measured: which of two is better, or whether a limit is kept. */
export type Decided =
  | { readonly figure: FigureId; readonly between: readonly [string, string] }
  | { readonly figure: FigureId; readonly limitOf: string }

/**
 * What a measurement would decide: pairs whose order lies within the 80 % range of their difference now, and beyond it afterwards;
 * and limits that are within the range of a figure. What two candidates have in common cancels out of their difference.
 *
 * @param measured constants that it reads, each with what that would leave
 */
export function decidedBy(candidates: readonly Weighed[], measured: ReadonlyMap<ConstantId, number>): Decided[] {
  const found: Decided[] = []
  for (const figure of figureIds) {
    candidates.forEach((one, i) => {
      const value = one.values[figure]
      if (value === undefined || !(value > 0)) return
      const limit = one.limits?.[figure]
      if (limit !== undefined && settles(Math.abs(Math.log(value / limit)), figure, measured, one.doubtful))
        found.push({ figure, limitOf: one.name })
      for (const other of candidates.slice(i + 1)) {
        const theirs = other.values[figure]
        if (theirs === undefined || !(theirs > 0)) continue
        if (settles(Math.abs(Math.log(value / theirs)), figure, measured, one.doubtful, other.doubtful))
          found.push({ figure, between: [one.name, other.name] })
      }
    })
  }
  return found
}

const settles = (apart: number, figure: FigureId, measured: ReadonlyMap<ConstantId, number>, one: Doubtful, other?: Doubtful): boolean =>
  apart > 1e-6 && apart < doubtOfDifference(figure, one, other) && apart >= doubtOfDifference(figure, one, other, measured)

/** Half the width of the 80 % range of the logarithm of two figures' ratio, or of one figure. */
function doubtOfDifference(
  figure: FigureId,
  one: Doubtful,
  other: Doubtful | undefined,
  measured: ReadonlyMap<ConstantId, number> = new Map(),
): number {
  const ids = new Set([...Object.keys(one.slopes), ...Object.keys(other?.slopes ?? {})] as ConstantId[])
  let squares = 0
  for (const id of ids) {
    const spread = (of: Doubtful): number => Math.min(measured.get(id) ?? Infinity, knownOf(of.setup, id).spread)
    const own = (one.slopes[id]?.[figure] ?? 0) * spread(one)
    const theirs = other ? (other.slopes[id]?.[figure] ?? 0) * spread(other) : 0
    squares += (own - theirs) ** 2
  }
  return EIGHTY * Math.sqrt(squares)
}
