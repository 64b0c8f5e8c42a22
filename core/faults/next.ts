import type { SettingValues } from '../profile/settings'
import { chances, type Strength, strengthOf, type Tried, triesOf, tryResults } from './outcomes'
import { type Cause, changeBy, type Remedy } from './spec/cause'
import type { Fault, Question } from './spec/fault'
import type { Scene } from './spec/scene'
import { questions } from './table/questions'
import { type Answers, type Weighed, weigh } from './weigh'

/** At most so many are asked of one case. */
export const MOST_QUESTIONS = 3
/** What an answer must tell at least to be worth asking for, bits. */
const LEAST_BITS = 0.03

export interface Ask {
  readonly question: Question
  /** What its answer is expected to tell, bits. */
  readonly bits: number
}

const entropy = (shares: readonly number[]): number => {
  const rest = Math.max(0, 1 - shares.reduce((sum, share) => sum + share, 0))
  return [...shares, rest].reduce((sum, share) => (share > 0 ? sum - share * Math.log2(share) : sum), 0)
}

/** Questions that are still open, the one that would tell most first; none once three were answered. */
export function asksOf(fault: Fault, scene: Scene, answers: Answers, tried: readonly Tried[]): Ask[] {
  if (Object.keys(answers).length >= MOST_QUESTIONS) return []
  const now = weigh(fault, scene, answers, tried)
  const before = entropy(now.map(({ share }) => share))
  return questions
    .filter(({ id, of }) => answers[id] === undefined && (of === undefined || of.includes(fault.id)))
    .map((question) => ({ question, bits: before - expectedAfter(now, question) }))
    .filter(({ bits }) => bits >= LEAST_BITS)
    .sort((a, b) => b.bits - a.bits)
}

/** Entropy that is left on average, bits: an answer comes as often as the causes that bring it are likely. */
function expectedAfter(now: readonly Weighed[], { answers }: Question): number {
  const options = Object.values(answers)
  const likelihood = (cause: Cause, option: (typeof options)[number]): number => {
    const all = options.map(({ factors }) => factors[cause.id] ?? 1)
    return (option.factors[cause.id] ?? 1) / all.reduce((sum, factor) => sum + factor, 0)
  }
  const restShare = Math.max(0, 1 - now.reduce((sum, { share }) => sum + share, 0))
  return options.reduce((left, option) => {
    const joint = now.map(({ cause, share }) => share * likelihood(cause, option))
    const rest = restShare / options.length
    const sum = joint.reduce((total, share) => total + share, rest)
    return sum === 0 ? left : left + sum * entropy(joint.map((share) => share / sum))
  }, 0)
}

/** One thing to do next, and for which cause. */
export interface Next {
  readonly cause: Cause
  readonly remedy: Remedy
  /** What it changes of the candidate; absent where it is done by hand or is a trial. */
  readonly values?: SettingValues
  /** What its outcome is expected to tell, bits, and what that takes, min and g. */
  readonly bits: number
  readonly minutes: number
  readonly grams: number
}

/** What a try costs, as minutes: its time, and its filament beside it. */
const costOf = ({ minutes, grams, remedy: { waits = 0 } }: Next): number => minutes - waits + WAITING * waits + MINUTES_PER_GRAM * grams

/** A trial takes about so long, min; assumed, its own plan tells better. */
const TRIAL_MINUTES = 45
/** Work by hand without a time of its own, min; assumed. */
const HAND_MINUTES = 15
/** Preparing a print, min; assumed. */
const SET_UP_MINUTES = 5
/** Filament of a trial, g; assumed, as its time. */
const TRIAL_GRAMS = 12
/** What a gram is worth beside a minute: at 20 a kilogram, and 1.20 an hour of one's evening, as much. Assumed. */
const MINUTES_PER_GRAM = 1
/** What a minute counts in which nothing is to be done and the printer is free. Assumed. */
const WAITING = 0.1

/**
 * What could be tried, the best first: bits for what they cost in minutes and grams, where a change is printed once. Only one thing at a time, and nothing that was
 * ruled out. Ties stay in the order of practice.
 */
export function nextOf(fault: Fault, scene: Scene, answers: Answers, tried: readonly Tried[]): Next[] {
  const weighed = weigh(fault, scene, answers, tried)
  const printMinutes = scene.prediction.timeS / 60 + SET_UP_MINUTES
  return weighed
    .filter(({ ruledOut }) => !ruledOut)
    .flatMap(({ cause, share }): Next[] => {
      const done = triesOf(cause, tried).map(({ remedy }) => remedy)
      const open = cause.remedies
        .filter((remedy) => !done.includes(remedy))
        .flatMap((remedy): { readonly remedy: Remedy; readonly values?: SettingValues }[] => {
          if (!remedy.change) return [{ remedy }]
          const values = changeBy(remedy, scene)
          return values ? [{ remedy, values }] : []
        })
      // The mildest change that is left, and a trial beside it.
      const change = open.find(({ remedy }) => !remedy.trial)
      const trial = open.find(({ remedy }) => remedy.trial)
      return [change, trial].flatMap((one): Next[] => {
        if (!one) return []
        const { minutes, waits = 0, trial: isTrial } = one.remedy
        return [
          {
            cause,
            ...one,
            bits: bitsOf(share, strengthOf(cause, one.remedy)),
            minutes: isTrial ? TRIAL_MINUTES : (minutes ?? (one.values ? 0 : HAND_MINUTES)) + waits + printMinutes,
            grams: isTrial ? TRIAL_GRAMS : scene.prediction.filament.massG,
          },
        ]
      })
    })
    .sort((a, b) => b.bits / costOf(b) - a.bits / costOf(a))
}

/**
 * What a try is expected to tell of its cause, bits: by how much less open it is afterwards whether that is the one. Beyond even odds one tries
 * to mend it, not to learn: no less than at even odds.
 */
function bitsOf(share: number, strength: Strength): number {
  const p = Math.min(share, 0.5)
  const { ifIt, ifNot } = chances[strength]
  return tryResults.reduce(
    (bits, did) => {
      const [it, not] = [p * ifIt[did], (1 - p) * ifNot[did]]
      return bits - (it + not) * entropy([it / (it + not)])
    },
    entropy([p]),
  )
}
