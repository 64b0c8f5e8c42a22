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
const SAMPLED_LAYERS = 8

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
    const infill = propping ?? regions.infill
    const other = layBlock.run(
      {
        layers,
        regions: { ...regions, infill },
        settings: { ...settings, finishEachLoop: 'off' },
        overrides,
        seams,
        block: { from: 0, to: count },
        every,
      },
      host,
    )
    const on = travelLength(path, (layer) => layer % every === 0)
    return { lengthMm, savedMm: on > 0 ? (travelLength(other) / on - 1) * lengthMm : 0 }
  },
}

function travelLength({ x, y, feature, layerStart }: Toolpath, counts: (layer: number) => boolean = () => true): number {
  let length = 0
  for (let layer = 0; layer < layerStart.length - 1; layer++) {
    if (!counts(layer)) continue
    for (let m = layerStart[layer]!; m < layerStart[layer + 1]!; m++)
      if (feature[m] === code.travel) length += Math.hypot(x[m + 1]! - x[m]!, y[m + 1]! - y[m]!)
  }
  return length
}
