export type Vector = readonly [x: number, y: number, z: number]

/** A direction in the frame of the part as it lies: from x towards y, and up from the bed. */
export interface Direction {
  readonly azimuthDeg: number
  readonly elevationDeg: number
}

/** The direction and two across it: the first level, the second as upright as can be. Unit vectors. */
export function frameOf({ azimuthDeg, elevationDeg }: Direction): { along: Vector; level: Vector; upright: Vector } {
  const [azimuth, elevation] = [(azimuthDeg * Math.PI) / 180, (elevationDeg * Math.PI) / 180]
  const [ca, sa, ce, se] = [Math.cos(azimuth), Math.sin(azimuth), Math.cos(elevation), Math.sin(elevation)]
  return { along: [ca * ce, sa * ce, se], level: [-sa, ca, 0], upright: [-ca * se, -sa * se, ce] }
}

/** Angles of a vector, in whole thousandths of a degree. */
export function directionOf([x, y, z]: Vector): Direction {
  const degrees = (radians: number): number => Number(((radians * 180) / Math.PI).toFixed(3)) + 0
  const level = Math.hypot(x, y)
  return { azimuthDeg: level < 1e-9 ? 0 : degrees(Math.atan2(y, x)), elevationDeg: degrees(Math.atan2(z, level)) }
}
