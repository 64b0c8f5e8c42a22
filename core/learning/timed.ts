import { studentWeight } from './logNormal'

/** A print by the clock. */
export interface TimedPrint {
  /** What was foretold for its moves with nothing known of the machine, s. */
  readonly predictedS: number
  /** By how much that shrinks as acceleration grows: −∂ln T/∂ln a, by planning again. */
  readonly slope: number
  /** What was foretold for heating, homing and purging, s. */
  readonly startS: number
  /** From the press of start to its last move, s. */
  readonly actualS: number
}

/**
 * What is thought of a machine's pace: T = start + T̂·e^(c − S·ln g). Means of ln g, of c and of what the start takes beyond what was
 * foretold, s; and their covariance, row by row.
 */
export interface Pace {
  readonly mean: readonly [lnG: number, c: number, startS: number]
  readonly covariance: readonly number[]
}

/** What clocks of like prints scatter by: a share of the moves, and seconds. Assumed. */
export const TIME_NOISE = 0.015
const CLOCK_S = 5
const ROUNDS = 100
const STILL = 1e-10

/** What is thought before any print was timed, from three spreads that are independent. */
export const paceOf = (mean: Pace['mean'], spreads: readonly [number, number, number]): Pace => ({
  mean,
  covariance: [spreads[0] ** 2, 0, 0, 0, spreads[1] ** 2, 0, 0, 0, spreads[2] ** 2],
})

/**
 * A machine's pace after prints were timed: the most likely one by Gauss and Newton, each print with the weight of Student's
 * distribution (Lange, Little and Taylor 1989), so that one pause of an hour among others says little; the covariance is what the
 * curvature there leaves (Laplace). Worked out from all prints at once, whose order says nothing.
 */
export function timed(before: Pace, prints: readonly TimedPrint[]): Pace {
  if (prints.length === 0) return before
  const prior = inverse(before.covariance)
  let mean = [...before.mean]
  for (let round = 0; round < ROUNDS; round++) {
    const { curvature, pull } = normalEquations(mean, before, prior, prints)
    const step = times(inverse(curvature), pull)
    mean = mean.map((value, i) => value + step[i]!)
    if (step.every((own, i) => Math.abs(own) <= STILL * (1 + Math.abs(mean[i]!)))) break
  }
  return { mean: mean as unknown as Pace['mean'], covariance: inverse(normalEquations(mean, before, prior, prints).curvature) }
}

/** What is foretold for a print as the machine is thought to be, s. */
export const timeAt = ([lnG, c, more]: Pace['mean'], { predictedS, slope, startS }: Omit<TimedPrint, 'actualS'>): number =>
  startS + more + predictedS * Math.exp(c - slope * lnG)

/** Sums over all prints, each in its own number: a log may be long. */
function normalEquations([lnG, c, more]: readonly number[], before: Pace, prior: readonly number[], prints: readonly TimedPrint[]) {
  const mean = [lnG!, c!, more!]
  const pull = times(
    prior,
    before.mean.map((value, i) => value - mean[i]!),
  )
  let [gg, gc, gs, cc, cs, ss] = [prior[0]!, prior[1]!, prior[2]!, prior[4]!, prior[5]!, prior[8]!]
  let [toG, toC, toS] = pull as [number, number, number]
  for (const { predictedS, slope, startS, actualS } of prints) {
    const moves = predictedS * Math.exp(c! - slope * lnG!)
    const missed = actualS - startS - more! - moves
    const noise = Math.sqrt((TIME_NOISE * moves) ** 2 + CLOCK_S ** 2)
    const worth = studentWeight(missed / noise) / noise ** 2
    const byG = -slope * moves
    gg += worth * byG * byG
    gc += worth * byG * moves
    gs += worth * byG
    cc += worth * moves * moves
    cs += worth * moves
    ss += worth
    toG += worth * byG * missed
    toC += worth * moves * missed
    toS += worth * missed
  }
  return { curvature: [gg, gc, gs, gc, cc, cs, gs, cs, ss], pull: [toG, toC, toS] }
}

const times = (matrix: readonly number[], vector: readonly number[]): number[] =>
  [0, 1, 2].map((i) => matrix[3 * i]! * vector[0]! + matrix[3 * i + 1]! * vector[1]! + matrix[3 * i + 2]! * vector[2]!)

/** Of a symmetric matrix of three rows, by its cofactors. */
function inverse(m: readonly number[]): number[] {
  const [a, b, c, , d, e, , , f] = m as [number, number, number, number, number, number, number, number, number]
  const [A, B, C] = [d * f - e * e, c * e - b * f, b * e - c * d]
  const determinant = a * A + b * B + c * C
  const [D, E, F] = [a * f - c * c, b * c - a * e, a * d - b * b]
  return [A, B, C, B, D, E, C, E, F].map((value) => value / determinant)
}
