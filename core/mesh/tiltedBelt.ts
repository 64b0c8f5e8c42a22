import { measureBox } from './measure'
import type { Mesh } from './mesh'
import { transform } from './place'

/**
 * Where the belt runs in the frame of a tilted machine's layers: it meets the layer at height z along y = start + slope · z,
 * the slope being minus the cotangent of the angle between gantry and belt: every layer reaches farther on the belt than the
 * one below it. Lengths in mm.
 */
export interface BeltLine {
  readonly start: number
  readonly slope: number
}

/** A part seen in the frame of a tilted machine's layers. */
export interface BeltFrame {
  readonly mesh: Mesh
  readonly belt: BeltLine
}

export const beltAt = ({ start, slope }: BeltLine, z: number): number => start + slope * z

/**
 * Turns a part that lies on the belt (z = 0, belt running along y) so that the layers of a machine tilted by `angle`
 * degrees are level: in-plane y up the gantry, z across the layers. The gantry leans over what is printed already, since the
 * nozzle comes from above: with its direction (−cos α, sin α) and its normal (sin α, cos α) in the y–z plane, a point of the
 * belt at y lies at (−y·cos α, y·sin α), so every layer touches it, and the first is the edge that lies on the belt.
 */
export function toBeltFrame(mesh: Mesh, angle: number): BeltFrame {
  const cos = Math.cos((angle * Math.PI) / 180)
  const sin = Math.sin((angle * Math.PI) / 180)
  // x turns round as well, so that this is a rotation and no mirror: the part is seen from behind the gantry.
  const turned = transform(mesh, [-1, 0, 0, 0, -cos, sin, 0, sin, cos])
  const low = measureBox(turned).min[2]
  const positions = turned.positions.map((value, i) => (i % 3 === 2 ? value - low : value))
  return { mesh: { positions, triangles: turned.triangles }, belt: { start: (-low * cos) / sin, slope: -cos / sin } }
}
