import type { Candidate, LineupContent } from '@sable/contract/lineup'
import type { StoredPart } from '@sable/contract/part'
import type { Shelf } from '@sable/contract/shelf'
import type { DrawnMoves } from '@sable/core/drawnMoves'
import type { Prediction } from '@sable/core/predict'
import { useEffect, useMemo, useState } from 'react'
import { keyOf, predictionPool, requestFor, useForecasts } from './predictionStore'

/** A candidate with its figures and, when they are there, all its moves. */
export interface Drawn {
  readonly candidate: Candidate
  readonly prediction: Prediction | undefined
  readonly moves: DrawnMoves | undefined
  readonly failed: string | undefined
}

/** Moves are large: only those that were looked at last are kept. */
const MOST_KEPT = 4
const kept = new Map<string, DrawnMoves>()

/** The moves of a candidate as it stands now; what was drawn before stays until then. */
export function useMoves(candidate: Candidate | undefined, content: LineupContent, part: StoredPart, shelf: Shelf): Drawn | undefined {
  const forecast = useForecasts((all) => (candidate ? all[candidate.id] : undefined))
  const request = useMemo(() => candidate && requestFor(candidate, content, part, shelf), [candidate, content, part, shelf])
  const key = request && keyOf(request)
  const [found, setFound] = useState<{ readonly key: string; readonly moves?: DrawnMoves; readonly failed?: string }>()
  const ready = forecast?.state === 'done' && forecast.key === key
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key says all that the request says.
  useEffect(() => {
    if (!ready || !key || !request || !candidate) return
    const known = kept.get(key)
    if (known) return setFound({ key, moves: known })
    let wanted = true
    predictionPool()
      .workerOf(candidate.id)
      .drawMoves(request)
      .then((moves) => {
        kept.set(key, moves)
        if (kept.size > MOST_KEPT) kept.delete(kept.keys().next().value as string)
        if (wanted) setFound({ key, moves })
      })
      .catch((error: unknown) => {
        if (wanted) setFound({ key, failed: error instanceof Error ? error.message : String(error) })
      })
    return () => {
      wanted = false
    }
  }, [key, ready, candidate?.id])
  if (!candidate) return undefined
  const failed = forecast?.state === 'refused' ? `${forecast.refusal?.message} ${forecast.refusal?.remedy}` : found?.failed
  return { candidate, prediction: forecast?.prediction, moves: found?.moves, failed }
}
