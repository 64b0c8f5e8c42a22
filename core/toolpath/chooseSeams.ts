import type { Contours } from '../geometry/contours'
import type { Scopes } from '../profile/overrides'
import { isSpiral } from '../regions/spiral'
import type { Layers } from '../slicing/layers'
import { scopeOn } from '../slicing/zones'
import { shared } from '../units/shared'
import { seamOf } from './seam'

/**
 * Where every outermost wall begins, layer by layer from the bed up: near to where one began in the layer below, so that
 * seams stand above each other.
 *
 * @returns the point at which each polygon of the outermost walls begins, counted from its first
 */
export function chooseSeams(layers: Layers, { walls: [outer] }: { readonly walls: readonly Contours[] }, scopes: Scopes): Uint32Array {
  if (!outer) return new Uint32Array(0)
  const { xy, polygonStart, groupStart } = outer
  const seams = new Uint32Array(polygonStart.length - 1)
  let below: (readonly [x: number, y: number])[] = []
  for (let layer = 0; layer < groupStart.length - 1; layer++) {
    const here: (readonly [x: number, y: number])[] = []
    const { seam } = scopes.settingsOf(scopeOn(layers, layer, scopes))
    const rises = isSpiral(layer, scopes.settings)
    for (let p = groupStart[layer]!; p < groupStart[layer + 1]!; p++) {
      const from = polygonStart[p]!
      const near = nearestOf(below, xy[2 * from]!, xy[2 * from + 1]!)
      // Each turn of one line ends where the next begins.
      const at = rises ? nearestPoint(outer, p, near) : seamOf(outer, p, seam, near, layer)
      seams[p] = at - from
      here.push([xy[2 * at]!, xy[2 * at + 1]!])
    }
    below = here
  }
  return shared(seams)
}

/** The point of a polygon that is nearest to a place. */
function nearestPoint({ xy, polygonStart }: Contours, polygon: number, [x, y]: readonly [number, number]): number {
  let [best, least] = [polygonStart[polygon]!, Infinity]
  for (let i = polygonStart[polygon]!; i < polygonStart[polygon + 1]!; i++) {
    const squared = (xy[2 * i]! - x) ** 2 + (xy[2 * i + 1]! - y) ** 2
    if (squared < least) [best, least] = [i, squared]
  }
  return best
}

function nearestOf(seams: readonly (readonly [x: number, y: number])[], x: number, y: number): readonly [x: number, y: number] {
  let near: readonly [x: number, y: number] = [x, y]
  let least = Infinity
  for (const seam of seams) {
    const squared = (seam[0] - x) ** 2 + (seam[1] - y) ** 2
    if (squared < least) {
      least = squared
      near = seam
    }
  }
  return near
}
