import type { LimitName, Purpose } from '../physics/strength/purpose'
import type { Prediction } from '../pipeline/predict'
import { limitedBy } from './figures'

export interface Judgement {
  readonly limit: LimitName
  readonly wanted: number
  readonly has: number
  readonly met: boolean
  /** Whether there is a number at all: a load that no model is fit for has none, and is neither kept nor missed. */
  readonly known: boolean
}

/** "misses strength", "time not known"; nothing where all limits are kept. */
export const missedWords = (judged: readonly Judgement[]): readonly string[] =>
  judged
    .filter(({ met }) => !met)
    .map(({ limit, known }) => (known ? `misses ${limitedBy(limit).noun}` : `${limitedBy(limit).noun} not known`))

/** How a candidate stands to each limit that is set. */
export function judge(p: Prediction, purpose: Purpose): Judgement[] {
  return (Object.entries(purpose.limits) as [LimitName, number | undefined][]).flatMap(([limit, wanted]) => {
    if (wanted === undefined) return []
    const { value, better } = limitedBy(limit)
    const has = value(p, purpose)
    return [{ limit, wanted, has, met: better === 'less' ? has <= wanted : has >= wanted, known: !Number.isNaN(has) }]
  })
}
