import type { PolygonKernel } from '../../geometry/polygon'
import { holds, polygonsOf } from '../../geometry/polygonsOf'
import type { Regions } from '../../regions/findRegions'
import { type Layers, layerCount } from '../../slicing/layers'
import { code, type Toolpath } from '../../toolpath/toolpath'

/** A piece of top or bottom that lies on infill without a single line under it. */
export interface UnproppedTop {
  /** Middle of the piece, mm. */
  readonly at: readonly [x: number, y: number, z: number]
  readonly areaMm2: number
}

/** Pieces smaller than this many line widths squared bridge by themselves. */
const LEAST_PIECE = 25

/** Tops under which the infill, as it is turned and shifted, has no line (CP-K5, common practice). */
export function unproppedTops(layers: Layers, regions: Regions, path: Toolpath, lineWidth: number, kernel: PolygonKernel): UnproppedTop[] {
  const found: UnproppedTop[] = []
  for (let layer = 1; layer < layerCount(layers); layer++) {
    const pieces = kernel.run((ops) => {
      const topBottom = ops.read(regions.topBottom, layer)
      const below = ops.read(regions.infill, layer - 1)
      return ops.isEmpty(topBottom) || ops.isEmpty(below) ? [] : polygonsOf(ops, ops.offset(ops.intersect(topBottom, below), -lineWidth))
    })
    for (const rims of pieces) {
      const area = rims.reduce((sum, rim) => sum + signedArea(rim), 0)
      if (area < LEAST_PIECE * lineWidth * lineWidth || hasLine(path, layer - 1, rims)) continue
      const [outer] = rims as [Float64Array]
      const count = outer.length / 2
      const middle = [0, 1].map((k) => outer.reduce((sum, value, i) => (i % 2 === k ? sum + value : sum), 0) / count) as [number, number]
      found.push({ at: [...middle, layers.top[layer]!], areaMm2: area })
    }
  }
  return found
}

/** Whether any infill line of a layer runs through a piece; told from points along the lines. */
function hasLine(path: Toolpath, layer: number, rims: readonly Float64Array[]): boolean {
  const inside = (x: number, y: number): boolean => rims.reduce((is, rim) => is !== holds(rim, x, y), false)
  for (let m = path.layerStart[layer]!; m < path.layerStart[layer + 1]!; m++) {
    if (path.feature[m] !== code.infill) continue
    const dx = path.x[m + 1]! - path.x[m]!
    const dy = path.y[m + 1]! - path.y[m]!
    const pieces = Math.max(1, Math.ceil(Math.hypot(dx, dy)))
    for (let k = 0; k <= pieces; k++) if (inside(path.x[m]! + (dx * k) / pieces, path.y[m]! + (dy * k) / pieces)) return true
  }
  return false
}

function signedArea(xy: ArrayLike<number>): number {
  let twice = 0
  for (let i = 0, j = xy.length - 2; i < xy.length; j = i, i += 2) twice += xy[j]! * xy[i + 1]! - xy[i]! * xy[j + 1]!
  return twice / 2
}
