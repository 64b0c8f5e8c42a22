import type { Override } from '../profile/overrides'
import type { Settings } from '../profile/settings'
import type { Regions } from '../regions/findRegions'
import { type Layers, layerCount } from '../slicing/layers'
import type { Task } from '../work/work'
import { layBlock } from './layBlock'
import type { LaidPath } from './layPaths'
import { code, type Toolpath } from './toolpath'

export interface TravelFigures {
  /** Way of one part that is run without laying anything, mm. */
  readonly lengthMm: number
  /** How much longer it would be if holes and islands were not finished one by one; estimated from some layers, mm. */
  readonly savedMm?: number
}

/** What another order of walls would save is worked out on this many layers at most. */
const SAMPLED_LAYERS = 16

interface TravelInput {
  readonly layers: Layers
  readonly regions: Regions
  readonly seams: Uint32Array
  readonly laid: LaidPath
  readonly settings: Settings
  readonly overrides: readonly Override[]
}

export const travelFigures: Task<TravelInput, TravelFigures> = {
  name: 'travel',
  run: ({ layers, regions, seams, laid: { path, propping }, settings, overrides }, host) => {
    const lengthMm = travelLength(path)
    if (settings.finishEachLoop === 'off') return { lengthMm }
    const count = layerCount(layers)
    const every = Math.ceil(count / SAMPLED_LAYERS)
    const sampled = (finishEachLoop: Settings['finishEachLoop']): number =>
      travelLength(
        layBlock.run(
          {
            layers,
            regions: { ...regions, infill: propping ?? regions.infill },
            settings: { ...settings, finishEachLoop },
            overrides,
            seams,
            block: { from: 0, to: count },
            every,
          },
          host,
        ),
      )
    // Both orders on the same layers: the way from one of them to the next is no way of the print's.
    return { lengthMm, savedMm: every * (sampled('off') - sampled('on')) }
  },
}

function travelLength({ x, y, feature }: Toolpath): number {
  let length = 0
  for (let m = 0; m < feature.length; m++) if (feature[m] === code.travel) length += Math.hypot(x[m + 1]! - x[m]!, y[m + 1]! - y[m]!)
  return length
}
