import { conformal, scoreOf } from '../learning/coverage'
import { flowAt, flowLine, LADDER_NOISE, withLadder } from '../learning/flowLine'
import { narrow } from '../learning/logNormal'
import { paceOf, type TimedPrint, timeAt, timed } from '../learning/timed'
import { seeded } from '../units/seeded'

/** How far off what was learned is in one world, as logarithms; and what its 80 % ranges held of prints that were foretold before they were made. */
export interface Learnt {
  /** Of the time of a print that was never made, after five that were timed. */
  readonly time: number
  /** Of the failing flow, after two ladders. */
  readonly flow: number
  /** Of the strength along lines, after three bars. */
  readonly strength: number
  readonly held: readonly boolean[]
}

const PRINTS = 5
/** Prints of which it is asked whether their range held them. */
const JUDGED = 12
/** How the world is: spreads of what is hidden, and what clocks, ladders and bars scatter by. One print in twenty pauses. */
const SPREADS = [0.2, 0.04, 60] as const
const [START, CLOCK, PAUSED] = [150, 0.012, 0.05]
const FLOW = { median: 25.6, spread: 0.2, slope: 0.26, slopeSpread: 0.06 }
const STRENGTH = { median: 50, spread: 0.2 }
const [BAR, BATCH, FLAWED] = [0.1, 0.05, 0.05]

/** A workshop whose truth is drawn from what is thought of workshops, and what is learned in it by the log alone. */
export function learnIn(seed: number): Learnt {
  const random = seeded(seed)
  const normal = (): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
  const truth = [SPREADS[0] * normal(), SPREADS[1] * normal(), START + SPREADS[2] * normal()] as const
  const before = paceOf([0, 0, START], SPREADS)
  const draw = () => ({ predictedS: 600 * Math.exp(2.5 * random()), slope: 0.05 + 0.4 * random(), startS: 0 })
  const printed = (): TimedPrint => {
    const print = draw()
    const pause = random() < PAUSED ? 1.05 + 0.25 * random() : 1
    return { ...print, actualS: timeAt(truth, print) * Math.exp(CLOCK * normal()) * pause }
  }
  const prints = Array.from({ length: PRINTS }, printed)
  const next = draw()
  const time = Math.abs(Math.log(timeAt(timed(before, prints).mean, next) / timeAt(truth, next)))

  const held: boolean[] = []
  const scores: number[] = []
  const log: TimedPrint[] = []
  for (let i = 0; i < JUDGED; i++) {
    const known = timed(before, log)
    const print = printed()
    const foretold = timeAt(known.mean, print)
    const spread = spreadOf(known.covariance, print, foretold)
    const score = scoreOf(print.actualS, foretold, spread)
    if (i >= PRINTS) held.push(score <= conformal(scores)!)
    scores.push(score)
    log.push(print)
  }

  const [q, slope] = [Math.log(FLOW.median) + FLOW.spread * normal(), FLOW.slope + FLOW.slopeSpread * normal()]
  const failing = (temperature: number): number => Math.exp(q + (slope * (temperature - 210)) / 10)
  const line = [205, 220].reduce(
    (found, temperature) => withLadder(found, { temperature, flow: failing(temperature) * Math.exp(LADDER_NOISE * 0.6 * normal()) }),
    flowLine(FLOW.median, FLOW.spread, FLOW.slope, FLOW.slopeSpread),
  )
  const flow = Math.abs(Math.log(flowAt(line, 215).median / failing(215)))

  const strong = STRENGTH.median * Math.exp(STRENGTH.spread * normal())
  const batch = BATCH * normal()
  const bars = [1, 2, 3].map(() => strong * Math.exp(BAR * normal() + batch) * (random() < FLAWED ? 0.65 : 1))
  const strength = Math.abs(Math.log(narrow(STRENGTH, { values: bars, noise: BAR, batch: BATCH }).median / strong))
  return { time, flow, strength, held }
}

/** Spread of what a clock will say, as a logarithm: what is known, and what clocks scatter by. */
function spreadOf(covariance: readonly number[], { predictedS, slope }: TimedPrint, foretold: number): number {
  const moves = predictedS
  const slopes = [-slope * moves, moves, 1].map((own) => own / foretold)
  let squares = 0.015 ** 2
  for (let i = 0; i < 3; i++) for (let j = 0; j < 3; j++) squares += slopes[i]! * slopes[j]! * covariance[3 * i + j]!
  return Math.sqrt(squares)
}

/** The value below which such a share of all lies. */
export const quantile = (values: readonly number[], share: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(share * values.length))]!
