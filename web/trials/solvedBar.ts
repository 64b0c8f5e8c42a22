import type { TrialKind } from '@sable/core/trials/table/kind'
import { predictionPool } from '../predictions/predictionStore'
import type { PredictRequest } from '../predictions/worker/request'

/** What a trial's bar is as its lines have it, by which newtons become stresses; nothing where it has none, or it could not be solved. */
export async function solvedBar(kind: TrialKind, request: PredictRequest | undefined): Promise<{ readonly barMm3?: number }> {
  if (!kind.bar || !request) return {}
  const answer = await predictionPool().anyWorker.solveBar(request, new Int32Array(new SharedArrayBuffer(4)))
  // Its plain section serves then, as it does for a trial that was printed before.
  return answer.kind === 'done' && answer.barMm3 !== undefined ? { barMm3: answer.barMm3 } : {}
}
