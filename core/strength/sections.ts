import type { Settings } from '../profile/settings'
import { code, features, isOfPart, layerTop, moveCount, type Toolpath } from '../toolpath/toolpath'
import { infillModulusInPlane, infillModulusUpright } from './infillModulus'

export const axes = ['x', 'y', 'z'] as const
export type Axis = (typeof axes)[number]

/**
 * Cross-sections of the printed part at even steps along an axis, from the lines that are really laid. Walls and skins
 * count in full, infill with its share of the solid's stiffness, so areas and moments are those of an equal solid beam.
 *
 * One entry a section: `at` its middle (mm), `area` (mm²), and for each of the two directions across the axis, in cyclic
 * order (x: y, z; y: z, x; z: x, y), `second` the second moment of area about the centroid (mm⁴) and `reach` the distance
 * of the farthest fibre from it (mm).
 */
export interface Sections {
  readonly axis: Axis
  readonly at: Float64Array
  readonly area: Float64Array
  readonly second: readonly [Float64Array, Float64Array]
  readonly reach: readonly [Float64Array, Float64Array]
}

export type SectionSettings = Pick<Settings, 'lineWidth' | 'infillDensity' | 'infillPattern' | 'infillAngle'>

/** Sections are at least this many line widths thick, so that slanted fill lines are met evenly. */
const LEAST_THICKNESS = 2.5
const MOST_SECTIONS = 160

/**
 * Sums lines up in slabs across the axis: along z the layers, along x and y even slabs. A line adds its volume over the
 * slab's thickness, so material is conserved whatever the direction of the line.
 */
export function findSections(path: Toolpath, axis: Axis, settings: SectionSettings, box: Box = boxOf(path)): Sections {
  const slabs = axis === 'z' ? layerSlabs(path) : evenSlabs(box[axis], settings.lineWidth)
  const [u, v] = { x: ['y', 'z'], y: ['x', 'z'], z: ['x', 'y'] }[axis] as [Axis, Axis]
  const sums = new SlabSums(slabs.at.length, widened(box[u]), widened(box[v]))
  if (axis === 'z') sumLayers(path, slabs, settings, sums)
  else sumAcross(path, axis, slabs, settings, sums)
  const { area, second, reach } = sums.finish()
  // Lines are summed sideways first and upward second; the cyclic order of y is the other way round.
  return axis === 'y'
    ? { axis, at: slabs.at, area, second: [second[1], second[0]], reach: [reach[1], reach[0]] }
    : { axis, at: slabs.at, area, second, reach }
}

/** Lines reach beyond their middles by half their width, which is less than this, mm. */
const widened = ([low, high]: readonly [number, number]): readonly [number, number] => [low - 2, high + 2]

/** Extent of the middles of the part's lines along each axis, mm. */
export type Box = Readonly<Record<Axis, readonly [low: number, high: number]>>

export function boxOf(path: Toolpath): Box {
  const box = { x: [Infinity, -Infinity], y: [Infinity, -Infinity], z: [Infinity, -Infinity] } as Record<Axis, [number, number]>
  for (const axis of axes) {
    const at = path[axis]
    let low = Infinity
    let high = -Infinity
    for (let m = 0; m < moveCount(path); m++) {
      if (!isOfPart(path.feature[m]!)) continue
      if (at[m]! < low) low = at[m]!
      if (at[m + 1]! < low) low = at[m + 1]!
      if (at[m]! > high) high = at[m]!
      if (at[m + 1]! > high) high = at[m + 1]!
    }
    box[axis] = [low, high]
  }
  return box
}

/**
 * Area and moments per slab, about the origin until `finish` moves them to the centroid: area, first u, first v, second u,
 * second v, low u, high u, low v, high v of one slab after another.
 */
class SlabSums {
  private readonly sums: Float64Array
  /** Half of the area of each piece of rim at either of its ends, in bins along u and then v, one slab after another. */
  private readonly ends: Float64Array

  constructor(
    private readonly count: number,
    private readonly rangeU: readonly [number, number],
    private readonly rangeV: readonly [number, number],
  ) {
    this.sums = new Float64Array(STRIDE * count)
    this.ends = new Float64Array(2 * BINS * count)
    for (let at = 0; at < this.sums.length; at += STRIDE) {
      this.sums[at + 5] = this.sums[at + 7] = Infinity
      this.sums[at + 6] = this.sums[at + 8] = -Infinity
    }
    this.perU = BINS / Math.max(1e-6, rangeU[1] - rangeU[0])
    this.perV = BINS / Math.max(1e-6, rangeV[1] - rangeV[0])
    this.lowU = rangeU[0]
    this.lowV = rangeV[0]
  }

  private readonly perU: number
  private readonly perV: number
  private readonly lowU: number
  private readonly lowV: number

  /** Adds a straight piece of line about (u, v), (du, dv) long and `halfU` and `halfV` thick to either side. */
  add(slab: number, area: number, u: number, du: number, v: number, dv: number, halfU: number, halfV: number): void {
    const { sums } = this
    const at = STRIDE * slab
    sums[at]! += area
    sums[at + 1]! += area * u
    sums[at + 2]! += area * v
    // A piece has length and thickness of its own; both add to its moment about its middle.
    sums[at + 3]! += area * (u * u + (du * du) / 12 + (halfU * halfU) / 3)
    sums[at + 4]! += area * (v * v + (dv * dv) / 12 + (halfV * halfV) / 3)
    const spreadU = (du < 0 ? -du : du) / 2 + halfU
    const spreadV = (dv < 0 ? -dv : dv) / 2 + halfV
    if (u - spreadU < sums[at + 5]!) sums[at + 5] = u - spreadU
    if (u + spreadU > sums[at + 6]!) sums[at + 6] = u + spreadU
    if (v - spreadV < sums[at + 7]!) sums[at + 7] = v - spreadV
    if (v + spreadV > sums[at + 8]!) sums[at + 8] = v + spreadV
  }

  /**
   * Notes where a piece of rim ends: what lies farthest out is a rim. Kept apart from `add` and small, so that both are
   * compiled into the loops that call them.
   */
  addEnds(slab: number, half: number, u: number, spreadU: number, v: number, spreadV: number): void {
    const { ends, perU, perV, lowU, lowV } = this
    const firstU = 2 * BINS * slab
    // The ranges are wide enough for every line, so both ends have a bin.
    ends[firstU + (((u - spreadU - lowU) * perU) | 0)]! += half
    ends[firstU + (((u + spreadU - lowU) * perU) | 0)]! += half
    ends[firstU + BINS + (((v - spreadV - lowV) * perV) | 0)]! += half
    ends[firstU + BINS + (((v + spreadV - lowV) * perV) | 0)]! += half
  }

  /** How far from `middle` the ends lie that still carry, in bins from `first` on. */
  private carryingReach(first: number, middle: number, [low]: readonly [number, number], per: number): number {
    let area = 0
    for (let bin = 0; bin < BINS; bin++) area += this.ends[first + bin]!
    let from = 0
    let to = BINS - 1
    for (let sum = this.ends[first]!; sum < SPECK * area && from < to; sum += this.ends[first + from]!) from++
    for (let sum = this.ends[first + to]!; sum < SPECK * area && to > from; sum += this.ends[first + to]!) to--
    return Math.max(low + (to + 1) / per - middle, middle - low - from / per)
  }

  finish(): Pick<Sections, 'area' | 'second' | 'reach'> {
    const { sums, count } = this
    const pair = (): [Float64Array, Float64Array] => [new Float64Array(count), new Float64Array(count)]
    const area = new Float64Array(count)
    const [second, reach] = [pair(), pair()]
    for (let slab = 0; slab < count; slab++) {
      const at = STRIDE * slab
      area[slab] = sums[at]!
      if (area[slab] === 0) continue
      for (const side of [0, 1] as const) {
        const middle = sums[at + 1 + side]! / sums[at]!
        second[side][slab] = sums[at + 3 + side]! - sums[at]! * middle * middle
        const farthest = Math.max(sums[at + 6 + 2 * side]! - middle, middle - sums[at + 5 + 2 * side]!)
        const first = BINS * (2 * slab + side)
        const carrying =
          side === 0 ? this.carryingReach(first, middle, this.rangeU, this.perU) : this.carryingReach(first, middle, this.rangeV, this.perV)
        reach[side][slab] = Math.min(farthest, carrying)
      }
    }
    return { area, second, reach }
  }
}

/** 1 for features that follow the rim of the part, by feature code. */
const isRim = Uint8Array.from(features, (feature) => (feature === 'outerWall' || feature === 'thin' || feature === 'skin' ? 1 : 0))
/** Sums that are kept of a slab. */
const STRIDE = 9
const BINS = 64
/** A side on which less than this share of the area lies farther out is a speck of another body that just begins there. */
const SPECK = 0.005

function sumLayers(path: Toolpath, { thickness }: Slabs, settings: SectionSettings, sums: SlabSums): void {
  const { x, y, area, width, feature, layerStart } = path
  const infillWeight = weightOfInfill('z', settings)
  for (let layer = 0; layer < layerStart.length - 1; layer++) {
    const perThickness = 1 / thickness[layer]!
    for (let m = layerStart[layer]!; m < layerStart[layer + 1]!; m++) {
      if (!isOfPart(feature[m]!)) continue
      const dx = x[m + 1]! - x[m]!
      const dy = y[m + 1]! - y[m]!
      const length = Math.sqrt(dx * dx + dy * dy)
      const weighted = area[m]! * length * perThickness * (feature[m] === code.infill ? infillWeight : 1)
      if (weighted === 0) continue
      const across = width[m]! / 2 / length
      const halfX = across * (dy < 0 ? -dy : dy)
      const halfY = across * (dx < 0 ? -dx : dx)
      const middleX = x[m]! + dx / 2
      const middleY = y[m]! + dy / 2
      sums.add(layer, weighted, middleX, dx, middleY, dy, halfX, halfY)
      if (isRim[feature[m]!] === 0) continue
      sums.addEnds(layer, weighted / 2, middleX, (dx < 0 ? -dx : dx) / 2 + halfX, middleY, (dy < 0 ? -dy : dy) / 2 + halfY)
    }
  }
}

function sumAcross(path: Toolpath, axis: 'x' | 'y', { low, thickness, at }: Slabs, settings: SectionSettings, sums: SlabSums): void {
  const { area, width, feature, z } = path
  const along = axis === 'x' ? path.x : path.y
  const beside = axis === 'x' ? path.y : path.x
  const infillWeight = weightOfInfill(axis, settings)
  const step = thickness[0]!
  const last = at.length - 1
  const perStep = 1 / step
  for (let m = 0; m < moveCount(path); m++) {
    if (!isOfPart(feature[m]!)) continue
    const a0 = along[m]!
    const b0 = beside[m]!
    const da = along[m + 1]! - a0
    const db = beside[m + 1]! - b0
    const length = Math.sqrt(da * da + db * db)
    const weighted = area[m]! * length * perStep * (feature[m] === code.infill ? infillWeight : 1)
    if (weighted === 0) continue
    const halfBeside = ((width[m]! / 2) * (da < 0 ? -da : da)) / length
    // The nozzle runs on top of the layer; the plastic lies half a layer below.
    const halfHeight = area[m]! / width[m]! / 2
    const height = z[m]! - halfHeight
    const lowEnd = da > 0 ? a0 : a0 + da
    const highEnd = da > 0 ? a0 + da : a0
    const from = Math.max(0, Math.min(last, ((lowEnd - low) * perStep) | 0))
    const to = Math.max(0, Math.min(last, ((highEnd - low) * perStep) | 0))
    const b = da > 0 ? b0 : b0 + db
    const run = da > 0 ? db : -db
    const rim = isRim[feature[m]!] === 1
    let start = 0
    for (let slab = from; slab <= to; slab++) {
      const end = slab === to ? 1 : (low + (slab + 1) * step - lowEnd) / (highEnd - lowEnd)
      const share = end - start
      const middle = b + (start + share / 2) * run
      const own = weighted * share
      sums.add(slab, own, middle, share * run, height, 0, halfBeside, halfHeight)
      start = end
      if (!rim) continue
      const spread = (share * (run < 0 ? -run : run)) / 2 + halfBeside
      sums.addEnds(slab, own / 2, middle, spread, height, halfHeight)
    }
  }
}

interface Slabs {
  readonly low: number
  readonly thickness: Float64Array
  readonly at: Float64Array
}

function evenSlabs([from, to]: readonly [number, number], lineWidth: number): Slabs {
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

/** Laid infill already holds its density in its own volume, so its weight is stiffness over density. */
function weightOfInfill(axis: Axis, { infillDensity, infillPattern, infillAngle }: SectionSettings): number {
  const density = infillDensity / 100
  if (density <= 0) return 0
  const modulus =
    axis === 'z'
      ? infillModulusUpright(density, infillPattern)
      : infillModulusInPlane(density, (infillAngle * Math.PI) / 180, infillPattern)
  return modulus / density
}
