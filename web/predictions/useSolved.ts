import type { Candidate, LineupContent } from '@sable/contract/lineup'
import type { StoredPart } from '@sable/contract/part'
import type { Shelf } from '@sable/contract/shelf'
import { notSolved, type SolvedAlong } from '@sable/core/pipeline/solvedWork'
import * as Comlink from 'comlink'
import { useEffect, useMemo, useState } from 'react'
import { keyOf, predictionPool, requestFor, useForecasts } from './predictionStore'

/** A candidate's solved load, how far it is, or why there is none. */
export interface Solved {
  readonly candidate: Candidate
  readonly solved?: SolvedAlong
  /** Of the solving, 0–1. */
  readonly share?: number
  /** In a sentence. */
  readonly why?: string
}

/** What was solved last is kept. */
const MOST_KEPT = 40
const kept = new Map<string, SolvedAlong>()

/** Solves the purpose's load on a candidate as soon as its figures are there, and anew whenever it changes. */
export function useSolved(candidate: Candidate | undefined, content: LineupContent, part: StoredPart, shelf: Shelf): Solved | undefined {
  const forecast = useForecasts((all) => (candidate ? all[candidate.id] : undefined))
  const request = useMemo(() => candidate && requestFor(candidate, content, part, shelf), [candidate, content, part, shelf])
  const { load } = content.purpose
  const why = notSolved(load)
  const own = request && keyOf(request)
  const key = own && `${own} ${JSON.stringify(load)}`
  const [found, setFound] = useState<{ readonly key: string; readonly share?: number; readonly why?: string }>()
  const isReady = forecast?.state === 'done' && forecast.key === own
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key says all that request and load say.
  useEffect(() => {
    if (!isReady || !key || !request || !candidate || why !== undefined || kept.has(key)) return
    const stop = new Int32Array(new SharedArrayBuffer(4))
    const onProgress = (share: number): void => {
      if (Atomics.load(stop, 0) === 0) setFound({ key, share })
    }
    setFound({ key, share: 0 })
    predictionPool()
      .workerOf(candidate.id)
      .solveLoad(request, load, stop, Comlink.proxy(onProgress))
      .then((answer) => {
        if (answer.kind === 'cancelled') return
        if (answer.kind === 'done') {
          kept.set(key, answer.solved)
          if (kept.size > MOST_KEPT) kept.delete(kept.keys().next().value as string)
        }
        if (Atomics.load(stop, 0) === 0) setFound(answer.kind === 'done' ? { key } : { key, why: `${answer.message} ${answer.remedy}` })
      })
      .catch(
        () => Atomics.load(stop, 0) === 0 && setFound({ key, why: 'The worker that solved it has ended. Change anything to begin again.' }),
      )
    return () => {
      Atomics.store(stop, 0, 1)
    }
  }, [key, isReady, candidate?.id, why])
  if (!candidate) return undefined
  const solved = key === undefined ? undefined : kept.get(key)
  if (why !== undefined) return { candidate, why }
  if (solved) return { candidate, solved }
  if (!found || found.key !== key) return { candidate }
  const { key: _, ...told } = found
  return { candidate, ...told }
}
