import { beltAt } from '../mesh/tiltedBelt'
import { type Override, Scopes } from '../profile/overrides'
import type { Settings } from '../profile/settings'
import type { Regions } from '../regions/findRegions'
import { isSpiral } from '../regions/spiral'
import type { Block } from '../slicing/blocks'
import type { Layers } from '../slicing/layers'
import { patchesOn, picturesOn, scopeOn } from '../slicing/zones'
import type { Task } from '../work/work'
import { AirSense } from './airSense'
import { layLayer } from './layLayer'
import { Pen } from './pen'
import { PictureRow } from './pictureRow'
import { scaleFlow } from './scaleFlow'
import { type Toolpath, ToolpathBuilder } from './toolpath'
import { Traveller } from './traveller'

export interface LayInput {
  readonly layers: Layers
  readonly regions: Regions
  readonly settings: Settings
  readonly overrides: readonly Override[]
  /** Point at which each outermost wall begins, one a polygon of the first of `regions.walls`. */
  readonly seams: Uint32Array
  readonly block: Block
  /** Only every so manieth layer is laid; all unless told otherwise. */
  readonly every?: number
}

/**
 * Orders what is laid in a block of layers into one path, always on to what begins nearest. Above the bed it begins where
 * its first line does: the way there from the block below is not known yet.
 */
export const layBlock: Task<LayInput, Toolpath> = {
  name: 'layBlock',
  run: ({ layers, regions, settings: base, overrides, seams, block: { from, to }, every = 1 }, { kernel, tick }) => {
    const scopes = new Scopes(base, overrides)
    const plan = { layers, regions, scopes, seams, kernel }
    const out = new ToolpathBuilder()
    const traveller = new Traveller(out)
    let settings = base
    const pen = new Pen(out, traveller, () => settings, scopes)
    if (from === 0) out.startAt(0, 0, 0)
    else {
      // Where the block below ends nobody knows yet: somewhere on it.
      out.startAt(...somewhereOn(regions, from - 1), layers.top[isSpiral(from, base) ? from - 1 : from]!)
      traveller.beginAtFirstLine()
    }
    const air = new AirSense(
      layers.outlines,
      Math.max(...[base, ...overrides.map(({ values }) => values)].map(({ lineWidth = 0 }) => lineWidth)),
    )
    for (let layer = from; layer < to; layer++) {
      const scope = scopeOn(layers, layer, scopes)
      settings = scopes.settingsOf(scope)
      out.startLayer()
      if (layer % every !== 0) continue
      // A turn of a spiral rises as it is laid.
      if (!isSpiral(layer, base)) traveller.rise(layers.top[layer]!, settings)
      traveller.enter(layers.outlines, regions.walls[0], layer)
      if (layer > 0) air.enter(layer - 1, layers.belt && beltAt(layers.belt, layers.top[layer]!))
      const pictures = picturesOn(layers, layer, scopes).map(({ z, ...own }) => new PictureRow(own, z))
      pen.enter(layers.height[layer]!, layer > 0 ? air : undefined, scope, patchesOn(layers, layer, scopes), pictures)
      layLayer(plan, layer, settings, pen)
      tick((layer + 1 - from) / (to - from))
    }
    const path = out.finish(scopes.sets)
    scaleFlow(path, from, scopes)
    return path
  },
}

function somewhereOn({ walls: [outer] }: Regions, layer: number): [x: number, y: number] {
  if (!outer || outer.groupStart[layer] === outer.groupStart[layer + 1]) return [0, 0]
  const first = outer.polygonStart[outer.groupStart[layer]!]!
  return [outer.xy[2 * first]!, outer.xy[2 * first + 1]!]
}
