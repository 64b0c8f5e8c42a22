import type { Material } from '../../shelf/material'
import { code, isOfPart, moveCount, type Toolpath } from '../../toolpath/toolpath'
import type { Cuts } from './beam'
import { type Direction, frameOf, type Vector } from './direction'
import { type Grip, usualGrip } from './grip'
import { bearsAt, isWhole } from './loadPath'
import { type AxisLoadPath, bearingAt } from './loadPathByAxis'
import type { LoadKind, StrengthAt } from './sectionLoads'
import { evenSlabs, inScope, isRim, type SectionSettingsOf, weightOfInfill, weightsOfInfill } from './sections'
import { SlabSums } from './slabSums'
import { type Bulk, figuresAlong, type LoadFigure } from './strengthFigures'
import { standingShares, type Walls } from './thinWalls'

/** Sections across any direction, and between which layers each of them lies (inclusive). */
export interface ObliqueSections extends Cuts {
  readonly lowLayer: Uint32Array
  readonly highLayer: Uint32Array
}

const dot = (a: Vector, x: number, y: number, z: number): number => a[0] * x + a[1] * y + a[2] * z

/**
 * Sections across any direction, as `findSections` cuts them along the axes: every line adds its volume to the slabs that
 * it passes through. Infill counts with its stiffness in the plane and upright, in the shares of cos² and sin² of the
 * elevation (semi-empirical). Slower than along an axis; asked for one direction only.
 */
export function findObliqueSections(
  path: Toolpath,
  direction: Direction,
  settings: SectionSettingsOf,
  bearing?: AxisLoadPath,
): ObliqueSections {
  const { along, level, upright } = frameOf(direction)
  const { x, y, z, area, width, feature, scope } = path
  const points = x.length
  const [at, us, vs] = [new Float64Array(points), new Float64Array(points), new Float64Array(points)]
  for (let i = 0; i < points; i++) {
    at[i] = dot(along, x[i]!, y[i]!, z[i]!)
    us[i] = dot(level, x[i]!, y[i]!, z[i]!)
    vs[i] = dot(upright, x[i]!, y[i]!, z[i]!)
  }
  const slabs = evenSlabs(extent(path, at), inScope(settings, 0).lineWidth)
  const count = slabs.at.length
  const [step, last] = [slabs.thickness[0]!, count - 1]
  const loadPath = bearing?.loadPath
  const rows = slabs.at.map((mm) => (bearing ? Math.round((mm - bearing.first) / bearing.step) : -1))
  // Lines reach beyond their middles by half their width and, upward, half a layer: less than this, mm.
  const margin = 4
  const widen = ([low, high]: readonly [number, number]): [number, number] => [low - margin, high + margin]
  const sums = new SlabSums(count, widen(extent(path, us)), widen(extent(path, vs)))
  const lowLayer = new Uint32Array(count).fill(path.layerStart.length)
  const highLayer = new Uint32Array(count)
  const rise = Math.sin((direction.elevationDeg * Math.PI) / 180) ** 2
  const infillWeights = weightsOfInfill(
    path,
    (own) => {
      const flat = { ...own, infillAngle: own.infillAngle - direction.azimuthDeg }
      return (1 - rise) * weightOfInfill('x', flat) + rise * weightOfInfill('z', own)
    },
    settings,
  )
  const { acrossLines = 1 } = inScope(settings, 0)
  let layer = 0
  for (let m = 0; m < moveCount(path); m++) {
    while (m >= path.layerStart[layer + 1]!) layer++
    if (!isOfPart(feature[m]!)) continue
    const [dx, dy] = [x[m + 1]! - x[m]!, y[m + 1]! - y[m]!]
    const length = Math.hypot(dx, dy)
    const cos = dot(along, dx / length, dy / length, 0)
    // Between layers there are no lines to run along or across: what is lost there is the bond's.
    const weight = feature[m] === code.infill ? infillWeights[scope[m]!]! : 1 - (1 - acrossLines) * Math.max(0, 1 - rise - cos * cos)
    const weighted = ((area[m]! * length) / step) * weight
    if (!(weighted > 0)) continue
    // Half of the line's width lies sideways of it, half of its height above and below.
    const [sideX, sideY] = [(-dy / length) * (width[m]! / 2), (dx / length) * (width[m]! / 2)]
    const halfHeight = area[m]! / width[m]! / 2
    const halfU = Math.abs(dot(level, sideX, sideY, 0))
    const halfV = Math.hypot(dot(upright, sideX, sideY, 0), upright[2] * halfHeight)
    const halfAlong = Math.abs(dot(along, sideX, sideY, 0)) + Math.abs(along[2]) * halfHeight
    // The nozzle runs on top of the layer; the plastic lies half a layer below.
    const [downAt, downV] = [along[2] * halfHeight, upright[2] * halfHeight]
    const [a0, a1] = [at[m]! - downAt, at[m + 1]! - downAt]
    // A line that runs across the direction is in a slab as a whole, with a share of its thickness.
    const whole = Math.abs(a1 - a0) <= 2 * halfAlong
    const [low, high] = whole ? [(a0 + a1) / 2 - halfAlong, (a0 + a1) / 2 + halfAlong] : [Math.min(a0, a1), Math.max(a0, a1)]
    const from = Math.max(0, Math.min(last, Math.floor((low - slabs.low) / step)))
    const to = Math.max(0, Math.min(last, Math.floor((high - slabs.low) / step)))
    for (let slab = from; slab <= to; slab++) {
      const begin = slab === from ? low : slabs.low + slab * step
      const end = slab === to ? high : slabs.low + (slab + 1) * step
      const share = high > low ? (end - begin) / (high - low) : 1
      if (!(share > 0)) continue
      const t = whole ? 0.5 : ((begin + end) / 2 - a0) / (a1 - a0)
      const u = us[m]! + t * (us[m + 1]! - us[m]!)
      const v = vs[m]! - downV + t * (vs[m + 1]! - vs[m]!)
      const inSlab = whole ? 1 : share
      const [du, dv] = [inSlab * (us[m + 1]! - us[m]!), inSlab * (vs[m + 1]! - vs[m]!)]
      const own = weighted * share
      if (loadPath && !isWhole(loadPath, rows[slab]!) && !bearsAt(loadPath, rows[slab]!, layer, u)) continue
      sums.add(slab, own, u, du, v, dv, halfU, halfV)
      if (layer < lowLayer[slab]!) lowLayer[slab] = layer
      if (layer > highLayer[slab]!) highLayer[slab] = layer
      if (isRim[feature[m]!] === 1) sums.addEnds(slab, own / 2, u, du, v, dv, halfU, halfV)
    }
  }
  return { at: slabs.at, ...sums.finish(), ...bearingAt(slabs.at, bearing), lowLayer, highLayer }
}

/** Smallest and largest of what the part's lines reach. */
function extent(path: Toolpath, values: Float64Array): [number, number] {
  let [low, high] = [Infinity, -Infinity]
  for (let m = 0; m < moveCount(path); m++) {
    if (!isOfPart(path.feature[m]!)) continue
    low = Math.min(low, values[m]!, values[m + 1]!)
    high = Math.max(high, values[m]!, values[m + 1]!)
  }
  return [low, high]
}

/**
 * Strength of layered plastic that is pulled at an angle to its layers, MPa (Tsai–Hill, as in Jones, Mechanics of Composite
 * Materials, 2nd ed. 1999, §2.9.3; from memory): 1/σ² = cos⁴θ/X² + (1/S² − 1/X²)·sin²θ·cos²θ + sin⁴θ/Z². Strength between
 * layers is the bulk's times their bond, and so is their shear strength, which is a share of the pull strength.
 *
 * @param elevation angle between the load and the layers, radians
 * @param inLayer X, MPa
 * @param bond of the layers, 0–1
 * @param shear shear strength of the bulk over its pull strength; 1/√3 by von Mises
 */
export function offAxisStrength(elevation: number, inLayer: number, bond: number, shear: number): number {
  if (bond <= 0) return Math.abs(Math.sin(elevation)) < 1e-9 ? inLayer : 0
  const [c2, s2] = [Math.cos(elevation) ** 2, Math.sin(elevation) ** 2]
  const [X, Z, S] = [inLayer, inLayer * bond, inLayer * bond * shear]
  return 1 / Math.sqrt((c2 * c2) / X ** 2 + (1 / S ** 2 - 1 / X ** 2) * s2 * c2 + (s2 * s2) / Z ** 2)
}

/** Every way to load the part along a direction; between layers each section is as weak as the worst bond that it meets. */
export function obliqueFigures(
  sections: ObliqueSections,
  direction: Direction,
  bulk: Omit<Bulk, 'standing'> & { readonly bonds: Float64Array; readonly standing?: Float64Array },
  grip: Grip = usualGrip,
): Record<LoadKind, LoadFigure> {
  const inLayer = (1 - (bulk.missing ?? 0)) * bulk.material.strength.inLayer
  const strengthAt = obliqueStrengthAt(sections, direction, bulk.material.strength.inLayer, bulk.bonds, bulk.shear)
  return figuresAlong(
    sections,
    { strengthAt, inLayer, shear: bulk.shear, ...(bulk.standing ? { standing: bulk.standing } : {}) },
    bulk,
    grip,
  )
}

/** What stands of walls that are pressed along a direction; of one that leads up or down it is not known. */
export const standingAcross = (
  sections: ObliqueSections,
  { elevationDeg }: Direction,
  settings: Walls,
  { strength }: Pick<Material, 'strength'>,
): { readonly standing?: Float64Array } => (elevationDeg === 0 ? { standing: standingShares(sections, 'level', settings, strength) } : {})

/** MPa of each section across a direction. */
export const obliqueStrengthAt =
  (
    { lowLayer, highLayer }: Pick<ObliqueSections, 'lowLayer' | 'highLayer'>,
    { elevationDeg }: Direction,
    inLayer: number,
    bonds: Float64Array,
    shear: number,
  ): StrengthAt =>
  (section) => {
    const met = bonds.subarray(lowLayer[section]!, highLayer[section]! + 1)
    const worst = met.reduce((low, bond) => Math.min(low, bond), 1)
    return offAxisStrength((elevationDeg * Math.PI) / 180, inLayer, worst, shear)
  }
