import type { Contours } from '../geometry/contours'
import type { Scopes } from '../profile/overrides'
import { scopeOn } from '../regions/zones'
import type { Layers } from '../slicing/layers'
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
    for (let p = groupStart[layer]!; p < groupStart[layer + 1]!; p++) {
      const from = polygonStart[p]!
      const at = seamOf(outer, p, seam, nearestOf(below, xy[2 * from]!, xy[2 * from + 1]!), layer)
      seams[p] = at - from
      here.push([xy[2 * at]!, xy[2 * at + 1]!])
    }
    below = here
  }
  return shared(seams)
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
