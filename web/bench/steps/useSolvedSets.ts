import type { Purpose } from '@sable/core/physics/strength/purpose'
import type { Prediction } from '@sable/core/pipeline/predict'
import { notSolved, rankingVoxel, type SolvedPurpose, solvedKey } from '@sable/core/pipeline/solvedWork'
import { setKey } from '@sable/core/steps/trail'
import { useEffect, useMemo, useRef, useState } from 'react'
import { type SolvedOne, type ToSolve, useSolvedEach } from '../../predictions/useSolvedEach'
import type { PredictRequest } from '../../predictions/worker/request'

const none: readonly ToSolve[] = []

/**
 * The same predictions with their loads solved, once all of them are: what was told otherwise is not to be compared. Each set of steps is solved once,
 * however they are ordered, on cells no wider than the thinnest of their lines.
 *
 * @param ends names the two candidates and the part: what is known is forgotten when they change
 * @param sets of steps, with the prediction of each
 */
export function useSolvedSets(
  ends: string,
  purpose: Purpose,
  sets: readonly ReadonlySet<string>[],
  predictions: readonly (Prediction | undefined)[],
  requestFor: (taken: ReadonlySet<string>) => PredictRequest | undefined,
): {
  readonly predictions: readonly (Prediction | undefined)[]
  readonly isSolved: boolean
  readonly done: number
  readonly wanted: number
} {
  const voxelMm = Math.min(...predictions.map((one) => (one ? rankingVoxel(one.settings) : Number.POSITIVE_INFINITY)))
  // On other cells it is another figure.
  const all = `${ends} ${solvedKey(purpose)} ${voxelMm}`
  const known = useRef({ all, found: new Map<string, SolvedOne>() })
  if (known.current.all !== all) known.current = { all, found: new Map() }
  const { found } = known.current
  const keys = sets.map(setKey)
  const isAsked =
    purpose.kind !== 'show' &&
    notSolved(purpose) === undefined &&
    // Of a soft part it counts how far it gives way, by sections.
    predictions.every((one) => one !== undefined && !one.flexible)
  const [, redraw] = useState(0)
  // The list is the same for as long as the same sets of the same candidates are asked for.
  // biome-ignore lint/correctness/useExhaustiveDependencies: `keys` and `requestFor` follow from the others.
  const asked = useMemo(() => {
    if (!isAsked) return { keys: [], solving: none }
    const fresh = [...new Set(keys)].filter((key) => !found.has(key))
    const solving = fresh.flatMap((key): ToSolve[] => {
      const request = requestFor(new Set(key === '' ? [] : key.split('+')))
      return request ? [{ request, purpose, voxelMm }] : []
    })
    return { keys: fresh, solving }
  }, [all, isAsked, keys.join('|')])
  const solved = useSolvedEach(asked.solving)
  useEffect(() => {
    let more = false
    for (const [i, key] of asked.keys.entries()) {
      const one = solved[i]
      if (!one || found.has(key)) continue
      found.set(key, one)
      more = true
    }
    if (more) redraw((n) => n + 1)
  }, [solved, asked, found])
  const ones = keys.map((key): SolvedPurpose | undefined => {
    const one = found.get(key)
    return one && 'solved' in one ? one.solved : undefined
  })
  const isSolved = isAsked && ones.every((one) => one !== undefined)
  return {
    predictions: isSolved ? predictions.map((one, i) => ({ ...one!, solved: ones[i]! })) : predictions,
    isSolved,
    done: keys.filter((key) => found.has(key)).length,
    wanted: isAsked ? keys.length : 0,
  }
}
