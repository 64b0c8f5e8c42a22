import type { Purpose } from '@sable/core/physics/strength/purpose'
import type { SolvedPurpose } from '@sable/core/pipeline/solvedWork'
import * as Comlink from 'comlink'
import { predictionPool } from './predictionStore'
import { type AskEach, useEachOf } from './useEachOf'
import type { PredictRequest } from './worker/request'

/** Something to solve: a candidate, what it is for, and how wide a cell is at most, mm. */
export interface ToSolve {
  readonly request: PredictRequest
  readonly purpose: Purpose
  readonly voxelMm?: number | undefined
}

/** What was solved, or why it was not. */
export type SolvedOne = { readonly solved: SolvedPurpose } | { readonly why: string }

/** The loads of several candidates, solved one after another, by their places in the list, as far as they are there: see `useEachOf`. */
export const useSolvedEach = (all: readonly ToSolve[]): readonly (SolvedOne | undefined)[] => useEachOf(all, solveAll)

const solveAll: AskEach<ToSolve, SolvedOne> = async (all, stop, onEach) => {
  for (const [i, { request, purpose, voxelMm }] of all.entries()) {
    if (Atomics.load(stop, 0) !== 0) return
    const one = await solveOne(request, purpose, voxelMm, stop)
    if (one) onEach(i, one)
  }
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
