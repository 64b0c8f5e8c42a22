import type { Contours } from '../geometry/contours'
import { topPropping } from '../patterns/topPropping'
import { Scopes } from '../profile/overrides'
import type { Settings } from '../profile/settings'
import type { Regions } from '../regions/findRegions'
import { blocksOf } from '../slicing/blocks'
import { type Layers, layerCount } from '../slicing/layers'
import { justOne, onEach, type Task, type Work } from '../work/work'
import { joinPaths } from './joinPaths'
import { layBlock } from './layBlock'
import type { Toolpath } from './toolpath'

/** The path of one part. */
export interface LaidPath {
  readonly path: Toolpath
  /** Infill as it is laid, where that is not all of the region for it. */
  readonly propping?: Contours
}

/**
 * Orders everything that is laid into one path, layer by layer.
 *
 * @param seams point at which each outermost wall begins, one a polygon (`chooseSeams`)
 */
export function* toolpathWork(layers: Layers, regions: Regions, seams: Uint32Array, scopes: Scopes): Work<LaidPath> {
  const { settings, overrides } = scopes
  const propping = settings.infillPattern === 'topPropping' ? yield* justOne(propTops, { layers, regions, settings }) : undefined
  const blocks = blocksOf(layerCount(layers))
  const input = { layers, regions: propping ? { ...regions, infill: propping } : regions, settings, overrides, seams }
  const paths = yield* onEach(
    layBlock,
    blocks.map((block) => ({ ...input, block })),
    { stage: 'toolpath' },
  )
  return { path: joinPaths(paths, blocks, layers, regions, new Scopes(settings, overrides)), ...(propping ? { propping } : {}) }
}

interface PropInput {
  readonly layers: Layers
  readonly regions: Regions
  readonly settings: Settings
}

export const propTops: Task<PropInput, Contours> = {
  name: 'propTops',
  run: ({ layers, regions, settings }, { kernel }) =>
    topPropping(layers.outlines, regions.infill, layers.height, settings.lineWidth, kernel),
}
