import { groupArea } from '../geometry/contours'
import type { PolygonKernel, Region } from '../geometry/polygon'
import { code, isOfPart } from '../toolpath/toolpath'
import type { LaidOut } from './layOut'

export interface Coverage {
  /** Area of the part in the layer, mm². */
  readonly part: number
  /** Plastic laid for the part, as area: length × width × flow. */
  readonly laid: number
  /** Area of all strips together, and of what they cover at least once, mm². */
  readonly strips: number
  readonly covered: number
  /** Area of strips that lies outside the part, mm². */
  readonly outside: number
}

/** What the lines of a layer cover, ironing left out; `widthShare` makes every line narrower than it is. */
export function coverageOf({ layers, path }: LaidOut, layer: number, kernel: PolygonKernel, withInfill = true, widthShare = 1): Coverage {
  const height = layers.height[layer]!
  let laid = 0
  const lines: { xy: number[]; width: number }[] = []
  for (let m = path.layerStart[layer]!; m < path.layerStart[layer + 1]!; m++) {
    const feature = path.feature[m]!
    if (!isOfPart(feature) || feature === code.ironing || (feature === code.infill && !withInfill)) continue
    const length = Math.hypot(path.x[m + 1]! - path.x[m]!, path.y[m + 1]! - path.y[m]!)
    laid += (path.area[m]! / height) * length
    const last = lines[lines.length - 1]
    const follows = m > 0 && path.feature[m - 1] === feature && last?.width === path.width[m]
    if (follows && last) last.xy.push(path.x[m + 1]!, path.y[m + 1]!)
    else lines.push({ xy: [path.x[m]!, path.y[m]!, path.x[m + 1]!, path.y[m + 1]!], width: path.width[m]! })
  }
  return kernel.run((ops) => {
    const strips: Region[] = lines.map(({ xy, width }) => {
      const closed = Math.hypot(xy[0]! - xy[xy.length - 2]!, xy[1]! - xy[xy.length - 1]!) < 1e-6
      return ops.unite(ops.strip(closed ? xy.slice(0, -2) : xy, width * widthShare, closed))
    })
    const all = ops.unite(ops.gather(strips))
    const outline = ops.offset(ops.read(layers.outlines, layer), 0.01)
    return {
      part: groupArea(layers.outlines, layer),
      laid,
      strips: strips.reduce((sum, strip) => sum + ops.area(strip), 0),
      covered: ops.area(all),
      outside: ops.area(ops.subtract(all, outline)),
    }
  })
}
