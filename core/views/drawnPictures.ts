import type { Part } from '../mesh/part'
import type { Placement } from '../mesh/place'
import { type PictureSeen, picturesSeen } from '../physics/finish/pictureSeen'
import { layDown, type PredictOptions, planFor } from '../pipeline/layDown'
import { StageCache } from '../pipeline/stageCache'
import { Scopes } from '../profile/overrides'
import type { SettingValues } from '../profile/settings'
import type { Setup } from '../setup/resolve'
import { copyPlaces } from '../toolpath/copyPaths'

/**
 * What will be seen of the pictures on a candidate. What a prediction before it has computed is taken from the cache.
 *
 * @throws InputError when the part cannot be worked on at all
 */
export function drawnPictures(
  part: Part,
  placement: Placement,
  setup: Setup,
  values: SettingValues,
  options: PredictOptions,
): PictureSeen[] {
  const shared = { ...options, cache: options.cache ?? new StageCache() }
  const laid = layDown(part, placement, setup, values, shared)
  const { layers, path, sizeMm, resolved } = laid
  const scopes = new Scopes(resolved.settings, options.overrides, path.sets)
  return picturesSeen({ layers, path, motion: planFor(laid, setup, shared), scopes, places: copyPlaces(sizeMm, resolved.settings) })
}
