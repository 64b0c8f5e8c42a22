import type { Mesh } from '@sable/core/mesh/mesh'
import { lathe } from './lathe'

/** The ornament on top of a lantern: tall, thin and turned, it sways under the nozzle. */
export function finial(): Mesh {
  const steps = 140
  const height = 92
  const outline = Array.from({ length: steps + 1 }, (_, i) => {
    const t = i / steps
    const taper = 8.5 * (1 - t) ** 1.3 + 1.4
    const turned = 1 + 0.3 * Math.sin(7.5 * Math.PI * t) * (1 - t)
    return [taper * turned, t * (height - 2)] as const
  })
  const [topRadius, topZ] = outline[outline.length - 1]!
  const cap = Array.from({ length: 8 }, (_, i) => {
    const angle = ((i + 1) / 9) * (Math.PI / 2)
    return [topRadius * Math.cos(angle), topZ + 2 * Math.sin(angle)] as const
  })
  return lathe([[0, 0], ...outline, ...cap, [0, height]], 96, false)
}
