import { type Contours, polygonArea } from '../../geometry/contours'
import type { Layers } from '../../slicing/layers'
import { footMoment } from './sway'

export interface SupportSwayFigures {
  /** How far the unsteadiest support gives way under the nozzle, mm, and where. */
  readonly mostMm: number
  readonly atZMm: number
  /** The nozzle's push, N. */
  readonly forceN: number
  /** From this height on the foot of one comes off the bed under the nozzle, mm. */
  readonly looseAboveZMm?: number
}

/** What pushes supports: MPa, N of the nozzle's side force, mm by which a brim widens their feet, MPa that the bed holds. */
export interface SupportPush {
  readonly modulus: number
  readonly force: number
  readonly brim: number
  readonly adhesion: number
}

/** A support that stands from the bed or the part up to some layer, as running sums of ∫ s^k/I ds. */
interface Trunk {
  x: number
  y: number
  reach: number
  a0: number
  a1: number
  a2: number
  /** Moment that its foot bears on the bed, N·mm; endless on the part. */
  holds: number
}

/**
 * Sway of every support on its own, as of a standing part: each body of a layer stands on the nearest one below within its
 * own reach, or begins there.
 *
 * @param share of a body's solid second moment that its pattern has: density, or what a single rim keeps
 */
export function supportSway(
  body: Contours,
  { top, height }: Layers,
  share: (radius: number) => number,
  { modulus, force, brim, adhesion }: SupportPush,
): SupportSwayFigures {
  let below: Trunk[] = []
  let most = { mostMm: 0, atZMm: 0, forceN: force }
  let looseAboveZMm: number | undefined
  for (let layer = 0; layer < top.length; layer++) {
    const here: Trunk[] = []
    const [low, high] = [top[layer]! - height[layer]!, top[layer]!]
    for (let p = body.groupStart[layer]!; p < body.groupStart[layer + 1]!; p++) {
      const area = polygonArea(body, p)
      if (area <= 0) continue
      const { x, y, least, reach } = solidOf(body, p, area)
      const foot = nearest(below, x, y, reach)
      const filled = share(Math.sqrt(area / Math.PI))
      const per = least > 0 ? 1 / (least * filled) : 0
      const trunk: Trunk = {
        x,
        y,
        reach,
        a0: (foot?.a0 ?? 0) + per * (high - low),
        a1: (foot?.a1 ?? 0) + (per * (high * high - low * low)) / 2,
        a2: (foot?.a2 ?? 0) + (per * (high ** 3 - low ** 3)) / 3,
        holds: foot?.holds ?? (layer === 0 ? footMoment({ area: area * filled, least: least * filled }, brim, adhesion) : Infinity),
      }
      if (force * high > trunk.holds) looseAboveZMm = Math.min(looseAboveZMm ?? Infinity, high)
      here.push(trunk)
      const given = (force / modulus) * Math.max(0, high * high * trunk.a0 - 2 * high * trunk.a1 + trunk.a2)
      if (given > most.mostMm) most = { mostMm: given, atZMm: high, forceN: force }
    }
    below = here
  }
  return looseAboveZMm === undefined ? most : { ...most, looseAboveZMm }
}

function nearest(trunks: readonly Trunk[], x: number, y: number, reach: number): Trunk | undefined {
  let found: Trunk | undefined
  let least = Infinity
  for (const trunk of trunks) {
    const distance = Math.hypot(trunk.x - x, trunk.y - y)
    if (distance < least && distance <= Math.max(reach, trunk.reach)) {
      least = distance
      found = trunk
    }
  }
  return found
}

/** Centroid, smaller principal second moment of the full shape, and farthest point from the centroid (Green's theorem). */
function solidOf({ xy, polygonStart }: Contours, polygon: number, area: number) {
  const from = polygonStart[polygon]!
  const to = polygonStart[polygon + 1]!
  let [sx, sy, sxx, syy, sxy] = [0, 0, 0, 0, 0]
  for (let i = from, j = to - 1; i < to; j = i++) {
    const [x0, y0, x1, y1] = [xy[2 * j]!, xy[2 * j + 1]!, xy[2 * i]!, xy[2 * i + 1]!]
    const cross = x0 * y1 - x1 * y0
    sx += (x0 + x1) * cross
    sy += (y0 + y1) * cross
    sxx += (x0 * x0 + x0 * x1 + x1 * x1) * cross
    syy += (y0 * y0 + y0 * y1 + y1 * y1) * cross
    sxy += (x0 * y1 + 2 * x0 * y0 + 2 * x1 * y1 + x1 * y0) * cross
  }
  const [x, y] = [sx / (6 * area), sy / (6 * area)]
  const ixx = sxx / 12 - area * x * x
  const iyy = syy / 12 - area * y * y
  const ixy = sxy / 24 - area * x * y
  let reach = 0
  for (let i = from; i < to; i++) reach = Math.max(reach, Math.hypot(xy[2 * i]! - x, xy[2 * i + 1]! - y))
  return { x, y, reach, least: Math.max(0, (ixx + iyy) / 2 - Math.hypot((ixx - iyy) / 2, ixy)) }
}
