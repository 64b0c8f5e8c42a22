import { type Contours, polygonArea } from '../geometry/contours'
import type { Strands } from '../geometry/strands'

/** Layers that have more separate pieces in the model than in what is laid along its rim. */
export function countLostPieces(
  outlines: Contours,
  { walls: [outer], thin }: { readonly walls: readonly Contours[]; readonly thin: Strands },
): number {
  if (!outer) return 0
  const pieces = (contours: Contours, layer: number): number => {
    let n = 0
    for (let p = contours.groupStart[layer]!; p < contours.groupStart[layer + 1]!; p++) if (polygonArea(contours, p) > 0) n++
    return n
  }
  let layersWithLoss = 0
  for (let layer = 0; layer < outlines.groupStart.length - 1; layer++) {
    const lines = thin.groupStart[layer + 1]! - thin.groupStart[layer]!
    if (pieces(outlines, layer) > pieces(outer, layer) + lines) layersWithLoss++
  }
  return layersWithLoss
}
