import { type StatedLoad, statedLoad } from '@sable/core/figures/table/stated'
import type { Purpose } from '@sable/core/physics/strength/purpose'
import type { Prediction } from '@sable/core/pipeline/predict'
import { bearsIn } from '@sable/core/views/bearsMask'
import type { LoadMap, SectionLoads } from '@sable/core/views/loadMap'

/** How a candidate bears its stated load along its length. */
export interface Bearing {
  readonly load: StatedLoad
  /** The axis that sections are cut across; nothing for a direction of its own. */
  readonly axis: 'x' | 'y' | 'z' | undefined
  readonly along: readonly [number, number, number]
  readonly sections: SectionLoads
  /** Where the part begins and ends along the load, mm, and between where it is judged. */
  readonly from: number
  readonly to: number
  readonly low: number
  readonly high: number
}

const units = { x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] } as const

export function bearingOf(prediction: Prediction, map: LoadMap, purpose: Purpose): Bearing {
  const load = statedLoad(prediction, purpose)
  const named = load.along.toLowerCase()
  const axis = named === 'x' || named === 'y' || named === 'z' ? named : undefined
  const own = map.own.find(({ azimuthDeg }) => azimuthDeg === load.azimuthDeg)
  const sections = axis ? map.axes[axis] : (own ?? map.free ?? map.axes.z)
  const { atMm } = sections
  const step = atMm.length > 1 ? atMm[1]! - atMm[0]! : 0
  const [from, to] = [atMm[0]! - step / 2, atMm.at(-1)! + step / 2]
  return {
    load,
    axis,
    along: axis ? units[axis] : ((own ?? map.free)?.along ?? units.z),
    sections,
    from,
    to,
    low: from + (purpose.load.heldTo / 100) * (to - from),
    high: from + (purpose.load.loadedFrom / 100) * (to - from),
  }
}

/** Whether what lies at a place of a section bears the load: so far along it and across it, mm. */
export const bears = ({ sections }: Bearing, at: number, across: number): boolean =>
  sections.bears === undefined || bearsIn(sections.bears, at, across)

/** Stress over strength of each section when the part bears what it can: 1 where it fails; not a number where it bears none. */
export function stressRatios({ load, sections }: Bearing): Float32Array {
  return Float32Array.from(sections.loadN[load.kind], (own) => (Number.isFinite(own) && own > 0 ? load.loadN / own : Number.NaN))
}

/** Where a force acts on a beam from 0 to 1, which way, and where the beam is held. */
export interface FreeBody {
  /** Along the beam, pointing out of it or into it, or across it. */
  readonly forces: readonly { readonly at: number; readonly way: 'out' | 'in' | 'across' | 'back'; readonly share: number }[]
  readonly held: readonly { readonly at: number; readonly how: 'clamped' | 'rests' }[]
  /** Between force and clamp, of the beam; what the bending moment at the clamp is the force times. */
  readonly arm: number
}

/** The load freed from its part: forces in shares of the one that is applied. */
export function freeBodyOf({ load, from, to, low, high }: Bearing): FreeBody {
  const share = (mm: number): number => (mm - from) / (to - from)
  const [a, b] = [share(low), share(high)]
  switch (load.kind) {
    case 'pull':
      return { forces: [{ at: b, way: 'out', share: 1 }], held: [{ at: a, how: 'clamped' }], arm: 0 }
    case 'crush':
      return { forces: [{ at: b, way: 'in', share: 1 }], held: [{ at: a, how: 'clamped' }], arm: 0 }
    case 'bend':
      return { forces: [{ at: b, way: 'across', share: 1 }], held: [{ at: a, how: 'clamped' }], arm: b - a }
    case 'bendHigh':
      return { forces: [{ at: a, way: 'across', share: 1 }], held: [{ at: b, how: 'clamped' }], arm: b - a }
    case 'threePoint':
      return {
        forces: [
          { at: (a + b) / 2, way: 'across', share: 1 },
          { at: a, way: 'back', share: 0.5 },
          { at: b, way: 'back', share: 0.5 },
        ],
        held: [
          { at: a, how: 'rests' },
          { at: b, how: 'rests' },
        ],
        arm: (b - a) / 2,
      }
  }
}
