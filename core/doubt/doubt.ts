import { type ConstantId, constantIds, constantOf } from '../constants/constants'
import { type FigureId, figureIds } from '../figures/table/figure'
import { EIGHTY } from '../learning/coverage'
import { TIME_NOISE } from '../learning/timed'
import { knownOf } from '../setup/knownSetup'
import type { Setup } from '../setup/resolve'
import type { Slopes } from './slopes'

/** What the doubt of a candidate's figures is made of. */
export interface Doubtful {
  readonly slopes: Slopes
  readonly setup: Pick<Setup, 'material' | 'known' | 'linked' | 'coverage'>
}

/**
 * What prints of one and the same thing scatter by, and what a model misses of itself, as logarithms: how a clock and a scale differ
 * from print to print; forms of the strength model. Assumed.
 */
const OWN_DOUBT: Readonly<Partial<Record<FigureId, number>>> = { time: TIME_NOISE, unslowed: TIME_NOISE, filament: 0.01, strength: 0.15 }

/** Standard deviations that the 80 % range of a figure reaches to either side. */
export const reachOf = (figure: FigureId, { setup }: Doubtful): number =>
  (setup.coverage as Readonly<Partial<Record<FigureId, number>>> | undefined)?.[figure] ?? EIGHTY

/** Standard deviation that a constant adds to a figure, as the logarithm, with its sign. */
const partOf = (id: ConstantId, figure: FigureId, { slopes, setup }: Doubtful, most = Infinity): number =>
  (slopes[id]?.[figure] ?? 0) * Math.min(most, knownOf(setup, id).spread)

/**
 * Standard deviation of a figure, as the logarithm: what its constants scatter by, combined by the root of squares, with what those
 * have in common that were read together; and what prints and the model scatter by of themselves.
 *
 * @param measured constants that are thought of as read, each with what that would leave
 */
export function spreadOf(figure: FigureId, of: Doubtful, measured: ReadonlyMap<ConstantId, number> = new Map()): number {
  let squares = (OWN_DOUBT[figure] ?? 0) ** 2
  for (const id of Object.keys(of.slopes) as ConstantId[]) squares += partOf(id, figure, of, measured.get(id)) ** 2
  for (const { of: pair, covariance } of of.setup.linked ?? []) {
    const [one, other] = pair.map((id) => of.slopes[id]?.[figure] ?? 0) as [number, number]
    if (!pair.some((id) => measured.has(id))) squares += 2 * one * other * covariance
  }
  return Math.sqrt(squares)
}

/** Half the width of a figure's 80 % range, as the logarithm: as wide as prints of the log have shown that it must be. */
export const doubt = (figure: FigureId, of: Doubtful, measured?: ReadonlyMap<ConstantId, number>): number =>
  reachOf(figure, of) * spreadOf(figure, of, measured)

/** Smallest and largest value that a figure may well have: its 80 % range. */
export const rangeOf = (value: number, by: number): readonly [number, number] => [value * Math.exp(-by), value * Math.exp(by)]

/** A constant that a figure rests on: what it contributes, and who says so where it was read. */
export interface Rested {
  readonly id: ConstantId
  readonly label: string
  readonly share: number
  readonly from?: string | undefined
}

/** Constants that a figure rests on, most telling first. */
export const doubtsOf = (figure: FigureId, of: Doubtful): Rested[] =>
  constantIds
    .map((id) => ({
      id,
      label: constantOf(id).label,
      share: reachOf(figure, of) * Math.abs(partOf(id, figure, of)),
      from: knownOf(of.setup, id).from,
    }))
    .filter(({ share }) => share > 1e-3)
    .sort((a, b) => b.share - a.share)

export interface Measurement {
  /** What to do. */
  readonly how: string
  /** What it tells. */
  readonly label: string
  /** Share of the doubt of all figures of the lineup that it would remove, 0–1. */
  readonly removes: number
  /** Constants that it reads, each with what that would leave to doubt. */
  readonly reads: ReadonlyMap<ConstantId, number>
}

/** Tests that there are, each with the constants that it reads. */
const tests: ReadonlyMap<string, readonly ConstantId[]> = constantIds.reduce((by, id) => {
  const how = constantOf(id).measure?.how
  return how === undefined ? by : by.set(how, [...(by.get(how) ?? []), id])
}, new Map<string, ConstantId[]>())

/** What to measure next: most worth first, over all candidates and figures alike. Nothing that is already known. */
export function whatToMeasure(candidates: readonly Doubtful[]): Measurement[] {
  const sum = (measured?: ReadonlyMap<ConstantId, number>): number =>
    candidates.reduce((all, of) => all + figureIds.reduce((own, figure) => own + doubt(figure, of, measured), 0), 0)
  const total = sum()
  if (total === 0) return []
  return [...tests]
    .map(([how, ids]) => {
      const reads = new Map(ids.map((id) => [id, constantOf(id).measure!.leaves]))
      const left = sum(reads)
      // Of what one test tells, whatever matters most here names it.
      const told = ids.reduce((most, id) => (weightOf(id, candidates) > weightOf(most, candidates) ? id : most))
      return { how, label: constantOf(told).label, removes: (total - left) / total, reads }
    })
    .filter(({ removes }) => removes > 1e-6)
    .sort((a, b) => b.removes - a.removes)
}

const weightOf = (id: ConstantId, candidates: readonly Doubtful[]): number =>
  candidates.reduce((all, of) => all + figureIds.reduce((own, figure) => own + Math.abs(partOf(id, figure, of)), 0), 0)
