import type { Prediction } from '@sable/core/pipeline/predict'
import { setKey } from '@sable/core/steps/trail'
import { useEffect, useMemo, useRef, useState } from 'react'
import { type Tried, useTried } from '../../predictions/useTried'
import type { PredictRequest } from '../../predictions/worker/request'

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
  const known = useRef({ ends, found: new Map<string, Tried>() })
  if (known.current.ends !== ends) known.current = { ends, found: new Map() }
  const { found } = known.current
  const keys = [...new Set(wanted.map(setKey))]
  const missing = keys.filter((key) => !found.has(key)).join('|')
  const [, redraw] = useState(0)
  // The list is the same for as long as the same sets of the same candidates are asked for.
  // biome-ignore lint/correctness/useExhaustiveDependencies: `keys` and `requestFor` follow from the others.
  const asked = useMemo(() => {
    const fresh = keys.filter((key) => !found.has(key))
    const requests = fresh.map((key) => requestFor(new Set(key === '' ? [] : key.split('+'))))
    return {
      keys: fresh.filter((_, i) => requests[i] !== undefined),
      requests: requests.filter((request): request is PredictRequest => request !== undefined),
    }
  }, [ends, keys.join('|')])
  const tried = useTried(asked.requests)
  useEffect(() => {
    let more = false
    for (const [i, key] of asked.keys.entries()) {
      const answer = tried[i]
      if (!answer || found.has(key)) continue
      found.set(key, answer)
      more = true
    }
    if (more) redraw((n) => n + 1)
  }, [tried, asked, found])
  return {
    of: (taken) => found.get(setKey(taken)),
    done: keys.length - (missing === '' ? 0 : missing.split('|').length),
    wanted: keys.length,
  }
}

export const predictionOf = (sets: Sets, taken: ReadonlySet<string>): Prediction | undefined => sets.of(taken)?.prediction
