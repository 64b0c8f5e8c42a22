import type { LimitName, Purpose } from '../physics/strength/purpose'
import type { Prediction } from '../pipeline/predict'
import { limitedBy } from './figures'

export interface Judgement {
  readonly limit: LimitName
  readonly wanted: number
  readonly has: number
  readonly met: boolean
}

/** How a candidate stands to each limit that is set. */
export function judge(p: Prediction, purpose: Purpose): Judgement[] {
  return (Object.entries(purpose.limits) as [LimitName, number | undefined][]).flatMap(([limit, wanted]) => {
    if (wanted === undefined) return []
    const { value, better } = limitedBy(limit)
    const has = value(p, purpose)
    return [{ limit, wanted, has, met: better === 'less' ? has <= wanted : has >= wanted }]
  })
}
