import type { Settings } from '../../profile/settings'
import { code, features, isOfPart, layerTop, moveCount, type Toolpath } from '../../toolpath/toolpath'
import type { Cuts } from './beam'
import { infillModulusInPlane, infillModulusUpright } from './infillModulus'
import { bearsAt, isWhole } from './loadPath'
import { type AxisLoadPath, bearingAt } from './loadPathByAxis'
import { SlabSums } from './slabSums'

export const axes = ['x', 'y', 'z'] as const
export type Axis = (typeof axes)[number]

/**
 * Cross-sections of the printed part at even steps along an axis, from the lines that are really laid. Walls, tops and bottoms
 * count in full, infill with its share of the solid's stiffness, so areas and moments are those of an equal solid beam.
 *
 * One entry a section: `at` its middle (mm). The directions u and v across the axis are, for x: y and z; for y: x and z; for
 * z: those that the plan was turned to.
 */
export interface Sections extends Cuts {
  readonly axis: Axis
}

export interface SectionSettings extends Pick<Settings, 'lineWidth' | 'infillDensity' | 'infillPattern' | 'infillAngle'> {
  /** Stiffness of sparse infill over what its formula says; 1 where nothing is told. */
  readonly infillStiffness?: number
  /** What lines bear across themselves over what they bear along; 1 where nothing is told. */
  readonly acrossLines?: number
  /** How thick the tops and bottoms are that keep infill from giving way sideways, over the part's height; none where nothing is told. */
  readonly confined?: number
}

/** One for the whole part, or one for each scope of its path. */
export type SectionSettingsOf = SectionSettings | ((scope: number) => SectionSettings)

export const inScope = (settings: SectionSettingsOf, scope: number): SectionSettings =>
  typeof settings === 'function' ? settings(scope) : settings

/** Sections are at least this many line widths thick, so that slanted fill lines are met evenly. */
const LEAST_THICKNESS = 2.5
const MOST_SECTIONS = 160

/**
 * Sums lines up in slabs across the axis: along z the layers, along x and y even slabs. A line adds its volume over the
 * slab's thickness, so material is conserved whatever the direction of the line; what runs across the load counts less.
 *
 * @param turned by how much u and v of sections across z are turned from x and y, radians
 */
export function findSections(
  path: Toolpath,
  axis: Axis,
  settings: SectionSettingsOf,
  box: Box = boxOf(path),
  loadPath?: AxisLoadPath,
  turned = 0,
): Sections {
  const slabs = axis === 'z' ? layerSlabs(path) : evenSlabs(box[axis], inScope(settings, 0).lineWidth)
  if (axis === 'z') {
    const sums = new SlabSums(slabs.at.length, ...turnedRanges(box, turned))
    sumLayers(path, slabs, settings, sums, loadPath, turned)
    return { axis, at: slabs.at, ...sums.finish(), ...bearingAt(undefined, loadPath) }
  }
  const sums = new SlabSums(slabs.at.length, widened(box[axis === 'x' ? 'y' : 'x']), widened(box.z))
  sumAcross(path, axis, slabs, settings, sums, loadPath)
  return { axis, at: slabs.at, ...sums.finish(), ...bearingAt(slabs.at, loadPath) }
}

/** Extent of a level box along directions that are turned from x and y. */
function turnedRanges({ x, y }: Box, turned: number): readonly [u: readonly [number, number], v: readonly [number, number]] {
  if (turned === 0) return [widened(x), widened(y)]
  const [c, s] = [Math.cos(turned), Math.sin(turned)]
  const over = (a: number, b: number): readonly [number, number] => {
    const corners = x.flatMap((px) => y.map((py) => a * px + b * py))
    return widened([Math.min(...corners), Math.max(...corners)])
  }
  return [over(c, s), over(-s, c)]
}

const rowAt = ({ first, step }: AxisLoadPath, mm: number): number => Math.round((mm - first) / step)

/** Lines reach beyond their middles by half their width, which is less than this, mm. */
export const widened = ([low, high]: readonly [number, number]): readonly [number, number] => [low - 2, high + 2]

/** Extent of the middles of the part's lines along each axis, mm. */
export type Box = Readonly<Record<Axis, readonly [low: number, high: number]>>

export function boxOf(path: Toolpath): Box {
  const { x, y, z, feature } = path
  const low = [Infinity, Infinity, Infinity]
  const high = [-Infinity, -Infinity, -Infinity]
  for (let m = 0; m < moveCount(path); m++) {
    if (!isOfPart(feature[m]!)) continue
    // A line begins where the move before it ended: both of its ends count.
    for (let i = m; i <= m + 1; i++) {
      if (x[i]! < low[0]!) low[0] = x[i]!
      if (x[i]! > high[0]!) high[0] = x[i]!
      if (y[i]! < low[1]!) low[1] = y[i]!
      if (y[i]! > high[1]!) high[1] = y[i]!
      if (z[i]! < low[2]!) low[2] = z[i]!
      if (z[i]! > high[2]!) high[2] = z[i]!
    }
  }
  return Object.fromEntries(axes.map((axis, k) => [axis, [low[k], high[k]]])) as unknown as Box
}

/** 1 for features that follow the rim of the part, by feature code. */
export const isRim = Uint8Array.from(features, (feature) =>
  feature === 'outerWall' || feature === 'thin' || feature === 'topBottom' ? 1 : 0,
)

function sumLayers(
  path: Toolpath,
  { thickness }: Slabs,
  settings: SectionSettingsOf,
  sums: SlabSums,
  bearing: AxisLoadPath | undefined,
  turned: number,
): void {
  const infillWeights = weightsOfInfill(path, (own) => weightOfInfill('z', own), settings)
  for (let layer = 0; layer < path.layerStart.length - 1; layer++)
    sumLayer(path, layer, 1 / thickness[layer]!, infillWeights, sums, bearing, Math.cos(turned), Math.sin(turned))
}

/** Layer by layer, so that the compiler meets a small loop often. */
// biome-ignore lint/complexity/useMaxParams: private, and called for every layer.
function sumLayer(
  { x, y, area, width, feature, scope, layerStart }: Toolpath,
  layer: number,
  perThickness: number,
  infillWeights: Float64Array,
  sums: SlabSums,
  bearing: AxisLoadPath | undefined,
  cos: number,
  sin: number,
): void {
  const loadPath = bearing && !isWhole(bearing.loadPath, layer) ? bearing.loadPath : undefined
  for (let m = layerStart[layer]!; m < layerStart[layer + 1]!; m++) {
    if (!isOfPart(feature[m]!)) continue
    const dx = x[m + 1]! - x[m]!
    const dy = y[m + 1]! - y[m]!
    const length = Math.sqrt(dx * dx + dy * dy)
    const weighted = area[m]! * length * perThickness * (feature[m] === code.infill ? infillWeights[scope[m]!]! : 1)
    if (weighted === 0) continue
    const middleX = x[m]! + dx / 2
    const middleY = y[m]! + dy / 2
    if (loadPath && !bearsAt(loadPath, layer, rowAt(bearing!, middleX), middleY)) continue
    const du = cos * dx + sin * dy
    const dv = cos * dy - sin * dx
    const u = cos * middleX + sin * middleY
    const v = cos * middleY - sin * middleX
    const across = width[m]! / 2 / length
    const halfU = across * (dv < 0 ? -dv : dv)
    const halfV = across * (du < 0 ? -du : du)
    sums.add(layer, weighted, u, du, v, dv, halfU, halfV)
    if (isRim[feature[m]!] === 1) sums.addEnds(layer, weighted / 2, u, du, v, dv, halfU, halfV)
  }
}

function sumAcross(
  path: Toolpath,
  axis: 'x' | 'y',
  { low, thickness, at }: Slabs,
  settings: SectionSettingsOf,
  sums: SlabSums,
  bearing: AxisLoadPath | undefined,
): void {
  const { area, width, feature, scope, z, layerStart } = path
  // The row that each slab is judged by; none where all of it bears.
  const rows = at.map((mm) => (bearing === undefined || isWhole(bearing.loadPath, rowAt(bearing, mm)) ? -1 : rowAt(bearing, mm)))
  const along = axis === 'x' ? path.x : path.y
  const beside = axis === 'x' ? path.y : path.x
  const infillWeights = weightsOfInfill(path, (own) => weightOfInfill(axis, own), settings)
  const { acrossLines = 1 } = inScope(settings, 0)
  const step = thickness[0]!
  const last = at.length - 1
  const perStep = 1 / step
  let layer = 0
  for (let m = 0; m < moveCount(path); m++) {
    while (m >= layerStart[layer + 1]!) layer++
    if (!isOfPart(feature[m]!)) continue
    const a0 = along[m]!
    const b0 = beside[m]!
    const da = along[m + 1]! - a0
    const db = beside[m + 1]! - b0
    const length = Math.sqrt(da * da + db * db)
    // Sparse infill has its directions in its own weight.
    const weight = feature[m] === code.infill ? infillWeights[scope[m]!]! : acrossLines + ((1 - acrossLines) * da * da) / (length * length)
    const weighted = area[m]! * length * perStep * weight
    if (!(weighted > 0)) continue
    const halfBeside = ((width[m]! / 2) * (da < 0 ? -da : da)) / length
    // The nozzle runs on top of the layer; the plastic lies half a layer below.
    const halfHeight = area[m]! / width[m]! / 2
    const height = z[m]! - halfHeight
    const halfAlong = ((width[m]! / 2) * (db < 0 ? -db : db)) / length
    // A line that runs across the axis is in a slab as a whole, with a share of its width.
    const across = (da < 0 ? -da : da) <= 2 * halfAlong
    const lowEnd = across ? a0 + da / 2 - halfAlong : da > 0 ? a0 : a0 + da
    const highEnd = across ? lowEnd + 2 * halfAlong : da > 0 ? a0 + da : a0
    const from = Math.max(0, Math.min(last, ((lowEnd - low) * perStep) | 0))
    const to = Math.max(0, Math.min(last, ((highEnd - low) * perStep) | 0))
    const b = da > 0 ? b0 : b0 + db
    const run = da > 0 ? db : -db
    const rim = isRim[feature[m]!] === 1
    let start = 0
    for (let slab = from; slab <= to; slab++) {
      const end = slab === to ? 1 : (low + (slab + 1) * step - lowEnd) / (highEnd - lowEnd)
      const share = end - start
      const middle = b + (across ? 0.5 : start + share / 2) * run
      const length = across ? run : share * run
      const own = weighted * share
      start = end
      if (rows[slab]! >= 0 && !bearsAt(bearing!.loadPath, rows[slab]!, layer, middle)) continue
      sums.add(slab, own, middle, length, height, 0, halfBeside, halfHeight)
      if (rim) sums.addEnds(slab, own / 2, middle, length, height, 0, halfBeside, halfHeight)
    }
  }
}

export interface Slabs {
  readonly low: number
  readonly thickness: Float64Array
  readonly at: Float64Array
}

export function evenSlabs([from, to]: readonly [number, number], lineWidth: number): Slabs {
  if (!(to > from)) return { low: 0, thickness: Float64Array.of(1), at: Float64Array.of(0) }
  const low = from - lineWidth / 2
  const high = to + lineWidth / 2
  const count = Math.max(1, Math.min(MOST_SECTIONS, Math.floor((high - low) / (LEAST_THICKNESS * lineWidth))))
  const step = (high - low) / count
  return { low, thickness: new Float64Array(count).fill(step), at: Float64Array.from({ length: count }, (_, i) => low + (i + 0.5) * step) }
}

function layerSlabs(path: Toolpath): Slabs {
  const tops = Float64Array.from({ length: path.layerStart.length - 1 }, (_, layer) => layerTop(path, layer))
  const thickness = tops.map((top, i) => top - (i === 0 ? 0 : tops[i - 1]!))
  return { low: 0, thickness, at: tops.map((top, i) => top - thickness[i]! / 2) }
}

/** Weight of infill in each scope of a path. */
export const weightsOfInfill = (
  { sets }: Toolpath,
  weightOf: (settings: SectionSettings) => number,
  settings: SectionSettingsOf,
): Float64Array => Float64Array.from(sets, (_, scope) => weightOf(inScope(settings, scope)))

/** Laid infill already holds its density in its own volume, so its weight is stiffness over density. */
export function weightOfInfill(axis: Axis, own: SectionSettings): number {
  const { infillDensity, infillPattern, infillAngle, infillStiffness = 1, confined = 0, acrossLines = 1 } = own
  const density = infillDensity / 100
  if (density <= 0) return 0
  const modulus =
    axis === 'z'
      ? infillModulusUpright(density, infillPattern)
      : infillModulusInPlane(density, (infillAngle * Math.PI) / 180, infillPattern, confined)
  // Full density is laid as lines both ways: half of each along and half across the load, on average.
  const solid = axis === 'z' ? 1 : (1 + acrossLines) / 2
  return density < 1 ? Math.min(solid, infillStiffness * modulus) / density : solid
}
