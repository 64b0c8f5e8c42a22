import type { Part } from '../mesh/part'
import type { Placement } from '../mesh/place'
import { layOutWork, type PredictOptions, slicedWork } from '../pipeline/layDown'
import { predictWork } from '../pipeline/predict'
import { StageCache } from '../pipeline/stageCache'
import type { Override } from '../profile/overrides'
import type { SettingValues } from '../profile/settings'
import { flowBound, type Setup } from '../setup/resolve'
import { code } from '../toolpath/toolpath'
import { doAlone } from '../work/doAlone'
import type { Work } from '../work/work'
import { footprintOf } from './footprint'
import type { PlatePart } from './platePart'

/** A column of a lineup. */
interface Column {
  readonly name: string
  readonly part: Part
  readonly placement: Placement
  readonly setup: Setup
  readonly values: SettingValues
  readonly overrides?: readonly Override[]
}

/**
 * A column of a lineup as a part of a plate: laid by itself, once, however many copies its profile asks for.
 *
 * @throws InputError when the part cannot be worked on at all
 */
export function* layPartWork({ name, part, placement, setup, values, overrides = [] }: Column, cache = new StageCache()): Work<PlatePart> {
  const once = { ...values, copies: 1 }
  const known = { cache, overrides }
  const { filament, mesh } = yield* predictWork(part, placement, setup, once, known)
  const { single, resolved } = yield* layOutWork(yield* slicedWork(part, placement, setup, once, known), setup, known)
  return {
    name,
    path: single,
    settings: resolved.settings,
    overrides: flowBound(overrides, resolved, setup),
    footprint: footprintOf(single),
    heightMm: mesh.sizeMm[2],
    massG: filament.massG,
    lengthMm: filament.lengthMm,
  }
}

/** The same in this thread alone. */
export const layPart = (
  name: string,
  part: Part,
  placement: Placement,
  setup: Setup,
  values: SettingValues,
  { kernel, cache, overrides = [] }: PredictOptions,
): PlatePart => doAlone(layPartWork({ name, part, placement, setup, values, overrides }, cache), kernel)

/** Outer walls of a part on the bed, to be drawn: x, y … of each unbroken line, mm. */
export function footOf({ path: { x, y, feature, layerStart } }: Pick<PlatePart, 'path'>): number[][] {
  const lines: number[][] = []
  let isOn = false
  for (let m = layerStart[0]!; m < layerStart[1]!; m++) {
    if (feature[m] === code.outerWall) {
      if (!isOn) lines.push([x[m]!, y[m]!])
      lines.at(-1)!.push(x[m + 1]!, y[m + 1]!)
    }
    isOn = feature[m] === code.outerWall
  }
  return lines
}
