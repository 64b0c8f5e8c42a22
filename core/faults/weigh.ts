import { causesOf } from './faults'
import { factorOfResult, isRuledOut, strengthOf, type Tried, type TryResult, triesOf } from './outcomes'
import type { Cause } from './spec/cause'
import type { Fault } from './spec/fault'
import type { Scene } from './spec/scene'
import { questions } from './table/questions'

/** Answers by the ids of their questions. */
export type Answers = Readonly<Record<string, string>>

export interface Factor {
  readonly what: string
  readonly factor: number
  readonly basis: string
  readonly of: 'practice' | 'print' | 'answer' | 'try'
}

/** A cause with all that speaks for and against it. */
export interface Weighed {
  readonly cause: Cause
  /** Share of all odds, 0–1: causes that are not in the list count as one more, see `ELSE`. */
  readonly share: number
  /** To one. */
  readonly odds: number
  readonly factors: readonly Factor[]
  /** A change as strong as there is did nothing, or any made it worse. */
  readonly ruledOut: boolean
}

/** Each cause begins with so much of the one before it in the order of practice; assumed. */
const ORDER = 0.85
/** Something that is not in the list, against the first of it; assumed. */
const ELSE = 0.15
/** Each print more in a row that confirms it; assumed. */
const AGAIN = 2

const triedWords: Readonly<Record<TryResult, string>> = {
  fixed: 'a change for it made the fault go away',
  better: 'a change for it helped',
  same: 'a change for it did nothing',
  worse: 'a change for it made it worse',
  another: 'a change for it brought another fault',
}

/** Causes of a fault, the likeliest first; ties in the order of practice. Factors multiply, so the order of answers does not matter. */
export function weigh(fault: Fault, scene: Scene, answers: Answers, tried: readonly Tried[]): Weighed[] {
  const weights = causesOf(fault).map((cause, place) => {
    const factors = factorsOf(cause, fault.unranked ? 0 : place, scene, answers, tried)
    return { cause, factors, weight: factors.reduce((product, { factor }) => product * factor, 1) }
  })
  const sum = weights.reduce((total, { weight }) => total + weight, ELSE)
  return weights
    .map(({ cause, factors, weight }) => ({
      cause,
      share: weight / sum,
      odds: weight / (sum - weight),
      factors,
      ruledOut: isRuledOut(cause, tried),
    }))
    .sort((a, b) => b.share - a.share)
}

/** What the print itself says. Of clues about one thing the one that says most counts; the others stand beside it and say nothing more. */
function printed({ clues }: Cause, scene: Scene): Factor[] {
  const said = clues.flatMap(({ basis, about, read }) => {
    const found = read(scene)
    return found ? [{ ...found, basis, about }] : []
  })
  const weight = (factor: number): number => Math.abs(Math.log(factor))
  return said.map(({ about, ...one }, place): Factor => {
    const isSaid =
      about !== undefined &&
      said.some(
        (other, at) =>
          other.about === about &&
          (weight(other.factor) > weight(one.factor) || (weight(other.factor) === weight(one.factor) && at < place)),
      )
    return isSaid ? { ...one, what: `${one.what} (the same thing, counted once)`, factor: 1, of: 'print' } : { ...one, of: 'print' }
  })
}

function factorsOf(cause: Cause, place: number, scene: Scene, answers: Answers, tried: readonly Tried[]): Factor[] {
  const practice: Factor[] =
    place === 0
      ? []
      : [
          {
            what: `number ${place + 1} in the order of practice`,
            factor: ORDER ** place,
            basis: 'common practice; step assumed',
            of: 'practice',
          },
        ]
  const print = printed(cause, scene)
  const answered = questions.flatMap(({ id, asks, answers: possible, basis }): Factor[] => {
    const answer = possible[answers[id] ?? '']
    const factor = answer?.factors[cause.id]
    return answer && factor !== undefined ? [{ what: `${asks} ${answer.words}`, factor, basis, of: 'answer' }] : []
  })
  const outcomes = triesOf(cause, tried).map(({ one: { did, times = 1, elsewhere }, remedy }): Factor => {
    const isGood = did === 'fixed' || did === 'better'
    const factor = factorOfResult(remedy ? strengthOf(cause, remedy) : 'full', did) * (isGood ? AGAIN ** (times - 1) : 1)
    return {
      what: `${triedWords[did]}${times > 1 ? `, ${times} prints in a row` : ''}${elsewhere === undefined ? '' : `, in the case of ${elsewhere}`}`,
      // Another part is another print: half of what it says, on the scale of odds.
      factor: elsewhere === undefined ? factor : Math.sqrt(factor),
      basis: 'assumed',
      of: 'try',
    }
  })
  return [...practice, ...print, ...answered, ...outcomes]
}
