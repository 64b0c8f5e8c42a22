import type { Contours } from '../geometry/contours'
import { polygonArea } from '../geometry/contours'
import type { Pen } from './pen'
import { LineStroke, layNearestFirst, takeNearest } from './strokes'
import { code } from './toolpath'

/** One closed wall, waiting to be laid. */
export interface Loop {
  readonly contours: Contours
  readonly polygon: number
  /** 0 is the outermost wall. */
  readonly depth: number
}

export interface WallOrder {
  readonly wallOrder: 'insideFirst' | 'outsideFirst'
  readonly finishEachLoop: 'on' | 'off'
}

/** What waits to be laid as a wall: a loop, or a line that ends where a place with settings of its own does. */
export type WallLine = Loop | { readonly stroke: LineStroke; readonly depth: number }

/** A point of it, that tells which body it belongs to. */
export function anchorOf(wall: WallLine): readonly [x: number, y: number] {
  if ('stroke' in wall) return wall.stroke.anchor
  const at = 2 * wall.contours.polygonStart[wall.polygon]!
  return [wall.contours.xy[at]!, wall.contours.xy[at + 1]!]
}

/**
 * Lays the walls of one body of a layer.
 *
 * @param seams point at which each outermost wall begins, one a polygon
 */
export function layWallLines(walls: readonly WallLine[], order: WallOrder, seams: Uint32Array, width: number, pen: Pen): void {
  const strokeOf = (wall: WallLine): LineStroke => {
    if ('stroke' in wall) return wall.stroke
    const { contours, polygon, depth } = wall
    const xy = contours.xy.subarray(2 * contours.polygonStart[polygon]!, 2 * contours.polygonStart[polygon + 1]!)
    const bead = { feature: depth === 0 ? code.outerWall : code.innerWall, width, height: pen.height, flow: 1 }
    return depth === 0 ? new LineStroke(xy, true, bead, undefined, seams[polygon]!) : new LineStroke(xy, true, bead)
  }
  const loops = walls.filter((wall): wall is Loop => !('stroke' in wall))
  const families = order.finishEachLoop === 'on' ? [...familiesOf(loops), walls.filter((wall) => 'stroke' in wall)] : [walls]
  const waiting = families.map((family) => {
    const depths = [...new Set(family.map(({ depth }) => depth))].sort((a, b) => (order.wallOrder === 'insideFirst' ? b - a : a - b))
    return depths.map((depth) => family.filter((wall) => wall.depth === depth).map(strokeOf))
  })
  while (waiting.length > 0) {
    const next = takeNearest(waiting, ([first]) =>
      (first ?? []).reduce((least, stroke) => Math.min(least, stroke.nearness(pen.atX, pen.atY)), Infinity),
    )
    for (const strokes of next) layNearestFirst(strokes, pen)
  }
}

/** Walls that follow the same rim of the part, outermost first: an inner wall belongs to the nearest one outside it. */
function familiesOf(loops: readonly Loop[]): Loop[][] {
  const families = loops.filter(({ depth }) => depth === 0).map((loop) => ({ last: [loop], all: [loop], sign: signOf(loop) }))
  if (families.length === 0) return [[...loops]]
  const deepest = loops.reduce((most, { depth }) => Math.max(most, depth), 0)
  for (let depth = 1; depth <= deepest; depth++) {
    const here = loops.filter((loop) => loop.depth === depth)
    const added = families.map(() => [] as Loop[])
    for (const loop of here) {
      const sign = signOf(loop)
      const same = families.map((_, i) => i).filter((i) => families[i]!.sign === sign)
      const home = same.length === 1 ? same[0]! : nearestFamily(loop, families, same.length > 0 ? same : families.map((_, i) => i))
      added[home]!.push(loop)
    }
    for (const [i, family] of families.entries()) {
      family.all.push(...added[i]!)
      if (added[i]!.length > 0) family.last = added[i]!
    }
  }
  return families.map(({ all }) => all)
}

const signOf = ({ contours, polygon }: Loop): number => Math.sign(polygonArea(contours, polygon))

function nearestFamily(
  { contours, polygon }: Loop,
  families: readonly { readonly last: readonly Loop[] }[],
  among: readonly number[],
): number {
  const at = 2 * contours.polygonStart[polygon]!
  const x = contours.xy[at]!
  const y = contours.xy[at + 1]!
  let best = among[0]!
  let least = Infinity
  for (const i of among) {
    for (const loop of families[i]!.last) {
      for (let p = loop.contours.polygonStart[loop.polygon]!; p < loop.contours.polygonStart[loop.polygon + 1]!; p++) {
        const squared = (loop.contours.xy[2 * p]! - x) ** 2 + (loop.contours.xy[2 * p + 1]! - y) ** 2
        if (squared < least) {
          least = squared
          best = i
        }
      }
    }
  }
  return best
}
