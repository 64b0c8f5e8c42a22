import { type Contours, polygonArea } from '../geometry/contours'
import type { Strands } from '../geometry/strands'
import type { Walls } from './walls'

/** Layers that have more separate pieces in the model than in what is laid along its rim. */
export function countLostPieces(
  outlines: Contours,
  { walls: [outer], wallParts: [outerParts], thin }: Pick<Walls, 'walls' | 'wallParts' | 'thin'>,
): number {
  if (!outer) return 0
  const pieces = (contours: Contours, layer: number): number => {
    let n = 0
    for (let p = contours.groupStart[layer]!; p < contours.groupStart[layer + 1]!; p++) if (polygonArea(contours, p) > 0) n++
    return n
  }
  let layersWithLoss = 0
  for (let layer = 0; layer < outlines.groupStart.length - 1; layer++) {
    if (pieces(outlines, layer) > pieces(outer, layer) + linesIn(thin, layer) + linesIn(outerParts, layer)) layersWithLoss++
  }
  return layersWithLoss
}

const linesIn = (strands: Strands | undefined, layer: number): number =>
  strands ? strands.groupStart[layer + 1]! - strands.groupStart[layer]! : 0
