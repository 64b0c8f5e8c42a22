import type { Prediction } from '@sable/core/pipeline/predict'
import { setKey, setOfKey } from '@sable/core/steps/trail'
import { type Tried, useTried } from '../../predictions/useTried'
import type { PredictRequest } from '../../predictions/worker/request'
import { useAskedOnce } from './useAskedOnce'

export interface Sets {
  /** What a set of steps gives: nothing yet, or that it cannot be printed. */
  readonly of: (taken: ReadonlySet<string>) => Tried | undefined
  readonly done: number
  readonly wanted: number
}

/**
 * Predictions of sets of steps, each computed once, however the steps are ordered.
 *
 * @param ends names the two candidates and the part: what is known is forgotten when they change
 */
export function useSets(
  ends: string,
  wanted: readonly ReadonlySet<string>[],
  requestFor: (taken: ReadonlySet<string>) => PredictRequest | undefined,
): Sets {
  const keys = [...new Set(wanted.map(setKey))]
  const found = useAskedOnce(ends, keys, (key) => requestFor(setOfKey(key)), useTried)
  return {
    of: (taken) => found.get(setKey(taken)),
    done: keys.filter((key) => found.has(key)).length,
    wanted: keys.length,
  }
}

export const predictionOf = (sets: Sets, taken: ReadonlySet<string>): Prediction | undefined => sets.of(taken)?.prediction
