import type { Mesh } from '@sable/core/mesh/mesh'
import { block } from './block'
import { arc, type Ring } from './ring'

const [RADIUS, HEIGHT] = [7, 9]
const KNURLS = 24
const SHAFT = 2.05

/** The knob that turns the wick: small, knurled, with a flatted bore for its spindle. */
export function wickKnob(): Mesh {
  const outline: Ring = Array.from({ length: 6 * KNURLS }, (_, i) => {
    const angle = (2 * Math.PI * i) / (6 * KNURLS)
    const radius = RADIUS + 0.35 * Math.cos(KNURLS * angle)
    return [radius * Math.cos(angle), radius * Math.sin(angle)] as const
  })
  // A circle with a flat: what keeps it from slipping on its spindle.
  const flat = Math.acos(0.72)
  const bore: Ring = arc(0, 0, SHAFT, flat, 2 * Math.PI - flat, 40)
  return block(outline, [{ ring: bore }], HEIGHT)
}
