import type { Part } from '../mesh/part'
import type { Placement } from '../mesh/place'
import { facetRoughnesses, treatmentOf } from '../physics/finish/surfaceFigures'
import { type MoveTracks, moveTracks } from '../physics/physicsFigures'
import { usualGrip } from '../physics/strength/grip'
import { loadPathByAxis } from '../physics/strength/loadPathByAxis'
import { outlinesOf } from '../physics/strength/stretches'
import { layDown, type PredictOptions, planFor } from '../pipeline/layDown'
import { type Prediction, predict } from '../pipeline/predict'
import { StageCache } from '../pipeline/stageCache'
import { Scopes } from '../profile/overrides'
import type { SettingValues } from '../profile/settings'
import { knownSetup } from '../setup/knownSetup'
import type { Setup } from '../setup/resolve'
import { type LoadMap, loadsByAxis } from './loadMap'

/** Fields of one candidate that can be drawn: a value for each layer, move, facet and section. */
export interface Fields {
  /** Of one part, from the bed up. */
  readonly layers: Prediction['tracks']
  /** Of all copies, in the order of the path. */
  readonly moves: MoveTracks
  /** Of the mesh as it lies: mm² (0 on the bed), µm, and how far it faces up (−1 to 1). */
  readonly facets: { readonly areaMm2: Float64Array; readonly raUm: Float64Array; readonly up: Float64Array }
  /** Across each axis: where, and the load that each section would bear by itself, N; infinite where it bears none of it. */
  readonly sections: LoadMap['axes']
}

/**
 * Fields of a candidate. What a prediction before it has computed is taken from the cache.
 *
 * @throws InputError when the part cannot be worked on at all
 */
export function fieldsOf(part: Part, placement: Placement, setup: Setup, values: SettingValues, options: PredictOptions): Fields {
  const shared = { ...options, cache: options.cache ?? new StageCache() }
  const predicted = predict(part, placement, setup, values, shared)
  const { tracks, settings } = predicted
  const grip = options.load?.grip ?? usualGrip
  const laid = layDown(part, placement, setup, values, shared)
  const { path, layers, mesh } = laid
  const known = knownSetup(setup)
  const { constants } = known
  const { areas, roughness, up } = facetRoughnesses(
    mesh,
    layers,
    treatmentOf(new Scopes(settings, options.overrides), layers),
    constants.finish,
  )
  return {
    layers: tracks,
    moves: moveTracks({
      layers,
      path,
      motion: planFor(laid, setup, shared),
      scopes: new Scopes(settings, options.overrides, path.sets),
      setup: known,
    }),
    facets: { areaMm2: areas, raUm: roughness, up },
    sections: loadsByAxis(
      { path: laid.single, layers, known, predicted, overrides: options.overrides, grip },
      loadPathByAxis(outlinesOf(layers), grip),
    ),
  }
}
