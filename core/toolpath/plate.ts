import { copyPlaces } from './copyPaths'

/** What a printer's record says of the room on its bed. */
export interface Room {
  readonly kinematics: string
  /** Along X, Y and Z, mm. */
  readonly buildVolume: readonly [number, number, number]
  /** That its head needs to every side of what is higher than this, mm; absent where nobody has measured it. */
  readonly clearance?: { readonly radius: number; readonly height: number } | undefined
}

/** So many are never put on one plate: a belt has no end, and a reel has. */
const MOST = 50

/**
 * How many copies of a part can be printed one after another on one plate, and how far apart they stand, mm: as far as the head needs, which is not
 * known of every printer; then it is one.
 *
 * @param size of the part along X, Y and Z, mm
 * @param gap that is wanted where the head needs no more, mm
 */
export function plateOf(
  size: readonly [number, number, number],
  { kinematics, buildVolume, clearance }: Room,
  gap: number,
): { readonly most: number; readonly gap: number } {
  if (kinematics === 'tiltedBelt') return { most: MOST, gap }
  if (!clearance) return { most: 1, gap }
  const apart = size[2] <= clearance.height ? gap : Math.max(gap, clearance.radius)
  const along = (axis: 0 | 1): number => Math.floor((buildVolume[axis] + apart) / (size[axis] + apart))
  let most = 1
  for (let copies = 2; copies <= Math.min(MOST, along(0) * along(1)); copies++) {
    const places = copyPlaces(size, { copies, copyGap: apart, copyOrder: 'oneAtATime', liftHeight: 0 })
    const spread = (axis: 0 | 1): number =>
      Math.max(...places.map((at) => at[axis])) - Math.min(...places.map((at) => at[axis])) + size[axis]
    if (spread(0) <= buildVolume[0] && spread(1) <= buildVolume[1]) most = copies
  }
  return { most, gap: apart }
}
