import type { SolvedPicture } from '@sable/core/physics/solved/picture'
import { SetUps } from '@sable/core/physics/solved/setUps'
import type { Purpose } from '@sable/core/physics/strength/purpose'
import { layDown } from '@sable/core/pipeline/layDown'
import { predict } from '@sable/core/pipeline/predict'
import { type SolvedPurpose, solvedForPurpose } from '@sable/core/pipeline/solvedWork'
import { InputError } from '@sable/core/units/errors'
import { cache, inTurn, isStillWanted, toolsFor } from './atHand'
import { type PredictRequest, refusalOf } from './request'

/** How the load before was set up. */
const setUps = new SetUps()
/** For so long it solves without looking up, ms. */
const BREATH_MS = 40

export type SolvedAnswer =
  | {
      readonly kind: 'done'
      readonly solved: SolvedPurpose
      readonly picture?: SolvedPicture
      /** Of printing it. */
      readonly timeS: number
    }
  | { readonly kind: 'cancelled' }
  | ReturnType<typeof refusalOf>

/** What is solved by finite elements. */
export const solving = {
  /**
   * The load of a purpose, from the lines of a candidate, and how it looks under it where that is asked for. It does not keep predictions waiting.
   * Stops when the first entry of `stop` becomes 1.
   */
  async solveLoad(
    request: PredictRequest,
    purpose: Pick<Purpose, 'load' | 'cases'>,
    { isDrawn = false, voxelMm }: { readonly isDrawn?: boolean; readonly voxelMm?: number | undefined },
    stop: Int32Array,
    onProgress: (share: number) => void,
  ): Promise<SolvedAnswer> {
    try {
      const { part, polygons } = await toolsFor(request)
      const { placement, setup, values, overrides } = request
      const [laid, prediction] = await inTurn(async () => {
        const options = { kernel: polygons, cache, overrides, load: request.load }
        return [layDown(part, placement, setup, values, options), predict(part, placement, setup, values, options)] as const
      })
      const work = solvedForPurpose({ part, placement, laid, prediction, setup }, purpose, { isDrawn, voxelMm, before: { cache, setUps } })
      let from = performance.now()
      for (;;) {
        const step = work.next()
        if (step.done) return { kind: 'done', ...step.value, timeS: prediction.timeS }
        if (performance.now() - from < BREATH_MS) continue
        onProgress(step.value)
        if (!(await isStillWanted(stop))) return { kind: 'cancelled' }
        from = performance.now()
      }
    } catch (error) {
      if (error instanceof InputError) return refusalOf(error)
      throw error
    }
  },
}
