import type { Mesh } from '@sable/core/mesh/mesh'
import earcut from 'earcut'
import type { Ring } from './ring'

/** A hole in a block: all the way through, or down to a floor at this height, mm. */
export interface Hole {
  readonly ring: Ring
  readonly floor?: number
}

/** A flat outline made `height` mm thick, with holes and pockets from above. Watertight. */
export function block(outer: Ring, holes: readonly Hole[], height: number): Mesh {
  const positions: number[] = []
  const triangles: number[] = []
  const place = (ring: Ring, z: number): number[] => ring.map(([x, y]) => positions.push(x, y, z) / 3 - 1)
  const wall = (low: readonly number[], high: readonly number[], inward: boolean): void => {
    for (let i = 0; i < low.length; i++) {
      const [a, b, c, d] = [low[i]!, low[(i + 1) % low.length]!, high[(i + 1) % low.length]!, high[i]!]
      if (inward) triangles.push(a, c, b, a, d, c)
      else triangles.push(a, b, c, a, c, d)
    }
  }
  const face = (rings: readonly (readonly number[])[], up: boolean): void => {
    const flat = rings.flat()
    const starts = rings.slice(1).map((_, i) => rings.slice(0, i + 1).reduce((n, ring) => n + ring.length, 0))
    const ears = earcut(
      flat.flatMap((v) => [positions[3 * v]!, positions[3 * v + 1]!]),
      starts,
    )
    for (let i = 0; i < ears.length; i += 3) {
      const [a, b, c] = [flat[ears[i]!]!, flat[ears[i + 1]!]!, flat[ears[i + 2]!]!]
      const [ax, ay, bx, by, cx, cy] = [a, b, c].flatMap((v) => [positions[3 * v]!, positions[3 * v + 1]!]) as [
        number,
        number,
        number,
        number,
        number,
        number,
      ]
      const facesUp = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax) > 0
      if (facesUp === up) triangles.push(a, b, c)
      else triangles.push(a, c, b)
    }
  }
  const bottom = place(outer, 0)
  const top = place(outer, height)
  wall(bottom, top, false)
  const rims = holes.map(({ ring, floor }) => {
    const high = place(ring, height)
    const low = place(ring, floor ?? 0)
    wall(low, high, true)
    if (floor !== undefined) face([low], true)
    return { high, low, through: floor === undefined }
  })
  face([top, ...rims.map((rim) => rim.high)], true)
  face([bottom, ...rims.filter((rim) => rim.through).map((rim) => rim.low)], false)
  return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) }
}
