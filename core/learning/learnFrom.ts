import { z } from 'zod'
import { LYING, STANDING } from './bars'
import { conformal, EIGHTY } from './coverage'
import { narrowByWeight } from './flowFactor'
import { flowLine, withLadder } from './flowLine'
import { narrow } from './logNormal'
import { paceOf, timed } from './timed'

const positive = z.number().positive().max(1e9)
const list = <T extends z.ZodType>(of: T) => z.array(of).max(100_000).default([])

/** Evidence of one spool on one machine, as a list of each kind; units in the names, strengths MPa, shares 0–1. */
export const evidenceFileSchema = z.strictObject({
  printer: z.string().optional(),
  material: z.string().optional(),
  prints: list(z.object({ predictedS: positive, slope: z.number().min(0).max(1), actualS: positive })),
  weights: list(z.object({ predictedG: positive, actualG: positive })),
  ladders: list(z.object({ temperature: z.number().min(100).max(600), failsAt: positive })),
  barsLying: list(positive),
  barsStanding: list(z.number().positive().max(2)),
  scores: list(z.number().min(0).max(1e6)),
})
export type EvidenceFile = z.infer<typeof evidenceFileSchema>

/** What is thought before anything was read: medians with their spreads, as logarithms but for the start, s, and the slope. */
export interface Before {
  readonly failingFlowAt210: number
  readonly flowSpread: number
  readonly flowSlopePer10: number
  readonly slopeSpread: number
  readonly strengthWithin: number
  readonly strengthSpread: number
  readonly bond: number
  readonly bondSpread: number
  readonly accelerationSpread: number
  readonly paceSpread: number
  readonly startS: number
  readonly startSpread: number
  readonly flowFactorSpread: number
}

export interface LearnedConstant {
  readonly value: number
  /** On the scale of the value; of its logarithm where that scatters by shares. */
  readonly sd: number
  readonly low: number
  readonly high: number
  readonly basis: 'measured' | 'assumed'
  readonly from: string
}

/** What each list says about the constants that it reads, and how far 80 % ranges reach, in standard deviations. */
export function learnFrom({ prints, weights, ladders, barsLying, barsStanding, scores }: EvidenceFile, before: Before) {
  const pace = timed(
    paceOf([0, 0, before.startS], [before.accelerationSpread, before.paceSpread, before.startSpread]),
    prints.map((print) => ({ ...print, startS: 0 })),
  )
  const flow = narrowByWeight(
    { median: 1, spread: before.flowFactorSpread },
    weights.map(({ predictedG, actualG }) => ({ predictedG, weighedG: actualG })),
  )
  const line = ladders.reduce(
    (found, { temperature, failsAt }) => withLadder(found, { temperature, flow: failsAt }),
    flowLine(before.failingFlowAt210, before.flowSpread, before.flowSlopePer10, before.slopeSpread),
  )
  const strength = narrow({ median: before.strengthWithin, spread: before.strengthSpread }, { values: barsLying, ...LYING })
  const bond = narrow({ median: before.bond, spread: before.bondSpread }, { values: barsStanding, ...STANDING })
  const [clock, scale, steps] = [told(prints.length, 'print'), told(weights.length, 'weighing'), told(ladders.length, 'ladder')]
  return {
    constants: {
      accelerationFactorLn: plain(pace.mean[0], Math.sqrt(pace.covariance[0]!), clock),
      timeFactorLn: plain(pace.mean[1], Math.sqrt(pace.covariance[4]!), clock),
      startS: plain(pace.mean[2], Math.sqrt(pace.covariance[8]!), clock),
      flowFactorPercent: plain(100 * Math.log(flow.median), 100 * flow.spread, scale),
      failingFlowAt210: byShares(Math.exp(line.q), Math.sqrt(line.covariance[0]), steps),
      flowSlopePer10: plain(line.slope, Math.sqrt(line.covariance[2]), steps),
      strengthWithin: byShares(strength.median, strength.spread, told(barsLying.length, 'bar')),
      bond: byShares(bond.median, bond.spread, told(barsStanding.length, 'bar')),
    },
    q: conformal(scores)!,
  }
}

type Told = Pick<LearnedConstant, 'basis' | 'from'>
const told = (count: number, what: string): Told =>
  count === 0 ? { basis: 'assumed', from: 'the table' } : { basis: 'measured', from: `${count} ${what}${count === 1 ? '' : 's'}` }

const plain = (value: number, sd: number, from: Told): LearnedConstant => ({
  value,
  sd,
  low: value - EIGHTY * sd,
  high: value + EIGHTY * sd,
  ...from,
})
const byShares = (value: number, sd: number, from: Told): LearnedConstant => ({
  value,
  sd,
  low: value * Math.exp(-EIGHTY * sd),
  high: value * Math.exp(EIGHTY * sd),
  ...from,
})
