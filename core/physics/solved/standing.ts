import { joinedTo } from '../../elements/mesh'
import type { Toolpath } from '../../toolpath/toolpath'
import type { Steps } from '../../units/steps'
import type { Plastic } from './limits'
import { type Case, type Hold, structuresWork } from './structure'
import { bearableVoxel, type Three, type Voxels, voxelsOf, type Which } from './voxels'
import { Places, type Region } from './where'

/** How what stands on the bed gives way at its top. */
export interface Standing {
  /** Of its weakest body up there, pushed its weakest way, mm/N. */
  readonly mmPerN: number
  readonly voxelMm: number
  readonly cells: number
  /** How many bodies there are up there, each of which is pushed by itself, and how high up that is, mm. */
  readonly bodies: number
  readonly topMm: number
}

/** So many of the bodies up there are pushed at most: those with least plastic. */
const MOST_BODIES = 3

/**
 * How far what is laid so far gives way under the nozzle: held by the bed, each body of its uppermost layer pushed by itself, for the nozzle is on one at a
 * time. Yields the share that is done.
 *
 * @param isLookedAt what stands already
 * @throws InputError where nothing of it stands on the bed
 */
export function* standingWork(
  path: Toolpath,
  plastic: Plastic,
  isLookedAt: Which,
  { voxelMm, mostCells }: { readonly voxelMm: number; readonly mostCells: number },
): Steps<Standing> {
  const voxels = voxelsOf(path, bearableVoxel(path, voxelMm, mostCells, isLookedAt), isLookedAt)
  const { origin, size } = voxels
  const holds: readonly Hold[] = [{ where: [sheetAt(origin[2])], along: [true, true, true] }]
  const { kept } = joinedTo(voxels, new Places(voxels).marked(holds[0]!.where))
  const tops = topBodies(voxels, kept)
  const cases = tops.slice(0, MOST_BODIES).map((where): Case => {
    const push = (force: Three) => [{ where: [where], force }]
    return { holds, loads: [push([1, 0, 0]), push([0, 1, 0])] }
  })
  const structures = yield* structuresWork(voxels, plastic, cases)
  const given = structures.map(({ forces, moved }) => {
    const c = (i: number, j: number): number => forces[i]!.reduce((sum, force, d) => sum + force * moved[j]![d]!, 0)
    // The larger of two principal values.
    return (c(0, 0) + c(1, 1)) / 2 + Math.hypot((c(0, 0) - c(1, 1)) / 2, c(0, 1))
  })
  return {
    mmPerN: Math.max(...given),
    voxelMm: Math.max(...size),
    cells: structures[0]!.kept.length,
    bodies: tops.length,
    topMm: tops[0]!.high[2],
  }
}

const sheetAt = (z: number): Region => ({ kind: 'plane', low: [-1e6, -1e6, z], high: [1e6, 1e6, z] })

type BoxRegion = Extract<Region, { readonly kind: 'box' }>

/** Boxes round what hangs together in the uppermost cells that stand on the bed, those with least plastic first. */
function topBodies({ counts, origin, size, at, share }: Voxels, kept: Int32Array): BoxRegion[] {
  const [nx, ny] = counts
  const highest = kept.reduce((most, c) => Math.max(most, Math.floor(at[c]! / (nx * ny))), 0)
  const first = nx * ny * highest
  const left = new Map<number, number>()
  for (const c of kept) if (at[c]! >= first) left.set(at[c]! - first, share[c]!)
  const bodies: { readonly plastic: number; readonly region: BoxRegion }[] = []
  while (left.size > 0) {
    const stack = [left.keys().next().value!]
    let [plastic, lowX, lowY, highX, highY] = [0, nx, ny, 0, 0]
    while (stack.length > 0) {
      const own = stack.pop()!
      const its = left.get(own)
      if (its === undefined) continue
      left.delete(own)
      plastic += its
      const [x, y] = [own % nx, Math.floor(own / nx)]
      lowX = Math.min(lowX, x)
      lowY = Math.min(lowY, y)
      highX = Math.max(highX, x)
      highY = Math.max(highY, y)
      for (let dy = -1; dy <= 1; dy++)
        for (let dx = -1; dx <= 1; dx++) if (x + dx >= 0 && x + dx < nx && y + dy >= 0 && y + dy < ny) stack.push(own + dx + nx * dy)
    }
    const low: Three = [origin[0] + size[0] * lowX, origin[1] + size[1] * lowY, origin[2] + size[2] * highest]
    const high: Three = [origin[0] + size[0] * (highX + 1), origin[1] + size[1] * (highY + 1), origin[2] + size[2] * (highest + 1)]
    bodies.push({ plastic, region: { kind: 'box', low, high } })
  }
  return bodies.sort((a, b) => a.plastic - b.plastic).map(({ region }) => region)
}
