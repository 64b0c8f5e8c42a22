import type { Contours } from '../regions/contours'
import type { Layers } from '../slicing/layers'
import type { Grip } from './grip'

/** A line is of the limb whose rim is at most this far from it, mm: a section is told by its middle, and rims lean. */
const NEAR = 1.5

/** Outlines of a part and how high the middle of each layer lies, mm. */
export interface Outlines {
  readonly outlines: Contours
  readonly middle: Float64Array
}

export const outlinesOf = ({ outlines, top, height }: Pick<Layers, 'outlines' | 'top' | 'height'>): Outlines => ({
  outlines,
  middle: top.map((z, layer) => z - height[layer]! / 2),
})

/**
 * What lies inside the outlines along straight rows: for every row and layer some stretches, ascending.
 *
 * ```
 * start  cell → first stretch; cells run layer by layer within a row; one more entry than cells
 * low    where a stretch begins along the row, mm
 * high   where it ends
 * ```
 */
export interface Stretches {
  readonly rows: number
  readonly layers: number
  readonly start: Uint32Array
  readonly low: Float64Array
  readonly high: Float64Array
}

type Vector = readonly [x: number, y: number, z: number]

/**
 * Lays rows through a part: row r runs along `level`, where the way along `along` is `first + r · step`.
 *
 * @param along unit vector that is not upright: rows of a layer must lie apart
 * @param level level unit vector across it
 */
export function layRows(
  part: Outlines,
  along: Vector,
  level: readonly [x: number, y: number],
  first: number,
  step: number,
  rows: number,
): Stretches {
  const layers = part.middle.length
  const crossings = new Crossings(part.outlines, along, level, first, step, rows, layers)
  for (let layer = 0; layer < layers; layer++) crossings.countIn(layer, part.middle[layer]!)
  crossings.makeRoom()
  for (let layer = 0; layer < layers; layer++) crossings.fillIn(layer, part.middle[layer]!)
  return crossings.finish()
}

/** Where rims cross rows. Layer by layer, so that the compiler meets small loops often. */
class Crossings {
  /** Counts stand two cells ahead, so that filling moves each cell's end to where its own start belongs. */
  private readonly start: Uint32Array
  private at = new Float64Array(0)

  constructor(
    private readonly outlines: Contours,
    private readonly along: Vector,
    private readonly level: readonly [x: number, y: number],
    private readonly first: number,
    private readonly step: number,
    private readonly rows: number,
    private readonly layers: number,
  ) {
    this.start = new Uint32Array(rows * layers + 2)
  }

  countIn(layer: number, height: number): void {
    const { start, layers, rows, first, along, outlines } = this
    const { xy, polygonStart, groupStart } = outlines
    const [ax, ay, perStep, rise] = [along[0], along[1], 1 / this.step, along[2] * height - first]
    for (let p = groupStart[layer]!; p < groupStart[layer + 1]!; p++) {
      const to = polygonStart[p + 1]!
      for (let i = polygonStart[p]!, j = to - 1; i < to; j = i++) {
        const ti = (ax * xy[2 * i]! + ay * xy[2 * i + 1]! + rise) * perStep
        const tj = (ax * xy[2 * j]! + ay * xy[2 * j + 1]! + rise) * perStep
        const end = Math.min(rows, Math.ceil(ti < tj ? tj : ti))
        for (let row = Math.max(0, Math.ceil(ti < tj ? ti : tj)); row < end; row++) start[row * layers + layer + 2]!++
      }
    }
  }

  makeRoom(): void {
    const { start } = this
    for (let cell = 2; cell < start.length; cell++) start[cell]! += start[cell - 1]!
    this.at = new Float64Array(start[start.length - 1]!)
  }

  fillIn(layer: number, height: number): void {
    const { start, layers, rows, first, along, level, outlines, at } = this
    const { xy, polygonStart, groupStart } = outlines
    const [ax, ay, lx, ly, perStep, rise] = [along[0], along[1], level[0], level[1], 1 / this.step, along[2] * height - first]
    for (let p = groupStart[layer]!; p < groupStart[layer + 1]!; p++) {
      const to = polygonStart[p + 1]!
      for (let i = polygonStart[p]!, j = to - 1; i < to; j = i++) {
        const ti = (ax * xy[2 * i]! + ay * xy[2 * i + 1]! + rise) * perStep
        const tj = (ax * xy[2 * j]! + ay * xy[2 * j + 1]! + rise) * perStep
        const end = Math.min(rows, Math.ceil(ti < tj ? tj : ti))
        let row = Math.max(0, Math.ceil(ti < tj ? ti : tj))
        if (row >= end) continue
        const ui = lx * xy[2 * i]! + ly * xy[2 * i + 1]!
        const slope = (lx * xy[2 * j]! + ly * xy[2 * j + 1]! - ui) / (tj - ti)
        for (; row < end; row++) at[start[row * layers + layer + 1]!++] = ui + (row - ti) * slope
      }
    }
  }

  finish(): Stretches {
    const { start, at, rows, layers } = this
    const cells = rows * layers
    const low = new Float64Array(at.length / 2)
    const high = new Float64Array(at.length / 2)
    for (let cell = 0; cell < cells; cell++) {
      // Rims are closed: every row enters the solid as often as it leaves it.
      sortFew(at, start[cell]!, start[cell + 1]!)
    }
    for (let k = 0; k < low.length; k++) {
      low[k] = at[2 * k]!
      high[k] = at[2 * k + 1]!
    }
    const starts = new Uint32Array(cells + 1)
    for (let cell = 0; cell <= cells; cell++) starts[cell] = start[cell]! / 2
    return { rows, layers, start: starts, low, high }
  }
}

/** By insertion: a row meets a layer's rims a few times only. */
function sortFew(values: Float64Array, from: number, to: number): void {
  for (let i = from + 1; i < to; i++) {
    const value = values[i]!
    let k = i - 1
    for (; k >= from && values[k]! > value; k--) values[k + 1] = values[k]!
    values[k + 1] = value
  }
}

/**
 * How cells of a table of stretches make up sections: cell `section · sectionStride + place · placeStride`. A place is a layer
 * of a section that is a row, or a row of a section that is a layer.
 */
interface Sectioning {
  readonly sections: number
  readonly places: number
  readonly sectionStride: number
  readonly placeStride: number
  /** The way along the load leads from a place to one so many farther in the next section. */
  readonly onward: number
  /** Whether a line that no stretch is near to bears a load all the same: rows may pass a thin wall by. */
  readonly unseen: boolean
}

/**
 * Which parts of each section bear the load. A limb that leads nowhere — the tip of a hook, a peg, a foot that only rests
 * beside the hold — is cut by a section and yet bears nothing of what the part carries from hold to load.
 */
export class Limbs {
  /** 1 for sections of which every part bears. */
  private readonly whole: Uint8Array

  constructor(
    private readonly stretches: Stretches,
    private readonly sectioning: Sectioning,
    private readonly bears: Uint8Array,
  ) {
    this.whole = new Uint8Array(sectioning.sections).fill(1)
    for (let s = 0; s < sectioning.sections; s++) if (hasAny(stretches, sectioning, s, bears, 0)) this.whole[s] = 0
  }

  isWhole(section: number): boolean {
    return section < 0 || section >= this.whole.length || this.whole[section] === 1
  }

  /** Whether what lies in a section bears a load; `u` along the row, mm. */
  bearsAt(section: number, place: number, u: number): boolean {
    const { start, low, high } = this.stretches
    const { places, sectionStride, placeStride, unseen } = this.sectioning
    if (place < 0 || place >= places) return unseen
    const cell = section * sectionStride + place * placeStride
    const to = start[cell + 1]!
    let nearest = NEAR
    let found = -1
    for (let i = start[cell]!; i < to; i++) {
      const off = u < low[i]! ? low[i]! - u : u > high[i]! ? u - high[i]! : 0
      if (off >= nearest) continue
      nearest = off
      found = i
    }
    return found < 0 ? unseen : this.bears[found] === 1
  }
}

/** Whether any stretch of a section has this value. */
function hasAny({ start }: Stretches, of: Sectioning, section: number, values: Uint8Array, wanted: number): boolean {
  for (let place = 0; place < of.places; place++) {
    const cell = section * of.sectionStride + place * of.placeStride
    for (let i = start[cell]!; i < start[cell + 1]!; i++) if (values[i] === wanted) return true
  }
  return false
}

/** Sections across a level or slanted direction: each is a row through all layers. */
export const acrossRows = ({ rows, layers }: Stretches, onward = 0): Sectioning => ({
  sections: rows,
  places: layers,
  sectionStride: layers,
  placeStride: 1,
  onward,
  unseen: false,
})

/** Sections that are layers: each holds a stretch of every row. */
export const asLayers = ({ rows, layers }: Stretches): Sectioning => ({
  sections: layers,
  places: rows,
  sectionStride: 1,
  placeStride: layers,
  onward: 0,
  unseen: true,
})

/**
 * Finds what leads from the sections that are held to those that are loaded: limbs of a section are stretches that touch from
 * row to row, and one bears when limbs lead on from it to either end. Nothing where no limb goes all the way, as in a part
 * that turns back on itself: then everything bears.
 *
 * @param held sections up to this one are held, @param loaded those from this one on are loaded
 */
export function findLimbs(stretches: Stretches, sectioning: Sectioning, held: number, loaded: number): Limbs | undefined {
  const { sections } = sectioning
  const limbs = new LimbSet(stretches, sectioning)
  for (let s = 0; s < sections; s++) limbs.uniteIn(s)
  const [fromHold, fromLoad] = [new Uint8Array(stretches.low.length), new Uint8Array(stretches.low.length)]
  for (let s = 0; s < sections; s++) {
    if (s <= held) limbs.mark(fromHold, s)
    if (s + 1 < sections) limbs.spread(fromHold, s, true)
  }
  for (let s = sections - 1; s >= 0; s--) {
    if (s >= loaded) limbs.mark(fromLoad, s)
    if (s > 0) limbs.spread(fromLoad, s - 1, false)
  }
  const bears = new Uint8Array(stretches.low.length)
  for (let i = 0; i < bears.length; i++) bears[i] = fromHold[limbs.of(i)]! & fromLoad[limbs.of(i)]!
  for (let s = held + 1; s < loaded; s++) if (!hasAny(stretches, sectioning, s, bears, 1)) return undefined
  return new Limbs(stretches, sectioning, bears)
}

/** Stretches united into limbs: each points towards one that stands for all. */
class LimbSet {
  private readonly parent: Int32Array

  constructor(
    private readonly stretches: Stretches,
    private readonly sectioning: Sectioning,
  ) {
    this.parent = new Int32Array(stretches.low.length)
    for (let i = 0; i < this.parent.length; i++) this.parent[i] = i
  }

  of(stretch: number): number {
    const { parent } = this
    let i = stretch
    while (parent[i] !== i) {
      parent[i] = parent[parent[i]!]!
      i = parent[i]!
    }
    return i
  }

  /** Unites what touches within a section. */
  uniteIn(section: number): void {
    const { sectionStride, placeStride, places } = this.sectioning
    for (let place = 0; place + 1 < places; place++) {
      const cell = section * sectionStride + place * placeStride
      this.unite(cell, cell + placeStride)
    }
  }

  /** Marks every limb of a section. */
  mark(found: Uint8Array, section: number): void {
    const { sectionStride, placeStride, places } = this.sectioning
    const { start } = this.stretches
    for (let place = 0; place < places; place++) {
      const cell = section * sectionStride + place * placeStride
      for (let i = start[cell]!; i < start[cell + 1]!; i++) found[this.of(i)] = 1
    }
  }

  /** Marks go on from a section to what touches them in the next, or from the next back to it. */
  spread(found: Uint8Array, section: number, up: boolean): void {
    const { sectionStride, placeStride, places, onward } = this.sectioning
    for (let place = Math.max(0, -onward); place < places && place + onward < places; place++) {
      const cell = section * sectionStride + place * placeStride
      this.spreadCells(found, cell, cell + sectionStride + onward * placeStride, up)
    }
  }

  private unite(a: number, b: number): void {
    const { start, low, high } = this.stretches
    const [endA, endB] = [start[a + 1]!, start[b + 1]!]
    let i = start[a]!
    let j = start[b]!
    while (i < endA && j < endB) {
      if (low[i]! < high[j]! && low[j]! < high[i]!) this.parent[this.of(i)] = this.of(j)
      if (high[i]! < high[j]!) i++
      else j++
    }
  }

  private spreadCells(found: Uint8Array, lower: number, upper: number, up: boolean): void {
    const { start, low, high } = this.stretches
    const [endLower, endUpper] = [start[lower + 1]!, start[upper + 1]!]
    let i = start[lower]!
    let j = start[upper]!
    while (i < endLower && j < endUpper) {
      if (low[i]! < high[j]! && low[j]! < high[i]!) {
        const [from, to] = up ? [this.of(i), this.of(j)] : [this.of(j), this.of(i)]
        if (found[from] === 1) found[to] = 1
      }
      if (high[i]! < high[j]!) i++
      else j++
    }
  }
}

/** Limbs along one axis, and where their rows lie. */
export interface AxisLimbs {
  readonly limbs: Limbs
  readonly first: number
  readonly step: number
}
export type LimbsByAxis = Readonly<Partial<Record<'x' | 'y' | 'z', AxisLimbs>>>

/** Rows lie this far apart, mm: about as far as sections do. */
const ROW_STEP = 1
const MOST_ROWS = 200

/** What bears a load along each axis of a part; an axis is left out where all of the part does. */
export function limbsByAxis(part: Outlines, grip: Grip): LimbsByAxis {
  const { middle } = part
  const levelLimbs = (axis: 'x' | 'y'): { rows: { first: number; step: number }; stretches: Stretches; found: Limbs | undefined } => {
    const [low, high] = extentOf(part.outlines.xy, axis === 'x' ? 0 : 1)
    const count = Math.max(1, Math.min(MOST_ROWS, Math.ceil((high - low) / ROW_STEP)))
    const step = (high - low) / count
    const first = low + step / 2
    const [along, level] =
      axis === 'x'
        ? ([
            [1, 0, 0],
            [0, 1],
          ] as const)
        : ([
            [0, 1, 0],
            [1, 0],
          ] as const)
    const stretches = layRows(part, along, level, first, step, count)
    const [held, loaded] = [Math.floor(grip.heldTo * count) - 1, Math.ceil(grip.loadedFrom * count)]
    return { rows: { first, step }, stretches, found: findLimbs(stretches, acrossRows(stretches), held, Math.min(count - 1, loaded)) }
  }
  const [x, y] = [levelLimbs('x'), levelLimbs('y')]
  const upright = findLimbs(
    x.stretches,
    asLayers(x.stretches),
    Math.floor(grip.heldTo * middle.length) - 1,
    Math.min(middle.length - 1, Math.ceil(grip.loadedFrom * middle.length)),
  )
  return {
    ...(x.found ? { x: { limbs: x.found, ...x.rows } } : {}),
    ...(y.found ? { y: { limbs: y.found, ...y.rows } } : {}),
    ...(upright ? { z: { limbs: upright, ...x.rows } } : {}),
  }
}

function extentOf(xy: Float64Array, offset: 0 | 1): [low: number, high: number] {
  let [low, high] = [Infinity, -Infinity]
  for (let i = offset; i < xy.length; i += 2) {
    if (xy[i]! < low) low = xy[i]!
    if (xy[i]! > high) high = xy[i]!
  }
  return high > low ? [low, high] : [0, 1]
}
