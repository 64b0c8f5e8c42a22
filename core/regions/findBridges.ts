import { ContoursBuilder } from '../geometry/contours'
import { fillLines } from '../geometry/fillLines'
import type { PolygonOps, Region } from '../geometry/polygon'
import { holds, polygonsOf, regionOf } from '../geometry/polygonsOf'

/** Directions that are tried, spread over half a turn. */
const DIRECTIONS = 18
/** A piece is a bridge when at least this share of its lines ends on the layer below at both ends; else it is an overhang. */
const LEAST_BORNE = 0.5

/**
 * Turns every piece of top or bottom that hangs over air along its span: of many directions, the one in which most of the length
 * of its lines ends on the layer below at both ends, and among equals the one with the shortest lines.
 *
 * @param over pieces without anything below
 * @param below outline of the layer below
 * @returns the pieces that can be bridged with the direction of their lines, radians, and the mean length of these, mm
 */
export function bridgeAngles(ops: PolygonOps, over: Region, below: Region, width: number): { area: Region; angle: number; span: number }[] {
  const bearing = polygonsOf(ops, below)
  const isBorne = (x: number, y: number): boolean =>
    bearing.some((rims) => rims.reduce((inside, rim) => inside !== holds(rim, x, y), false))
  const found: { area: Region; angle: number; span: number }[] = []
  for (const piece of polygonsOf(ops, over)) {
    const builder = new ContoursBuilder()
    for (const rim of piece) builder.addPolygon(rim)
    builder.endGroup()
    const contours = builder.finish()
    let best = { angle: 0, borne: -1, mean: Infinity }
    for (let d = 0; d < DIRECTIONS; d++) {
      const angle = (d * Math.PI) / DIRECTIONS
      const lines = fillLines(contours, 0, 2 * width, angle, width / 2)
      let all = 0
      let borne = 0
      for (let i = 0; i < lines.count; i++) {
        const v = (lines.row[i]! + 0.5) * lines.spacing
        const at = (u: number): boolean => isBorne(u * lines.cos - v * lines.sin, u * lines.sin + v * lines.cos)
        const length = lines.end[i]! - lines.start[i]!
        all += length
        if (at(lines.start[i]! - width / 2) && at(lines.end[i]! + width / 2)) borne += length
      }
      if (all === 0) continue
      const share = borne / all
      const mean = all / lines.count
      if (share > best.borne + 0.02 || (share > best.borne - 0.02 && mean < best.mean)) best = { angle, borne: share, mean }
    }
    if (best.borne >= LEAST_BORNE) found.push({ area: regionOf(ops, piece), angle: best.angle, span: best.mean })
  }
  return found
}
