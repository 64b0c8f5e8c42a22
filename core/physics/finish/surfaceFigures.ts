import type { Constants } from '../../constants/constants'
import { areaNormal } from '../../mesh/measure'
import { type Mesh, triangleCount } from '../../mesh/mesh'
import { type BeltLine, beltAt } from '../../mesh/tiltedBelt'
import type { Scopes } from '../../profile/overrides'
import { type Layers, layerAt } from '../../slicing/layers'
import { scopeAt } from '../../slicing/zones'
import { facetRoughness } from './roughness'

/** Which part of a surface a person will see. */
export const seenParts = ['all', 'sides', 'top'] as const

export interface Roughness {
  /** Mean over the area, µm. */
  readonly raMeanUm: number
  /** Nineteen twentieths of the area are no rougher, µm. */
  readonly ra95Um: number
}

/** Over everything but the face on the bed, and over what leans no more than 45° from the vertical, and what faces up. */
export interface SurfaceFigures extends Roughness {
  readonly sides: Roughness
  readonly top: Roughness
  /** Shares of the area that are sides and tops, 0–1. */
  readonly sidesShare: number
  readonly topShare: number
}

/** A surface whose lines miss so much of their plastic: gaps between them add to its steps as the root of squares. */
export function starved(surface: SurfaceFigures, missing: number, { starved }: Constants['finish']): SurfaceFigures {
  if (missing === 0) return surface
  const rougher = ({ raMeanUm, ra95Um }: Roughness): Roughness => ({
    raMeanUm: Math.hypot(raMeanUm, starved * missing),
    ra95Um: Math.hypot(ra95Um, starved * missing),
  })
  return { ...surface, ...rougher(surface), sides: rougher(surface.sides), top: rougher(surface.top) }
}

/** What is done to a surface beside laying it. */
export interface Treatment {
  /** Of the lines that tops are made of, mm. */
  readonly lineWidth: number
  /** Tops are smoothed with the bare nozzle; or whether they are at a place of a layer, mm. */
  readonly ironed: boolean | ((layer: number, x: number, y: number) => boolean)
  /** Faces that lean farther over than this from the vertical stand on supports, radians; none do when absent. */
  readonly supportedBeyond?: number
}

/** What a profile does to a surface, and its overrides where they change that. */
export function treatmentOf(scopes: Scopes, layers: Layers): Treatment {
  const { ironing, supports, supportAngle, lineWidth } = scopes.settings
  const byPlace = scopes.overrides.some(({ values }) => values.ironing !== undefined)
  return {
    lineWidth,
    ironed: byPlace ? (layer, x, y) => scopes.settingsOf(scopeAt(layers, layer, x, y, scopes)).ironing === 'on' : ironing === 'on',
    ...(supports === 'off' ? {} : { supportedBeyond: (supportAngle * Math.PI) / 180 }),
  }
}

/** Faces this near the bed or belt, mm, take its texture and are left out. */
const ON_BED = 1e-3
/** What leans more than this from the vertical is no side, as the sine. */
const SIDE = Math.SQRT1_2
/** Flat tops within this of level, as the sine, are reached by ironing. */
const IRONABLE = Math.cos((5 * Math.PI) / 180)

/** Roughness over the part as it stands on the bed, weighted by area. The face on the bed is not counted. */
export function surfaceFigures(mesh: Mesh, layers: Layers, treatment: Treatment, finish: Constants['finish']): SurfaceFigures {
  const { areas, roughness, up } = facetRoughnesses(mesh, layers, treatment, finish)
  const over = (seen?: (up: number) => boolean): Roughness => {
    const own = seen ? areas.map((area, t) => (seen(up[t]!) ? area : 0)) : areas
    let total = 0
    let weighted = 0
    for (let t = 0; t < own.length; t++) {
      total += own[t]!
      weighted += own[t]! * roughness[t]!
    }
    return { raMeanUm: total > 0 ? weighted / total : 0, ra95Um: quantile(own, roughness, 0.95) }
  }
  const all = areas.reduce((sum, area) => sum + area, 0)
  const isSide = (u: number): boolean => Math.abs(u) <= SIDE
  const isTop = (u: number): boolean => u > SIDE
  const shareOf = (seen: (up: number) => boolean): number =>
    all > 0 ? areas.reduce((sum, area, t) => sum + (seen(up[t]!) ? area : 0), 0) / all : 0
  return { ...over(), sides: over(isSide), top: over(isTop), sidesShare: shareOf(isSide), topShare: shareOf(isTop) }
}

/** Area (mm²; 0 for faces on the bed), roughness (µm) and upward share of the normal (−1 to 1) of each triangle. */
export function facetRoughnesses(
  mesh: Mesh,
  { top, height, belt }: Layers,
  { lineWidth, ironed, supportedBeyond = Infinity }: Treatment,
  finish: Constants['finish'],
): { areas: Float64Array; roughness: Float64Array; up: Float64Array } {
  const count = triangleCount(mesh)
  const areas = new Float64Array(count)
  const roughness = new Float64Array(count)
  const up = new Float64Array(count)
  const normal = new Float64Array(3)
  const isIroned = typeof ironed === 'function' ? ironed : () => ironed
  for (let t = 0; t < count; t++) {
    const twice = areaNormal(mesh, t, normal)
    if (twice === 0 || liesOnBed(mesh, t, belt)) continue
    areas[t] = twice / 2
    up[t] = normal[2]! / twice
    const tilt = Math.asin(Math.min(1, Math.abs(up[t]!)))
    const layer = layerAt(top, middleOf(mesh, t, 2))
    const treated =
      up[t]! >= IRONABLE && isIroned(layer, middleOf(mesh, t, 0), middleOf(mesh, t, 1))
        ? finish.ironed
        : up[t]! < 0 && tilt > supportedBeyond
          ? finish.supported
          : 1
    roughness[t] = treated * facetRoughness({ height: height[layer]!, width: lineWidth }, tilt, up[t]! < 0, finish)
  }
  return { areas, roughness, up }
}

const cornerHeight = (mesh: Mesh, t: number, corner: number): number => mesh.positions[3 * mesh.triangles[3 * t + corner]! + 2]!

function liesOnBed(mesh: Mesh, t: number, belt: BeltLine | undefined): boolean {
  for (let corner = 0; corner < 3; corner++) {
    const z = cornerHeight(mesh, t, corner)
    const over = belt ? mesh.positions[3 * mesh.triangles[3 * t + corner]! + 1]! - beltAt(belt, z) : z
    if (over >= ON_BED) return false
  }
  return true
}

/** Middle of a triangle along an axis: 0 x, 1 y, 2 z. */
function middleOf({ positions, triangles }: Mesh, t: number, axis: number): number {
  const at = (corner: number): number => positions[3 * triangles[3 * t + corner]! + axis]!
  return (at(0) + at(1) + at(2)) / 3
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
