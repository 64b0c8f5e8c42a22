import type { Mesh } from '@sable/core/mesh/mesh'

/** A step of a hollow body of revolution: how high it lies, and its two radii there, mm. */
export interface Level {
  readonly z: number
  readonly inner: number
  readonly outer: number
}

/**
 * A round wall with windows: between any two levels it is divided into as many cells as there are segments, of which some are left
 * out. Watertight as long as no two cells that are left out, or kept, touch at an edge alone.
 *
 * @param isKept whether a cell stands: between which levels, and how many segments round
 */
export function wallOfCells(levels: readonly Level[], segments: number, isKept: (level: number, segment: number) => boolean): Mesh {
  const positions: number[] = []
  const triangles: number[] = []
  const corner = (k: number, i: number, isOuter: boolean): number => {
    const { z, inner, outer } = levels[k]!
    const angle = (2 * Math.PI * (i % segments)) / segments
    const radius = isOuter ? outer : inner
    return positions.push(radius * Math.cos(angle), radius * Math.sin(angle), z) / 3 - 1
  }
  const known = new Map<string, number>()
  const at = (k: number, i: number, isOuter: boolean): number => {
    const key = `${k} ${i % segments} ${isOuter}`
    const found = known.get(key) ?? corner(k, i, isOuter)
    known.set(key, found)
    return found
  }
  const face = (a: number, b: number, c: number, d: number): void => {
    triangles.push(a, b, c, a, c, d)
  }
  const kept = (k: number, i: number): boolean => k >= 0 && k < levels.length - 1 && isKept(k, (i + segments) % segments)
  for (let k = 0; k < levels.length - 1; k++)
    for (let i = 0; i < segments; i++) {
      if (!kept(k, i)) continue
      const [low, high] = [k, k + 1]
      face(at(low, i, true), at(low, i + 1, true), at(high, i + 1, true), at(high, i, true))
      face(at(low, i + 1, false), at(low, i, false), at(high, i, false), at(high, i + 1, false))
      if (!kept(k - 1, i)) face(at(low, i, false), at(low, i + 1, false), at(low, i + 1, true), at(low, i, true))
      if (!kept(k + 1, i)) face(at(high, i, true), at(high, i + 1, true), at(high, i + 1, false), at(high, i, false))
      if (!kept(k, i - 1)) face(at(low, i, false), at(low, i, true), at(high, i, true), at(high, i, false))
      if (!kept(k, i + 1)) face(at(low, i + 1, true), at(low, i + 1, false), at(high, i + 1, false), at(high, i + 1, true))
    }
  return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) }
}
