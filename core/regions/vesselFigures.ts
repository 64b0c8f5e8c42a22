import { type Contours, polygonArea } from '../geometry/contours'
import type { Settings } from '../profile/settings'
import type { Layers } from '../slicing/layers'
import { layerCount } from '../slicing/layers'
import { spiralFrom } from './spiral'

/** How far a part is a vessel: one that a single wall could go round without end. */
export interface VesselFigures {
  /** One body on every layer above its bottom, with one hole at most. */
  readonly isVessel: boolean
  /** How thick its wall is modelled where that is hollow everywhere, mm. */
  readonly wallMm?: number
  /** Faces within it that look up, which a wall alone leaves open, mm², and where the largest is; its top is open anyway. */
  readonly open: { readonly areaMm2: number; readonly atZMm: number }
  /** By how much its outline draws in most from one layer to the next where no face looks up, mm, and where. */
  readonly leansIn: { readonly mm: number; readonly atZMm: number }
  /** By how much it grows most from one layer to the next, alike. */
  readonly leansOut: { readonly mm: number; readonly atZMm: number }
}

/** An outline that draws in by more than so many line widths at once leaves a face. Assumed. */
const FACE = 1

export function vesselFigures(layers: Layers, settings: Pick<Settings, 'bottomLayers' | 'lineWidth'>): VesselFigures {
  const { outlines, top } = layers
  const [from, count] = [spiralFrom(settings), layerCount(layers)]
  let isVessel = count > from
  let [walls, hollow] = [0, 0]
  const open = { areaMm2: 0, atZMm: 0 }
  const [leansIn, leansOut] = [
    { mm: 0, atZMm: 0 },
    { mm: 0, atZMm: 0 },
  ]
  let largest = 0
  let below: Ring | undefined
  for (let layer = from; layer < count; layer++) {
    const ring = ringOf(outlines, layer)
    if (!ring) {
      isVessel = false
      below = undefined
      continue
    }
    if (ring.hole > 0) {
      hollow++
      walls = Math.max(walls, (2 * (ring.area - ring.hole)) / ring.around)
    }
    if (below) {
      const drawn = (below.area - ring.area) / below.rim
      if (drawn > FACE * settings.lineWidth) {
        const face = below.area - ring.area
        open.areaMm2 += face
        if (face > largest) [largest, open.atZMm] = [face, top[layer - 1]!]
      } else if (drawn > leansIn.mm) [leansIn.mm, leansIn.atZMm] = [drawn, top[layer]!]
      const grown = (ring.area - below.area) / ring.rim
      if (grown > leansOut.mm) [leansOut.mm, leansOut.atZMm] = [grown, top[layer]!]
    }
    below = ring
  }
  return { isVessel, ...(isVessel && hollow === count - from ? { wallMm: walls } : {}), open, leansIn, leansOut }
}

interface Ring {
  /** Within the outer rim, and of its hole, mm²; lengths of the outer rim and of both, mm. */
  readonly area: number
  readonly hole: number
  readonly rim: number
  readonly around: number
}

/** The one body of a layer; nothing where it is not alone. */
function ringOf(outlines: Contours, layer: number): Ring | undefined {
  let ring: Ring | undefined
  let [holes, hole, inner] = [0, 0, 0]
  for (let p = outlines.groupStart[layer]!; p < outlines.groupStart[layer + 1]!; p++) {
    const area = polygonArea(outlines, p)
    const rim = rimOf(outlines, p)
    if (area > 0) {
      if (ring) return undefined
      ring = { area, hole: 0, rim, around: rim }
    } else {
      holes++
      hole = -area
      inner = rim
    }
  }
  return ring && holes <= 1 ? { ...ring, hole, around: ring.rim + inner } : undefined
}

function rimOf({ xy, polygonStart }: Contours, polygon: number): number {
  let sum = 0
  for (let i = polygonStart[polygon]!, j = polygonStart[polygon + 1]! - 1; i < polygonStart[polygon + 1]!; j = i++)
    sum += Math.hypot(xy[2 * i]! - xy[2 * j]!, xy[2 * i + 1]! - xy[2 * j + 1]!)
  return sum
}
