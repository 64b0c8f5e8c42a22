import type { Candidate, LineupContent } from '@sable/contract/lineup'
import type { StoredPart } from '@sable/contract/part'
import type { Shelf } from '@sable/contract/shelf'
import type { PictureSeen } from '@sable/core/physics/finish/pictureSeen'
import type { Prediction } from '@sable/core/pipeline/predict'
import type { DrawnMoves } from '@sable/core/views/drawnMoves'
import type { LoadMap } from '@sable/core/views/loadMap'
import type { SurfaceMap } from '@sable/core/views/surfaceMap'
import type * as Comlink from 'comlink'
import { useEffect, useMemo, useState } from 'react'
import { keyOf, predictionPool, requestFor, useForecasts } from './predictionStore'
import type { PredictWorker } from './worker/predictWorker'
import type { PredictRequest } from './worker/request'

/** A candidate with its figures and, when it is there, what a view draws of it. */
export interface Drawn<Drawing> {
  readonly candidate: Candidate
  readonly prediction: Prediction | undefined
  readonly drawing: Drawing | undefined
  readonly failed: string | undefined
}
export type ReadyDrawn<Drawing> = Drawn<Drawing> & { readonly prediction: Prediction; readonly drawing: Drawing }

type Ask<Drawing> = (worker: Comlink.Remote<PredictWorker>, request: PredictRequest) => Promise<Drawing>

/** Drawings are large: only those that were looked at last are kept. */
const MOST_KEPT = 4

/** Keeps what workers drew last, and follows a candidate as it changes; what was drawn before stays until then. */
function drawings<Drawing>(ask: Ask<Drawing>) {
  const kept = new Map<string, Drawing>()
  return function useDrawn(
    candidate: Candidate | undefined,
    content: LineupContent,
    part: StoredPart,
    shelf: Shelf,
  ): Drawn<Drawing> | undefined {
    const forecast = useForecasts((all) => (candidate ? all[candidate.id] : undefined))
    const request = useMemo(() => candidate && requestFor(candidate, content, part, shelf), [candidate, content, part, shelf])
    const key = request && keyOf(request)
    const [found, setFound] = useState<{ readonly key: string; readonly drawing?: Drawing; readonly failed?: string }>()
    const ready = forecast?.state === 'done' && forecast.key === key
    // biome-ignore lint/correctness/useExhaustiveDependencies: the key says all that the request says.
    useEffect(() => {
      if (!ready || !key || !request || !candidate) return
      const known = kept.get(key)
      if (known) return setFound({ key, drawing: known })
      let wanted = true
      ask(predictionPool().workerOf(candidate.id), request)
        .then((drawing) => {
          kept.set(key, drawing)
          if (kept.size > MOST_KEPT) kept.delete(kept.keys().next().value as string)
          if (wanted) setFound({ key, drawing })
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
    return { candidate, prediction: forecast?.prediction, drawing: found?.drawing, failed }
  }
}

/** Every move of a candidate. */
export const useMoves = drawings<DrawnMoves>((worker, request) => worker.drawMoves(request))
/** The surface of a candidate, facet by facet. */
export const useSurface = drawings<SurfaceMap>((worker, request) => worker.drawSurface(request))
/** What will be seen of the pictures on a candidate. */
export const usePictures = drawings<readonly PictureSeen[]>((worker, request) => worker.drawPictures(request))
/** How a candidate bears loads, section by section. */
export const useLoads = drawings<LoadMap>((worker, request) => worker.drawLoads(request))

/** Those that can be drawn already. */
export const readyOf = <Drawing>(all: readonly (Drawn<Drawing> | undefined)[]): ReadyDrawn<Drawing>[] =>
  all.filter((one): one is ReadyDrawn<Drawing> => one?.drawing !== undefined && one.prediction !== undefined)
