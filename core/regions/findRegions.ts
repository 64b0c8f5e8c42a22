import type { Layers } from '../slicing/layers'
import { layerCount } from '../slicing/layers'
import { type Contours, ContoursBuilder } from './contours'
import type { PolygonKernel, PolygonOps, Region } from './polygon'
import { slidingIntersection } from './slidingIntersection'

/** What each layer is made of; every member has one group a layer, mm. */
export interface Regions {
  /** Centre lines of the walls: outermost first. */
  readonly walls: readonly Contours[]
  /** Inside the walls, laid solid: within reach of a surface that faces up or down. */
  readonly skin: Contours
  /** Inside the walls, the rest. */
  readonly infill: Contours
}

export interface RegionSettings {
  readonly lineWidth: number
  readonly wallCount: number
  readonly topLayers: number
  readonly bottomLayers: number
}

/** Inner walls are hidden and may cut corners by this share of a line's width; only the outer wall keeps every point. */
const HIDDEN_TOLERANCE = 1 / 16
/** Skins follow a fill of straight lines, so their rim needs no more than this share of a line's width. */
const SKIN_TOLERANCE = 1 / 8
/** Skin narrower than this share of a line's width cannot be laid and is left to the infill. */
const LEAST_SKIN = 0.9

type OnLayer = (done: number, of: number) => void

/** Divides every layer into walls, skins and infill by comparing it with its neighbours. */
export function findRegions(layers: Layers, settings: RegionSettings, kernel: PolygonKernel, onLayer: OnLayer = () => {}): Regions {
  const count = layerCount(layers)
  const { walls, inside } = layWalls(layers.outlines, count, settings, kernel, (done) => onLayer(done, 2 * count))
  const { skin, infill } = splitInside(layers.outlines, inside, count, settings, kernel, (done) => onLayer(count + done, 2 * count))
  return { walls, skin, infill }
}

function layWalls(
  outlines: Contours,
  count: number,
  { lineWidth, wallCount }: RegionSettings,
  kernel: PolygonKernel,
  onLayer: (done: number) => void,
) {
  const walls = Array.from({ length: wallCount }, () => new ContoursBuilder())
  const inside = new ContoursBuilder()
  for (let layer = 0; layer < count; layer++) {
    kernel.run((ops) => {
      let edge = ops.read(outlines, layer)
      const shrink = (by: number, thinnedTo: number): void => {
        if (!ops.isEmpty(edge)) edge = ops.offset(thinnedTo > 0 ? ops.simplify(edge, thinnedTo) : edge, -by)
      }
      for (const [depth, wall] of walls.entries()) {
        if (depth === 0) shrink(lineWidth / 2, 0)
        else shrink(lineWidth, lineWidth * HIDDEN_TOLERANCE)
        ops.write(edge, wall)
      }
      if (wallCount > 0) shrink(lineWidth / 2, lineWidth * SKIN_TOLERANCE)
      ops.write(edge, inside)
    })
    for (const wall of walls) wall.endGroup()
    inside.endGroup()
    onLayer(layer + 1)
  }
  return { walls: walls.map((wall) => wall.finish()), inside: inside.finish() }
}

function splitInside(
  outlines: Contours,
  inside: Contours,
  count: number,
  settings: RegionSettings,
  kernel: PolygonKernel,
  onLayer: (done: number) => void,
) {
  const skin = new ContoursBuilder()
  const infill = new ContoursBuilder()
  const { topLayers, bottomLayers, lineWidth } = settings
  // A layer's inside lies in its own outline, so taking that in changes nothing and makes one window of above and below.
  const window = bottomLayers + topLayers + 1
  if (window === 1) return { skin: emptyGroups(count), infill: inside }
  const block = Math.max(64, 4 * window)
  for (let from = 0; from < count; from += block) {
    const to = Math.min(count, from + block)
    const [low, high] = [Math.max(0, from - bottomLayers), Math.min(count, to + topLayers)]
    kernel.run((ops) => {
      const thinned = range(low, high).map((layer) => ops.simplify(ops.read(outlines, layer), lineWidth * SKIN_TOLERANCE))
      const covered = slidingIntersection(ops, thinned, window)
      for (let layer = from; layer < to; layer++) {
        const parts = splitLayer(ops, ops.read(inside, layer), covered[layer - bottomLayers - low], lineWidth)
        ops.write(parts.skin, skin)
        ops.write(parts.infill, infill)
        skin.endGroup()
        infill.endGroup()
        onLayer(layer + 1)
      }
    })
  }
  return { skin: skin.finish(), infill: infill.finish() }
}

/** @param covered what all layers within reach have in common; undefined where the window leaves the part */
function splitLayer(ops: PolygonOps, whole: Region, covered: Region | undefined, lineWidth: number): { skin: Region; infill: Region } {
  if (ops.isEmpty(whole)) return { skin: whole, infill: whole }
  const exposed = !covered || ops.isEmpty(covered) ? whole : ops.subtract(whole, covered)
  if (ops.isEmpty(exposed)) return { skin: exposed, infill: whole }
  const half = (LEAST_SKIN * lineWidth) / 2
  const kept = ops.offset(exposed, -half)
  if (ops.isEmpty(kept)) return { skin: kept, infill: whole }
  const skin = ops.intersect(ops.offset(kept, half), whole)
  return { skin, infill: ops.subtract(whole, skin) }
}

const emptyGroups = (count: number): Contours => ({
  xy: new Float64Array(0),
  polygonStart: new Uint32Array(1),
  groupStart: new Uint32Array(count + 1),
})

const range = (from: number, to: number): number[] => Array.from({ length: to - from }, (_, i) => from + i)
