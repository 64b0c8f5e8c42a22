import type { Lever } from '@sable/core/advice/levers'
import type { Constants } from '@sable/core/constants/constants'
import { findSlopes, type Slopes } from '@sable/core/doubt/slopes'
import { valuesOf } from '@sable/core/figures/figures'
import type { MatrixCell } from '@sable/core/matrix/matrix'
import type { Purpose } from '@sable/core/physics/strength/purpose'
import { type Prediction, predict } from '@sable/core/pipeline/predict'
import { StageCache } from '@sable/core/pipeline/stageCache'
import type { SettingValues } from '@sable/core/profile/settings'
import { figuresOf } from '@sable/core/search/figures'
import { knownSetup } from '@sable/core/setup/knownSetup'
import { InputError } from '@sable/core/units/errors'
import { isStillWanted, toolsFor, triedCache } from './atHand'
import type { PredictRequest } from './request'

/** Candidates that nobody has: what would come of a change. One after another, until the first entry of `stop` becomes 1. */
export const trying = {
  /**
   * Predicts a candidate with each single change of `levers`, one after another. Stops when the first entry of `stop`
   * becomes 1. A change that cannot be printed is left out.
   */
  async tryLevers(
    request: PredictRequest,
    levers: readonly Lever[],
    stop: Int32Array,
    onEach: (lever: Lever, prediction: Prediction) => void,
  ): Promise<void> {
    const { part, polygons } = await toolsFor(request)
    // The columns' own stages stay remembered: these are kept apart.
    const own = new StageCache(2)
    const { placement, setup, values, overrides, load } = request
    const of = (changed: SettingValues): Prediction =>
      predict(part, placement, setup, { ...values, ...changed }, { kernel: polygons, cache: own, overrides, load })
    of({})
    for (const lever of levers) {
      if (!(await isStillWanted(stop))) return
      try {
        onEach(lever, of(lever.values))
      } catch (error) {
        if (!(error instanceof InputError)) throw error
      }
    }
  },

  /** Predicts a candidate as the part lies in each of some ways, in their order, with plain supports where it has none. */
  async tryPlacements(
    request: PredictRequest,
    ways: readonly Pick<PredictRequest, 'placement' | 'load'>[],
    stop: Int32Array,
    onEach: (prediction: Prediction) => void,
  ): Promise<void> {
    const { part, polygons } = await toolsFor(request)
    const { setup, values, overrides } = request
    const supported: SettingValues = { ...values, supports: values.supports === 'branching' ? 'branching' : 'plain' }
    for (const { placement, load } of ways) {
      if (!(await isStillWanted(stop))) return
      onEach(predict(part, placement, setup, supported, { kernel: polygons, overrides, load }))
    }
  },

  /**
   * Predicts several candidates of one part, one after another, each told by its place in the list. One that cannot be printed
   * tells nothing. Stops when the first entry of `stop` becomes 1.
   */
  async tryAll(
    requests: readonly PredictRequest[],
    stop: Int32Array,
    onEach: (index: number, prediction: Prediction | undefined) => void,
  ): Promise<void> {
    const [first] = requests
    if (!first) return
    const { part, polygons } = await toolsFor(first)
    for (const [index, { placement, setup, values, overrides, load }] of requests.entries()) {
      if (!(await isStillWanted(stop))) return
      try {
        onEach(index, predict(part, placement, setup, values, { kernel: polygons, cache: triedCache, overrides, load }))
      } catch (error) {
        if (!(error instanceof InputError)) throw error
        onEach(index, undefined)
      }
    }
  },

  /**
   * The figures alone of several candidates of one part, one after another, each told by its place in the list. Stops when the
   * first entry of `stop` becomes 1.
   */
  async figuresOfAll(
    requests: readonly PredictRequest[],
    purpose: Purpose,
    stop: Int32Array,
    onEach: (index: number, cell: MatrixCell) => void,
  ): Promise<void> {
    const [first] = requests
    if (!first) return
    const { part, polygons } = await toolsFor(first)
    for (const [index, { placement, setup, values, overrides, load }] of requests.entries()) {
      if (!(await isStillWanted(stop))) return
      try {
        const prediction = predict(part, placement, setup, values, { kernel: polygons, cache: triedCache, overrides, load })
        const cautions = prediction.checks.filter(({ severity }) => severity === 'caution').length
        onEach(index, { figures: figuresOf(prediction, purpose), cautions, checks: prediction.checks.map(({ id }) => id) })
      } catch (error) {
        if (!(error instanceof InputError)) throw error
        onEach(index, { refused: `${error.message} ${error.remedy}` })
      }
    }
  },

  /**
   * How the figures of a candidate hang on each constant. Nothing where it was given up, or cannot be printed. Stops when the
   * first entry of `stop` becomes 1.
   */
  async findSlopes(
    request: PredictRequest,
    purpose: Purpose,
    stop: Int32Array,
    onProgress: (share: number) => void,
  ): Promise<Slopes | undefined> {
    const { part, polygons } = await toolsFor(request)
    const { placement, setup, values, overrides, load } = request
    const valuesWith = (constants: Constants) =>
      valuesOf(predict(part, placement, { ...setup, constants }, values, { kernel: polygons, cache: triedCache, overrides, load }), purpose)
    const work = findSlopes(valuesWith, knownSetup(setup).constants)
    try {
      for (;;) {
        if (!(await isStillWanted(stop))) return undefined
        const { done, value } = work.next()
        if (done) return value
        onProgress(value)
      }
    } catch (error) {
      if (error instanceof InputError) return undefined
      throw error
    }
  },
}
