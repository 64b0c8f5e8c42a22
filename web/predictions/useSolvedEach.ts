import type { Purpose } from '@sable/core/physics/strength/purpose'
import type { SolvedPurpose } from '@sable/core/pipeline/solvedWork'
import * as Comlink from 'comlink'
import { useEffect, useState } from 'react'
import { predictionPool } from './predictionStore'
import type { PredictRequest } from './worker/request'

/** Something to solve: a candidate, what it is for, and how wide a cell is at most, mm. */
export interface ToSolve {
  readonly request: PredictRequest
  readonly purpose: Purpose
  readonly voxelMm?: number | undefined
}

/** What was solved, or why it was not. */
export type SolvedOne = { readonly solved: SolvedPurpose } | { readonly why: string }

/**
 * Solves the loads of several candidates one after another, by their places in the list, as far as they are there. The list must keep its identity for
 * as long as it says the same.
 */
export function useSolvedEach(all: readonly ToSolve[]): readonly (SolvedOne | undefined)[] {
  const [found, setFound] = useState<readonly (SolvedOne | undefined)[]>([])
  useEffect(() => {
    setFound([])
    const stop = new Int32Array(new SharedArrayBuffer(4))
    const isWanted = (): boolean => Atomics.load(stop, 0) === 0
    const solveAll = async (): Promise<void> => {
      for (const [i, { request, purpose, voxelMm }] of all.entries()) {
        if (!isWanted()) return
        const one = await solveOne(request, purpose, voxelMm, stop)
        if (one && isWanted()) setFound((before) => Object.assign([...before], { [i]: one }))
      }
    }
    void solveAll()
    return () => {
      Atomics.store(stop, 0, 1)
    }
  }, [all])
  return found
}

async function solveOne(
  request: PredictRequest,
  purpose: Purpose,
  voxelMm: number | undefined,
  stop: Int32Array,
): Promise<SolvedOne | undefined> {
  try {
    const answer = await predictionPool().anyWorker.solveLoad(
      request,
      purpose,
      { voxelMm },
      stop,
      Comlink.proxy(() => {}),
    )
    if (answer.kind === 'done') return { solved: answer.solved }
    return answer.kind === 'refused' ? { why: `${answer.message} ${answer.remedy}` } : undefined
  } catch (error) {
    return { why: `It could not be solved. ${error instanceof Error ? error.message : String(error)}` }
  }
}
