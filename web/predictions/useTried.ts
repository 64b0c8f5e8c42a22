import type { Prediction } from '@sable/core/pipeline/predict'
import { predictionPool } from './predictionStore'
import { type AskEach, useEachOf } from './useEachOf'
import type { PredictRequest } from './worker/request'

/** A prediction that was tried: nothing in it where it cannot be printed. */
export interface Tried {
  readonly prediction: Prediction | undefined
}

/** Predictions of several candidates, by their places in the list, as far as they are there: see `useEachOf`. */
export const useTried = (requests: readonly PredictRequest[]): readonly (Tried | undefined)[] => useEachOf(requests, tryAll)

const tryAll: AskEach<PredictRequest, Tried> = (requests, stop, onEach) =>
  void predictionPool().tryAll(requests, stop, (i, prediction) => onEach(i, { prediction }))
