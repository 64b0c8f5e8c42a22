import type { Purpose } from '@sable/core/physics/strength/purpose'
import type { Prediction } from '@sable/core/pipeline/predict'
import { notSolved, rankingVoxel, type SolvedPurpose, solvedKey } from '@sable/core/pipeline/solvedWork'
import { setKey, setOfKey } from '@sable/core/steps/trail'
import { type ToSolve, useSolvedEach } from '../../predictions/useSolvedEach'
import type { PredictRequest } from '../../predictions/worker/request'
import { useAskedOnce } from './useAskedOnce'

const none: readonly string[] = []

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
  const keys = sets.map(setKey)
  const isAsked =
    purpose.kind !== 'show' &&
    notSolved(purpose) === undefined &&
    // Of a soft part it counts how far it gives way, by sections.
    predictions.every((one) => one !== undefined && !one.flexible)
  const found = useAskedOnce(
    all,
    isAsked ? keys : none,
    (key): ToSolve | undefined => {
      const request = requestFor(setOfKey(key))
      return request && { request, purpose, voxelMm }
    },
    useSolvedEach,
  )
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
