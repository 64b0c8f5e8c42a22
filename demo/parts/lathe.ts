import type { Mesh } from '@sable/core/mesh/mesh'

/**
 * Turns a profile of radius and height about the z axis. A profile that begins and ends on the axis makes a solid body;
 * a closed one makes a ring. `modulate` may change the radius with the angle (radians).
 *
 * @param profile radius, height pairs, mm, running upward along the outside
 */
export function lathe(
  profile: readonly (readonly [number, number])[],
  segments: number,
  closed: boolean,
  modulate: (radius: number, z: number, angle: number) => number = (r) => r,
): Mesh {
  const positions: number[] = []
  const triangles: number[] = []
  const rings = profile.map(([radius, z]) => {
    if (radius === 0) return [positions.push(0, 0, z) / 3 - 1]
    return Array.from({ length: segments }, (_, i) => {
      const angle = (2 * Math.PI * i) / segments
      const r = modulate(radius, z, angle)
      return positions.push(r * Math.cos(angle), r * Math.sin(angle), z) / 3 - 1
    })
  })
  for (let k = 0; k < (closed ? rings.length : rings.length - 1); k++) {
    const low = rings[k]!
    const high = rings[(k + 1) % rings.length]!
    for (let i = 0; i < segments; i++) {
      const j = (i + 1) % segments
      if (low.length > 1) triangles.push(low[i]!, low[j]!, high.length > 1 ? high[j]! : high[0]!)
      if (high.length > 1) triangles.push(low.length > 1 ? low[i]! : low[0]!, high[j]!, high[i]!)
    }
  }
  return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) }
}
