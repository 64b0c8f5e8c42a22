import { lineArea } from '../melt/flow'
import type { Contours } from '../regions/contours'
import type { Regions } from '../regions/findRegions'
import { type Layers, layerCount } from '../slicing/layers'
import { chainLines, type LineChain } from './chainLines'
import { type FillLines, fillLines } from './fillLines'
import { findIslands } from './islands'
import { leavesPart } from './leavesPart'
import { code, type Toolpath, ToolpathBuilder } from './toolpath'

export interface PathSettings {
  readonly lineWidth: number
  /** Per cent of the inside that is solid. */
  readonly infillDensity: number
  readonly infillPattern: 'lines' | 'grid'
  readonly retractMinTravel: number
}

/** Lines shorter than this share of their width are blobs and are not laid. */
const LEAST_LINE = 0.5
/** Fill runs across the walls at this angle, turned by a right angle from layer to layer. */
export const FILL_ANGLE = Math.PI / 4

/** One closed wall, waiting to be laid. */
interface Loop {
  readonly contours: Contours
  readonly polygon: number
  readonly feature: number
  /** 0 is the outermost wall. */
  readonly depth: number
}

/** A run of fill lines, waiting to be laid. */
interface Fill {
  readonly lines: FillLines
  readonly chain: LineChain
  readonly feature: number
}

/**
 * Orders everything that is laid into one path: layer by layer, island by island, walls from the inside out, then skins
 * and infill, always on to what is nearest. Filament is retracted where a travel of at least `retractMinTravel` leaves
 * the part.
 */
export function layPaths(
  layers: Layers,
  regions: Regions,
  settings: PathSettings,
  onLayer: (done: number, of: number) => void = () => {},
): Toolpath {
  const out = new ToolpathBuilder()
  out.startAt(0, 0, 0)
  for (let layer = 0; layer < layerCount(layers); layer++) {
    out.startLayer()
    out.rise(layers.top[layer]!)
    layLayer(out, layers, regions, layer, settings)
    onLayer(layer + 1, layerCount(layers))
  }
  return out.finish()
}

function layLayer(out: ToolpathBuilder, layers: Layers, regions: Regions, layer: number, settings: PathSettings): void {
  const area = lineArea(layers.height[layer]!, settings.lineWidth)
  const islands = findIslands(layers.outlines, layer)
  const waiting = Array.from({ length: Math.max(1, islands.count) }, () => ({ loops: [] as Loop[], fills: [] as Fill[] }))
  for (const [depth, contours] of regions.walls.entries()) {
    for (let polygon = contours.groupStart[layer]!; polygon < contours.groupStart[layer + 1]!; polygon++) {
      const first = 2 * contours.polygonStart[polygon]!
      const island = islands.find(contours.xy[first]!, contours.xy[first + 1]!)
      waiting[island]!.loops.push({ contours, polygon, depth, feature: depth === 0 ? code.outerWall : code.innerWall })
    }
  }
  for (const fill of fillsOf(regions, layer, settings)) {
    const line = fill.chain[0]!
    const u = (fill.lines.start[line]! + fill.lines.end[line]!) / 2
    const v = (fill.lines.row[line]! + 0.5) * fill.lines.spacing
    const island = islands.find(u * fill.lines.cos - v * fill.lines.sin, u * fill.lines.sin + v * fill.lines.cos)
    waiting[island]!.fills.push(fill)
  }
  const travel = (x: number, y: number): void => travelTo(out, layers.outlines, layer, x, y, settings.retractMinTravel)
  const islandsLeft = waiting.filter((island) => island.loops.length + island.fills.length > 0)
  while (islandsLeft.length > 0) {
    const island = takeNearest(islandsLeft, ({ loops, fills }) => nearestEntry(loops, fills, out.atX, out.atY))
    layLoops(out, island.loops, area, travel)
    layFills(out, island.fills, code.skin, area, travel)
    layFills(out, island.fills, code.infill, area, travel)
  }
}

/** Skins are always solid; infill that is meant solid is laid as skin. */
function fillsOf(regions: Regions, layer: number, { lineWidth, infillDensity, infillPattern }: PathSettings): Fill[] {
  const least = LEAST_LINE * lineWidth
  const turned = layer % 2 === 0 ? FILL_ANGLE : FILL_ANGLE + Math.PI / 2
  const chained = (contours: Contours, spacing: number, angle: number, feature: number): Fill[] => {
    const lines = fillLines(contours, layer, spacing, angle, least)
    return chainLines(lines).map((chain) => ({ lines, chain, feature }))
  }
  const fills = chained(regions.skin, lineWidth, turned, code.skin)
  if (infillDensity <= 0) return fills
  const spacing = (lineWidth * 100) / infillDensity
  if (infillDensity >= 100 || infillPattern === 'lines') return [...fills, ...chained(regions.infill, spacing, turned, code.infill)]
  // Two crossing sets share the density between them.
  return [
    ...fills,
    ...chained(regions.infill, 2 * spacing, turned, code.infill),
    ...chained(regions.infill, 2 * spacing, turned + Math.PI / 2, code.infill),
  ]
}

function layLoops(out: ToolpathBuilder, loops: Loop[], area: number, travel: (x: number, y: number) => void): void {
  const left = [...loops]
  while (left.length > 0) {
    const deepest = left.reduce((depth, loop) => Math.max(depth, loop.depth), 0)
    // Inside out: the next wall is the nearest among the deepest that are left.
    const { contours, polygon, feature } = takeNearest(left, (loop) =>
      loop.depth === deepest ? nearestPoint(loop, out.atX, out.atY).squared : Infinity,
    )
    const from = contours.polygonStart[polygon]!
    const count = contours.polygonStart[polygon + 1]! - from
    const first = nearestPoint({ contours, polygon }, out.atX, out.atY).index - from
    for (let i = 0; i <= count; i++) {
      const at = 2 * (from + ((first + i) % count))
      if (i === 0) travel(contours.xy[at]!, contours.xy[at + 1]!)
      else out.moveTo(contours.xy[at]!, contours.xy[at + 1]!, feature, area)
    }
  }
}

function layFills(
  out: ToolpathBuilder,
  fills: readonly Fill[],
  feature: number,
  area: number,
  travel: (x: number, y: number) => void,
): void {
  const left = fills.filter((fill) => fill.feature === feature)
  while (left.length > 0) {
    const fill = takeNearest(left, (candidate) => entryOf(candidate, out.atX, out.atY).squared)
    const { fromLast, fromEnd } = entryOf(fill, out.atX, out.atY)
    const { lines, chain } = fill
    for (let i = 0; i < chain.length; i++) {
      const line = chain[fromLast ? chain.length - 1 - i : i]!
      const v = (lines.row[line]! + 0.5) * lines.spacing
      // Back and forth: each line begins on the side where the one before it ended.
      const backwards = fromEnd !== (i % 2 === 1)
      const u0 = backwards ? lines.end[line]! : lines.start[line]!
      const u1 = backwards ? lines.start[line]! : lines.end[line]!
      travel(u0 * lines.cos - v * lines.sin, u0 * lines.sin + v * lines.cos)
      out.moveTo(u1 * lines.cos - v * lines.sin, u1 * lines.sin + v * lines.cos, feature, area)
    }
  }
}

function travelTo(out: ToolpathBuilder, outlines: Contours, layer: number, x: number, y: number, retractFrom: number): void {
  const distance = Math.hypot(x - out.atX, y - out.atY)
  if (distance === 0) return
  const retract = distance >= retractFrom && leavesPart(outlines, layer, out.atX, out.atY, x, y)
  if (retract) out.inPlace(code.retract)
  out.moveTo(x, y, code.travel, 0)
  if (retract) out.inPlace(code.pushBack)
}

/** Removes and returns the item of least cost. */
function takeNearest<T>(items: T[], cost: (item: T) => number): T {
  let best = 0
  let least = Infinity
  for (let i = 0; i < items.length && items.length > 1; i++) {
    const value = cost(items[i]!)
    if (value < least) {
      least = value
      best = i
    }
  }
  return items.splice(best, 1)[0] as T
}

function nearestPoint(
  { contours: { xy, polygonStart }, polygon }: Pick<Loop, 'contours' | 'polygon'>,
  x: number,
  y: number,
): { index: number; squared: number } {
  let index = polygonStart[polygon]!
  let squared = Infinity
  for (let i = index; i < polygonStart[polygon + 1]!; i++) {
    const dx = xy[2 * i]! - x
    const dy = xy[2 * i + 1]! - y
    const d = dx * dx + dy * dy
    if (d < squared) {
      squared = d
      index = i
    }
  }
  return { index, squared }
}

/** The nearest of a chain's four corners: first or last line, begun at its start or its end. */
function entryOf({ lines, chain }: Fill, x: number, y: number): { squared: number; fromLast: boolean; fromEnd: boolean } {
  let best = { squared: Infinity, fromLast: false, fromEnd: false }
  const u = x * lines.cos + y * lines.sin
  const v = y * lines.cos - x * lines.sin
  for (const fromLast of [false, true]) {
    const line = chain[fromLast ? chain.length - 1 : 0]!
    const dv = (lines.row[line]! + 0.5) * lines.spacing - v
    for (const fromEnd of [false, true]) {
      const du = (fromEnd ? lines.end[line]! : lines.start[line]!) - u
      const squared = du * du + dv * dv
      if (squared < best.squared) best = { squared, fromLast, fromEnd }
    }
  }
  return best
}

function nearestEntry(loops: readonly Loop[], fills: readonly Fill[], x: number, y: number): number {
  let least = Infinity
  for (const loop of loops) least = Math.min(least, nearestPoint(loop, x, y).squared)
  if (loops.length === 0) for (const fill of fills) least = Math.min(least, entryOf(fill, x, y).squared)
  return least
}
