import type { Solid, SolidKit } from '../solids/solidKernel'

/**
 * A wedge that hangs out of a wall facing +x: it begins at nothing on z = 0, reaches so far out, so high up, and is as deep as told
 * along y, its middle at y = 0.
 */
export const wedge = (kit: SolidKit, reach: number, rise: number, depth: number): Solid =>
  kit
    .prism(
      [
        [0, 0],
        [reach, rise],
        [0, rise],
      ],
      depth,
    )
    .turned(90, 0, 0)
    .at(0, depth / 2, 0)
