import type { Part } from '../mesh/part'
import type { Placement } from '../mesh/place'
import { layDown, type PredictOptions } from '../pipeline/layDown'
import { predict } from '../pipeline/predict'
import { StageCache } from '../pipeline/stageCache'
import type { SettingValues } from '../profile/settings'
import { flowBound, type Setup } from '../setup/resolve'
import { footprintOf } from './footprint'
import type { PlatePart } from './platePart'

/**
 * A column of a lineup as a part of a plate: laid by itself, once, however many copies its profile asks for.
 *
 * @throws InputError when the part cannot be worked on at all
 */
export function layPart(
  name: string,
  part: Part,
  placement: Placement,
  setup: Setup,
  values: SettingValues,
  options: PredictOptions,
): PlatePart {
  const shared = { ...options, cache: options.cache ?? new StageCache() }
  const once = { ...values, copies: 1 }
  const { filament, mesh } = predict(part, placement, setup, once, shared)
  const laid = layDown(part, placement, setup, once, shared)
  return {
    name,
    path: laid.single,
    settings: laid.resolved.settings,
    overrides: flowBound(options.overrides ?? [], laid.resolved, setup),
    footprint: footprintOf(laid.single),
    heightMm: mesh.sizeMm[2],
    massG: filament.massG,
    lengthMm: filament.lengthMm,
  }
}
