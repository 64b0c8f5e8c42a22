import { areaNormal } from '../mesh/measure'
import { type Mesh, triangleCount } from '../mesh/mesh'
import type { Layers } from '../slicing/layers'
import { type BeltLine, beltAt } from '../slicing/tiltedBelt'
import { facetRoughness } from './roughness'

export interface SurfaceFigures {
  /** Mean over the visible area, µm. */
  readonly raMeanUm: number
  /** Nineteen twentieths of the visible area are no rougher, µm. */
  readonly ra95Um: number
}

/** Faces this near the bed or belt, mm, take its texture and are left out. */
const ON_BED = 1e-3

/** Roughness over the whole part as it stands on the bed, weighted by area. The face on the bed is not counted. */
export function surfaceFigures(mesh: Mesh, layers: Layers): SurfaceFigures {
  const { areas, roughness } = facetRoughnesses(mesh, layers)
  let total = 0
  let weighted = 0
  for (let t = 0; t < areas.length; t++) {
    total += areas[t]!
    weighted += areas[t]! * roughness[t]!
  }
  return { raMeanUm: total > 0 ? weighted / total : 0, ra95Um: quantile(areas, roughness, 0.95) }
}

/** Area (mm²; 0 for faces on the bed) and roughness (µm) of each triangle. */
export function facetRoughnesses(mesh: Mesh, { top, height, belt }: Layers): { areas: Float64Array; roughness: Float64Array } {
  const count = triangleCount(mesh)
  const areas = new Float64Array(count)
  const roughness = new Float64Array(count)
  const normal = new Float64Array(3)
  for (let t = 0; t < count; t++) {
    const twice = areaNormal(mesh, t, normal)
    if (twice === 0 || liesOnBed(mesh, t, belt)) continue
    areas[t] = twice / 2
    const up = normal[2]! / twice
    const layer = layerAt(top, middleHeight(mesh, t))
    roughness[t] = facetRoughness(height[layer]!, Math.asin(Math.min(1, Math.abs(up))), up < 0)
  }
  return { areas, roughness }
}

const cornerHeight = (mesh: Mesh, t: number, corner: number): number => mesh.positions[3 * mesh.triangles[3 * t + corner]! + 2]!

const liesOnBed = (mesh: Mesh, t: number, belt: BeltLine | undefined): boolean =>
  [0, 1, 2].every((corner) => {
    const z = cornerHeight(mesh, t, corner)
    return (belt ? mesh.positions[3 * mesh.triangles[3 * t + corner]! + 1]! - beltAt(belt, z) : z) < ON_BED
  })

const middleHeight = (mesh: Mesh, t: number): number => (cornerHeight(mesh, t, 0) + cornerHeight(mesh, t, 1) + cornerHeight(mesh, t, 2)) / 3

/** First layer whose top reaches `z`. */
function layerAt(tops: Float64Array, z: number): number {
  let low = 0
  let high = tops.length - 1
  while (low < high) {
    const middle = (low + high) >>> 1
    if (tops[middle]! < z) low = middle + 1
    else high = middle
  }
  return low
}

const BINS = 2048

/** Value below which `share` of the weight lies. Only the bin that holds it is sorted. */
function quantile(weights: Float64Array, values: Float64Array, share: number): number {
  let total = 0
  let highest = 0
  for (let i = 0; i < values.length; i++) {
    total += weights[i]!
    if (values[i]! > highest) highest = values[i]!
  }
  if (highest === 0) return 0
  const binOf = (i: number): number => Math.min(BINS - 1, Math.floor((values[i]! / highest) * BINS))
  const weightOf = new Float64Array(BINS)
  for (let i = 0; i < values.length; i++) weightOf[binOf(i)]! += weights[i]!
  let below = 0
  let bin = 0
  while (bin < BINS - 1 && below + weightOf[bin]! < share * total) below += weightOf[bin++]!
  const inBin: number[] = []
  for (let i = 0; i < values.length; i++) if (weights[i]! > 0 && binOf(i) === bin) inBin.push(i)
  inBin.sort((a, b) => values[a]! - values[b]!)
  for (const i of inBin) {
    below += weights[i]!
    if (below >= share * total) return values[i]!
  }
  return inBin.length > 0 ? values[inBin[inBin.length - 1]!]! : 0
}
