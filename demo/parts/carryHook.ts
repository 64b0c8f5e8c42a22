import type { Mesh } from '@sable/core/mesh/mesh'
import { block } from './block'
import { arc, circle, type Ring } from './ring'

const THICKNESS = 9
const BAR = 10
const BEND = 17
const SHANK = 46
const EYE = 11

/** The hook by which a lantern is carried: a flat J with an eye at the top, bent open by the load. */
export function carryHook(): Mesh {
  const [inner, outer] = [BEND - BAR / 2, BEND + BAR / 2]
  // The bend is centred on the origin; the shank rises on the right to the eye, the tip ends on the left.
  const tip = -0.15 * Math.PI
  const eyeY = SHANK + EYE * 0.8
  const meets = Math.asin((outer - BEND) / EYE)
  const outline: Ring = [
    ...arc(0, 0, outer, Math.PI + tip, 2 * Math.PI, 48),
    ...arc(BEND, eyeY, EYE, -Math.PI / 2 + meets, (3 * Math.PI) / 2 - meets, 48),
    ...arc(0, 0, inner, 2 * Math.PI, Math.PI + tip, 40),
    ...arc(
      BEND * Math.cos(Math.PI + tip),
      BEND * Math.sin(Math.PI + tip),
      BAR / 2,
      Math.PI + tip - Math.PI,
      Math.PI + tip - 2 * Math.PI,
      12,
    ).slice(1, -1),
  ]
  return block(outline, [{ ring: circle(BEND, eyeY, 5, 40) }], THICKNESS)
}
