import type { Part } from '@sable/core/mesh/part'
import type { Placement } from '@sable/core/mesh/place'
import type { SolvedPicture } from '@sable/core/physics/solved/picture'
import { SetUps } from '@sable/core/physics/solved/setUps'
import type { Purpose } from '@sable/core/physics/strength/purpose'
import { type LaidDown, layDown } from '@sable/core/pipeline/layDown'
import { type Prediction, predict } from '@sable/core/pipeline/predict'
import { type SolvedSway, solvedSwayWork } from '@sable/core/pipeline/solvedSway'
import { type SolvedPurpose, solvedForPurpose } from '@sable/core/pipeline/solvedWork'
import type { Setup } from '@sable/core/setup/resolve'
import { solvedBarWork } from '@sable/core/trials/solvedBar'
import { InputError } from '@sable/core/units/errors'
import type { Steps } from '@sable/core/units/steps'
import { cache, inTurn, isStillWanted, toolsFor } from './atHand'
import { type PredictRequest, refusalOf } from './request'

/** How the load before was set up. */
const setUps = new SetUps()
/** For so long it solves without looking up, ms. */
const BREATH_MS = 40

/** What became of something that was to be solved. */
type Answer<Found> = ({ readonly kind: 'done' } & Found) | { readonly kind: 'cancelled' } | ReturnType<typeof refusalOf>

export type SolvedAnswer = Answer<{
  readonly solved: SolvedPurpose
  readonly picture?: SolvedPicture
  /** Of printing it. */
  readonly timeS: number
}>
export type BarAnswer = Answer<{ readonly barMm3: number | undefined }>
export type SwayAnswer = Answer<{ readonly sway: SolvedSway }>

/** What is solved by finite elements. It does not keep predictions waiting, and stops when the first entry of `stop` becomes 1. */
export const solving = {
  /** The load of a purpose, from the lines of a candidate, and how it looks under it where that is asked for. */
  solveLoad(
    request: PredictRequest,
    purpose: Pick<Purpose, 'load' | 'cases'>,
    { isDrawn = false, voxelMm }: { readonly isDrawn?: boolean; readonly voxelMm?: number | undefined },
    stop: Int32Array,
    onProgress: (share: number) => void,
  ): Promise<SolvedAnswer> {
    return solve(request, stop, onProgress, function* (of) {
      const found = yield* solvedForPurpose(of, purpose, { isDrawn, voxelMm, before: { cache, setUps } })
      return { ...found, timeS: of.prediction.timeS }
    })
  },

  /** The section modulus of a trial's bar, mm³; nothing of a trial without bars. */
  solveBar(request: PredictRequest, stop: Int32Array): Promise<BarAnswer> {
    return solve(
      request,
      stop,
      () => {},
      function* ({ laid, prediction, setup }) {
        return { barMm3: request.made && (yield* solvedBarWork(request.made.spec, laid, prediction, setup)) }
      },
    )
  },

  /** How a candidate stands under the nozzle. */
  solveSway(request: PredictRequest, stop: Int32Array, onProgress: (share: number) => void): Promise<SwayAnswer> {
    return solve(request, stop, onProgress, function* ({ laid, prediction, setup }) {
      return { sway: yield* solvedSwayWork(laid, prediction, setup) }
    })
  },
}

interface Predicted {
  readonly part: Part
  readonly placement: Placement
  readonly laid: LaidDown
  readonly prediction: Prediction
  readonly setup: Setup
}

async function solve<Found extends object>(
  request: PredictRequest,
  stop: Int32Array,
  onProgress: (share: number) => void,
  begin: (of: Predicted) => Steps<Found>,
): Promise<Answer<Found>> {
  try {
    const { part, polygons } = await toolsFor(request)
    const { placement, setup, values, overrides } = request
    const [laid, prediction] = await inTurn(async () => {
      const options = { kernel: polygons, cache, overrides, load: request.load }
      return [layDown(part, placement, setup, values, options), predict(part, placement, setup, values, options)] as const
    })
    const work = begin({ part, placement, laid, prediction, setup })
    let from = performance.now()
    for (;;) {
      const step = work.next()
      if (step.done) return { kind: 'done', ...step.value }
      if (performance.now() - from < BREATH_MS) continue
      onProgress(step.value)
      if (!(await isStillWanted(stop))) return { kind: 'cancelled' }
      from = performance.now()
    }
  } catch (error) {
    if (error instanceof InputError) return refusalOf(error)
    throw error
  }
}
