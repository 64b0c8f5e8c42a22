import type { Mesh } from '@sable/core/mesh/mesh'
import { lathe } from './lathe'

const HEIGHT = 78
const THICKNESS = 1.8
const STEPS = 96
const FLUTES = 24

/** The lantern's shade: a thin, bellied and fluted shell, there to be looked at. About 74,000 triangles. */
export function shade(): Mesh {
  const heights = Array.from({ length: STEPS + 1 }, (_, i) => (HEIGHT * i) / STEPS)
  const belly = (z: number): number => 27 + 13 * Math.sin((Math.PI * (z / HEIGHT + 0.12)) / 1.25)
  const outside = heights.map((z) => [belly(z), z] as const)
  const inside = heights.map((z) => [belly(z) - THICKNESS, z] as const).toReversed()
  return lathe([...outside, ...inside], 192, true, (radius, _z, angle) => radius + 0.9 * Math.cos(FLUTES * angle))
}
