import type { Contours } from '../regions/contours'
import { type SeamChoice, seamOf } from './seam'

/**
 * Where every outermost wall begins, layer by layer from the bed up: near to where one began in the layer below, so that
 * seams stand above each other.
 *
 * @param walls centre lines, one group a layer
 * @returns the point of `walls` at which each of its polygons begins, counted from the first of the polygon
 */
export function chooseSeams(walls: Contours, choiceOn: (layer: number) => SeamChoice): Uint32Array {
  const { xy, polygonStart, groupStart } = walls
  const seams = new Uint32Array(polygonStart.length - 1)
  let below: (readonly [x: number, y: number])[] = []
  for (let layer = 0; layer < groupStart.length - 1; layer++) {
    const here: (readonly [x: number, y: number])[] = []
    for (let p = groupStart[layer]!; p < groupStart[layer + 1]!; p++) {
      const from = polygonStart[p]!
      const at = seamOf(walls, p, choiceOn(layer), nearestOf(below, xy[2 * from]!, xy[2 * from + 1]!), layer)
      seams[p] = at - from
      here.push([xy[2 * at]!, xy[2 * at + 1]!])
    }
    below = here
  }
  return seams
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
