import { type Contours, polygonArea } from '../geometry/contours'
import type { Strands } from '../geometry/strands'
import { type Layers, layerCount } from '../slicing/layers'
import type { Walls } from './walls'

/** What gets no line since it is too thin for one. */
export interface LostDetail {
  /** Layers that have more separate pieces in the model than in what is laid along its rim. */
  readonly layersWithLostPieces: number
  /** Summed over the layers, mm². */
  readonly areaMm2: number
}

type Laid = Pick<Walls, 'walls' | 'wallParts' | 'thin' | 'lost'>

/** A tilted layer that cuts an edge of the part begins or ends as a sliver: there, nothing is lost that was ever to be seen. */
export function lostDetail(layers: Layers, { walls: [outer], wallParts: [outerParts], thin, lost }: Laid): LostDetail {
  const count = layerCount(layers)
  const [from, to] = layers.belt ? [1, count - 1] : [0, count]
  let [layersWithLostPieces, areaMm2] = [0, 0]
  for (let layer = from; layer < to; layer++) {
    areaMm2 += lost[layer]!
    const laid = piecesIn(outer, layer) + linesIn(thin, layer) + linesIn(outerParts, layer)
    if (outer && piecesIn(layers.outlines, layer) > laid) layersWithLostPieces++
  }
  return { layersWithLostPieces, areaMm2 }
}

function piecesIn(contours: Contours | undefined, layer: number): number {
  if (!contours) return 0
  let pieces = 0
  for (let p = contours.groupStart[layer]!; p < contours.groupStart[layer + 1]!; p++) if (polygonArea(contours, p) > 0) pieces++
  return pieces
}

const linesIn = (strands: Strands | undefined, layer: number): number =>
  strands ? strands.groupStart[layer + 1]! - strands.groupStart[layer]! : 0
