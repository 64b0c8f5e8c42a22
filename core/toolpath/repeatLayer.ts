import { code, type Toolpath, type ToolpathBuilder } from './toolpath'

/** Where a part is repeated: moved, mm, and turned about its middle, ° counter-clockwise. */
export interface RepeatedAt {
  readonly x: number
  readonly y: number
  readonly z?: number
  readonly turn?: number
}

interface Repeated {
  readonly path: Toolpath
  readonly layer: number
  readonly at: RepeatedAt
  /** Whether the layer below was just laid: the way from there is gone as the one part goes it. */
  readonly goesOn: boolean
  /** Height at which the nozzle comes from elsewhere, mm, where something is in the way. */
  readonly over?: number
  /** What the path's scopes are called here. */
  readonly scopes?: readonly number[]
}

/**
 * Repeats one layer of a path somewhere. Where the nozzle comes from elsewhere it travels there with filament pulled back.
 *
 * @returns the first of its own moves: what is before it only leads there
 */
export function repeatLayer(out: ToolpathBuilder, { path, layer, at, goesOn, over = 0, scopes }: Repeated): number {
  const { x, y, z, feature, area, width, air, scope } = path
  const { z: dz = 0, turn = 0 } = at
  const [cos, sin] = turn === 0 ? [1, 0] : [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)]
  const toX = (i: number): number => at.x + x[i]! * cos - y[i]! * sin
  const toY = (i: number): number => at.y + x[i]! * sin + y[i]! * cos
  const scopeOf = (m: number): number => scopes?.[scope[m]!] ?? scope[m]!
  const end = path.layerStart[layer + 1]!
  let first = path.layerStart[layer]!
  if (!goesOn) {
    // Up to the first line of the layer; how the one part came there does not matter here.
    while (first < end && area[first] === 0) first++
    if (first === end) return out.count
    out.scopeNow = scopeOf(first)
    const startZ = z[first]! + dz
    const isAway = Math.hypot(toX(first) - out.atX, toY(first) - out.atY) > 1e-9
    const pulls = isAway && out.atZ > 0
    if (pulls) out.inPlace(code.retract)
    out.rise(isAway ? Math.max(over, startZ) : startZ)
    if (isAway) out.moveTo(toX(first), toY(first))
    out.rise(startZ)
    if (pulls) out.inPlace(code.pushBack)
  }
  const own = out.count
  for (let m = first; m < end; m++) {
    out.scopeNow = scopeOf(m)
    const lifted = z[m + 1]! - z[m]!
    if (area[m]! > 0) {
      out.layTo(toX(m + 1), toY(m + 1), feature[m]!, area[m]!, width[m]!, air[m]!)
      if (lifted !== 0) out.riseSince(out.count - 1, z[m + 1]! + dz)
    } else if (lifted !== 0) out.rise(z[m + 1]! + dz)
    else if (feature[m] === code.retract || feature[m] === code.pushBack) out.inPlace(feature[m]!)
    else out.moveTo(toX(m + 1), toY(m + 1), feature[m]!, width[m]!)
  }
  return own
}
