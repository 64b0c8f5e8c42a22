import { type BeltLine, beltAt } from '../mesh/tiltedBelt'
import type { Override } from './overrides'

/** A straight rim of a place: it holds where x·across[0] + y·across[1] ≤ most, mm. */
export interface Side {
  readonly across: readonly [number, number]
  readonly most: number
}

/** A convex part of a layer in which an override holds: within all of its sides; everywhere where there are none. */
export interface Patch {
  /** Its place in the list. */
  readonly of: number
  readonly override: Override
  readonly sides: readonly Side[]
}

export const isIn = ({ sides }: Patch, x: number, y: number): boolean =>
  sides.every(({ across, most }) => x * across[0] + y * across[1] <= most)

/** Farther from the middle than anything that is worked on, mm. */
const FAR = 10_000

/** Corners of a patch, x, y …, counter-clockwise; none where its sides leave nothing. A square is cut by one side after another. */
export function cornersOf({ sides }: Pick<Patch, 'sides'>): number[] {
  let corners = [-FAR, -FAR, FAR, -FAR, FAR, FAR, -FAR, FAR]
  for (const { across, most } of sides) {
    const over = (i: number): number => corners[i]! * across[0] + corners[i + 1]! * across[1] - most
    const kept: number[] = []
    for (let i = 0; i < corners.length; i += 2) {
      const next = (i + 2) % corners.length
      const [here, there] = [over(i), over(next)]
      if (here <= 0) kept.push(corners[i]!, corners[i + 1]!)
      if (here * there >= 0) continue
      const share = here / (here - there)
      kept.push(corners[i]! + share * (corners[next]! - corners[i]!), corners[i + 1]! + share * (corners[next + 1]! - corners[i + 1]!))
    }
    corners = kept
  }
  return corners
}

/** Sides of a box seen from above, in the frame of the part. */
export function sidesOf({ minX, maxX, minY, maxY, turn = 0 }: NonNullable<Override['box']>): Side[] {
  const [cos, sin] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)]
  const [x, y] = [(minX + maxX) / 2, (minY + maxY) / 2]
  const side = (across: readonly [number, number], reach: number): Side => ({
    across,
    most: x * across[0] + y * across[1] + reach,
  })
  return [
    side([cos, sin], (maxX - minX) / 2),
    side([-cos, -sin], (maxX - minX) / 2),
    side([-sin, cos], (maxY - minY) / 2),
    side([sin, -cos], (maxY - minY) / 2),
  ]
}

/** Nearness to a belt means nothing on a level bed, where every place is as far from one. */
export const onLevelLayer = ({ box }: Override): Side[] => (box ? sidesOf(box) : [])

/**
 * Where a place of the part lies in a tilted layer: turned with it, its heights become a range along the gantry. With the
 * angle α between gantry and belt and n = z − start·tan α, a point of the layer at y is n·sin α − y·cos α along the belt
 * and y·sin α + n·cos α above it; x runs the other way (see toBeltFrame).
 */
export function onTiltedLayer({ box, fromZ, toZ, nearBelt }: Override, z: number, belt: BeltLine): Side[] {
  const angle = Math.atan2(1, -belt.slope)
  const [sin, cos] = [Math.sin(angle), Math.cos(angle)]
  const n = z + belt.start / belt.slope
  const above = (height: number): number => (height - n * cos) / sin
  return [
    ...(box ? sidesOf(box) : []).map(
      ({ across, most }): Side => ({ across: [-across[0], -across[1] * cos], most: most - across[1] * n * sin }),
    ),
    ...(fromZ > 0 ? [{ across: [0, -1], most: -above(fromZ) } as const] : []),
    ...(toZ === undefined ? [] : [{ across: [0, 1], most: above(toZ) } as const]),
    ...(nearBelt === undefined ? [] : [{ across: [0, 1], most: beltAt(belt, z) + nearBelt } as const]),
  ]
}
