import type { Grip } from '../strength/grip'
import type { LoadKind } from '../strength/sectionLoads'
import type { Axis } from '../strength/sections'
import type { Case, Hold } from './structure'
import type { Extent, Three } from './voxels'
import type { Region } from './where'

const fixed = [true, true, true] as const

/**
 * A load along an axis as a case, of one newton: the low end is held and the far end loaded, or the other way round; bent in whichever direction is
 * weakest. On two supports it may turn over both, and slide along the axis over one.
 */
export function caseAlong(extent: Extent, axis: Axis, kind: LoadKind, { heldTo, loadedFrom }: Grip): Case {
  const { low, high } = extent
  const k = { x: 0, y: 1, z: 2 }[axis]
  const length = high[k]! - low[k]!
  const slab = (from: number, to: number) => ({
    low: low.map((mm, i) => (i === k ? low[k]! + from * length : mm - AROUND)) as unknown as Three,
    high: high.map((mm, i) => (i === k ? low[k]! + to * length : mm + AROUND)) as unknown as Three,
  })
  const box = (from: number, to: number): readonly Region[] => [{ kind: 'box', ...slab(from, to) }]
  const [near, far] = [box(-1, heldTo), box(loadedFrom, 2)]
  const unit = (of: number, sign = 1): Three => [0, 1, 2].map((i) => (i === of ? sign : 0)) as unknown as Three
  const [u, v] = [0, 1, 2].filter((i) => i !== k) as [number, number]
  const push = (where: readonly Region[], force: Three) => [{ where, force }]
  if (kind === 'pull') return { holds: [{ where: near, along: fixed }], loads: [push(far, unit(k))] }
  if (kind === 'crush') {
    // What presses keeps its end from sliding sideways, not from turning.
    const press: readonly Region[] = [{ kind: 'plane', ...slab(loadedFrom, loadedFrom) }]
    const guided: Hold = { where: press, along: [0, 1, 2].map((i) => i !== k) as unknown as Hold['along'] }
    return { holds: [{ where: near, along: fixed }, guided], loads: [push(press, unit(k, -1))], buckles: true }
  }
  if (kind === 'threePoint') {
    const middle = (heldTo + loadedFrom) / 2
    const where = box(middle - PRESS, middle + PRESS)
    return { holds: supports(slab, heldTo, loadedFrom, extent, k), loads: [push(where, unit(u)), push(where, unit(v))] }
  }
  const [held, loaded] = kind === 'bend' ? [near, far] : [far, near]
  return { holds: [{ where: held, along: fixed }], loads: [push(loaded, unit(u)), push(loaded, unit(v))] }
}

/** Ends reach this far beyond the part, mm. */
const AROUND = 1
/** A press in the middle reaches so far to either side, of the length. */
const PRESS = 0.02

/** Two sheets across the part that only hold it up, and the middle of the first, that does not slide. */
function supports(
  slab: (from: number, to: number) => { readonly low: Three; readonly high: Three },
  from: number,
  to: number,
  { low, high }: Extent,
  k: number,
): readonly Hold[] {
  const up = [0, 1, 2].map((i) => i !== k) as unknown as Hold['along']
  const along = [0, 1, 2].map((i) => i === k) as unknown as Hold['along']
  const sheet = (at: number): readonly Region[] => [{ kind: 'plane', ...slab(at, at) }]
  const middle = low.map((mm, i) => (i === k ? slab(from, from).low[k]! : (mm + high[i]!) / 2)) as unknown as Three
  return [
    { where: sheet(from), along: up },
    { where: sheet(to), along: up },
    { where: [{ kind: 'point', at: middle }], along },
  ]
}
