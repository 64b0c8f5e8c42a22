import { clipLines } from '../geometry/clipLines'
import { type Contours, ContoursBuilder } from '../geometry/contours'
import { type FillLines, fillLines } from '../geometry/fillLines'
import type { PolygonKernel, Region } from '../geometry/polygon'
import { chainLines, type LineChain } from './chainLines'
import { gyroidLines, gyroidPeriod } from './gyroid'
import { hexagonLines, hexagonSide } from './hexagons'

export type Pattern = 'lines' | 'grid' | 'triangles' | 'hexagons' | 'cubic' | 'gyroid' | 'concentric' | 'topPropping'

/** What fills a region: runs of parallel lines, and polylines of any shape. */
export interface Filling {
  readonly chains: readonly { readonly lines: FillLines; readonly chain: LineChain }[]
  readonly lines: readonly { readonly xy: ArrayLike<number>; readonly closed: boolean }[]
}

export interface FillRequest {
  readonly pattern: Pattern
  /** Of one line, mm. */
  readonly width: number
  /** Share of solid, 0–1. */
  readonly density: number
  /** Direction of the first lines, radians. */
  readonly angle: number
  readonly shiftX: number
  readonly shiftY: number
  /** Lines turn by a right angle from layer to layer. */
  readonly layer: number
  /** Height at which patterns in space are cut, mm. */
  readonly z: number
}

/** Lines shorter than this share of their width are blobs and are not laid. */
export const LEAST_LINE = 0.5

/** Fills one group of contours so that length of line × width is its area × density, whatever the pattern. */
export function fillRegion(contours: Contours, group: number, request: FillRequest, kernel: PolygonKernel): Filling {
  const { pattern, width, density, angle, shiftX, shiftY, layer, z } = request
  if (density <= 0 || contours.groupStart[group] === contours.groupStart[group + 1]) return { chains: [], lines: [] }
  const family = (share: number, turn: number, across = 0): Filling['chains'] => {
    const at = angle + turn
    // A shift of the whole pattern moves the rows by its part across their direction.
    const offset = shiftY * Math.cos(at) - shiftX * Math.sin(at) + across
    const lines = fillLines(contours, group, (width * share) / density, at, LEAST_LINE * width, offset)
    return chainLines(lines).map((chain) => ({ lines, chain }))
  }
  const turned = layer % 2 === 0 ? 0 : Math.PI / 2
  const third = Math.PI / 3
  if (density >= 1) return { chains: family(1, turned), lines: [] }
  switch (pattern) {
    case 'lines':
    case 'topPropping':
      return { chains: family(1, turned), lines: [] }
    case 'grid':
      return { chains: [...family(2, turned), ...family(2, turned + Math.PI / 2)], lines: [] }
    case 'triangles':
      return { chains: [...family(3, 0), ...family(3, third), ...family(3, 2 * third)], lines: [] }
    case 'cubic': {
      // Faces of cubes that stand on a corner: their lines move across by z/√2 from layer to layer.
      const across = z / Math.SQRT2
      return { chains: [...family(3, 0, across), ...family(3, 2 * third, across), ...family(3, 4 * third, across)], lines: [] }
    }
    case 'hexagons':
      return {
        chains: [],
        lines: clipped(contours, group, request, (box) => hexagonLines(hexagonSide(width, density), width, box)),
      }
    case 'gyroid':
      return { chains: [], lines: clipped(contours, group, request, (box) => gyroidLines(gyroidPeriod(width, density), z, box)) }
    case 'concentric':
      return { chains: [], lines: concentric(contours, group, width, width / density, kernel) }
  }
}

/** Lines of a pattern that is turned and shifted against the part, cut to the region. */
function clipped(
  contours: Contours,
  group: number,
  { angle, shiftX, shiftY, width }: FillRequest,
  make: (box: readonly [number, number, number, number]) => Float64Array[],
): Filling['lines'] {
  const cos = Math.cos(angle)
  const sin = Math.sin(angle)
  const box: [number, number, number, number] = [Infinity, -Infinity, Infinity, -Infinity]
  const from = contours.polygonStart[contours.groupStart[group]!]!
  const to = contours.polygonStart[contours.groupStart[group + 1]!]!
  for (let i = from; i < to; i++) {
    const x = contours.xy[2 * i]! - shiftX
    const y = contours.xy[2 * i + 1]! - shiftY
    const u = x * cos + y * sin
    const v = y * cos - x * sin
    box[0] = Math.min(box[0], u)
    box[1] = Math.max(box[1], u)
    box[2] = Math.min(box[2], v)
    box[3] = Math.max(box[3], v)
  }
  const lines = make(box)
  for (const line of lines) {
    for (let i = 0; i < line.length; i += 2) {
      const u = line[i]!
      const v = line[i + 1]!
      line[i] = u * cos - v * sin + shiftX
      line[i + 1] = u * sin + v * cos + shiftY
    }
  }
  return clipLines(lines, contours, group).flatMap((xy) => (lengthOf(xy) < LEAST_LINE * width ? [] : [{ xy, closed: false }]))
}

/** Loops that follow the rim, `spacing` apart, the first half of that inside it; endless spacing makes a single one. */
export function concentric(contours: Contours, group: number, width: number, spacing: number, kernel: PolygonKernel): Filling['lines'] {
  const builder = new ContoursBuilder()
  kernel.run((ops) => {
    const single = !Number.isFinite(spacing)
    let edge: Region = ops.offset(ops.read(contours, group), -(single ? width : spacing) / 2)
    while (!ops.isEmpty(edge)) {
      ops.write(edge, builder)
      if (single) break
      edge = ops.offset(ops.simplify(edge, width / 16), -spacing)
    }
  })
  builder.endGroup()
  const { xy, polygonStart } = builder.finish()
  return Array.from({ length: polygonStart.length - 1 }, (_, p) => ({
    xy: xy.subarray(2 * polygonStart[p]!, 2 * polygonStart[p + 1]!),
    closed: true,
  }))
}

function lengthOf(xy: ArrayLike<number>): number {
  let length = 0
  for (let i = 2; i < xy.length; i += 2) length += Math.hypot(xy[i]! - xy[i - 2]!, xy[i + 1]! - xy[i - 1]!)
  return length
}
