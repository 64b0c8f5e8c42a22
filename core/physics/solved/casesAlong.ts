import type { Grip } from '../strength/grip'
import type { Axis } from '../strength/sections'
import type { Case } from './solvedLoad'
import type { Extent, Three } from './voxels'

/** Loads along an axis that can be solved: of three points both ends would have to slide. */
export type SolvedKind = 'pull' | 'bend' | 'bendHigh' | 'crush'

/** A load along an axis as a case: the low end is held and the far end loaded, or the other way round; bent in whichever direction is weakest. One newton. */
export function caseAlong({ low, high }: Extent, axis: Axis, kind: SolvedKind, { heldTo, loadedFrom }: Grip): Case {
  const k = { x: 0, y: 1, z: 2 }[axis]
  const length = high[k]! - low[k]!
  const ends = (from: number, to: number) => [
    {
      low: low.map((mm, i) => (i === k ? low[k]! + from * length : mm - AROUND)) as unknown as Three,
      high: high.map((mm, i) => (i === k ? low[k]! + to * length : mm + AROUND)) as unknown as Three,
    },
  ]
  const [near, far] = [ends(-1, heldTo), ends(loadedFrom, 2)]
  const unit = (of: number, sign = 1): Three => [0, 1, 2].map((i) => (i === of ? sign : 0)) as unknown as Three
  const [u, v] = [0, 1, 2].filter((i) => i !== k) as [number, number]
  if (kind === 'pull' || kind === 'crush') return { hold: near, load: far, forces: [unit(k, kind === 'pull' ? 1 : -1)] }
  return { hold: kind === 'bend' ? near : far, load: kind === 'bend' ? far : near, forces: [unit(u), unit(v)] }
}
/** Ends reach this far beyond the part, mm. */
const AROUND = 1
