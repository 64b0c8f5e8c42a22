import type { Stretches } from './stretches'

/** A line is of the limb whose rim is at most this far from it, mm: a section is told by its middle, and rims lean. */
const NEAR = 1.5

/**
 * How cells of a table of stretches make up sections: cell `section · sectionStride + place · placeStride`. A place is a layer
 * of a section that is a row, or a row of a section that is a layer.
 */
export interface Sectioning {
  readonly sections: number
  readonly places: number
  readonly sectionStride: number
  readonly placeStride: number
  /** How thick a place is, mm. */
  readonly thickness: number
  /** The way along the load leads from a place to one so many farther in the next section. */
  readonly onward: number
  /** Stretches this far apart touch, mm: of neighbouring places, and of one section and the next. */
  readonly slackWithin: number
  readonly slackOnward: number
  /** Whether a line that no stretch is near to bears a load all the same: rows may pass a thin wall by. */
  readonly unseen: boolean
}

/**
 * Which parts of each section bear the load. A limb that leads nowhere — the tip of a hook, a peg, a foot that only rests
 * beside the hold — is cut by a section and yet bears nothing of what the part carries from hold to load.
 */
export interface LoadPath {
  readonly stretches: Stretches
  readonly sectioning: Sectioning
  /** Whether anything leads all the way from hold to load; where not, as in a part that turns back on itself, everything bears. */
  readonly reaches: boolean
  /** 1 for every stretch that bears. */
  readonly bears: Uint8Array
  /** 1 for every section of which all bears. */
  readonly whole: Uint8Array
  /** How many limbs bear in each section, and what they would have were they solid, mm². */
  readonly limbs: Uint8Array
  readonly solid: Float64Array
}

/** A limb that has less than this share of what bears in a section is not one of several that share the load. */
const SLIGHT = 0.1

export const isWhole = ({ whole }: LoadPath, section: number): boolean => section < 0 || section >= whole.length || whole[section] === 1

/** Whether what lies in a section bears a load; `u` along the row, mm. */
export function bearsAt({ stretches, sectioning, bears }: LoadPath, section: number, place: number, u: number): boolean {
  const { start, low, high } = stretches
  const { places, sectionStride, placeStride, unseen } = sectioning
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
  return found < 0 ? unseen : bears[found] === 1
}

/** Whether any stretch of a section has this value. */
function hasAny({ start }: Stretches, of: Sectioning, section: number, values: Uint8Array, wanted: number): boolean {
  for (let place = 0; place < of.places; place++) {
    const cell = section * of.sectionStride + place * of.placeStride
    for (let i = start[cell]!; i < start[cell + 1]!; i++) if (values[i] === wanted) return true
  }
  return false
}

/** A thin wall that runs nearly along the rows passes from one to the next beside itself: so far it is still one, mm. */
const ROW_SLACK = 1.5

/** Sections across a level or slanted direction: each is a row through all layers. */
export const acrossRows = ({ rows, layers }: Stretches, layerHeight: number, onward = 0): Sectioning => ({
  sections: rows,
  places: layers,
  sectionStride: layers,
  placeStride: 1,
  thickness: layerHeight,
  onward,
  slackWithin: 0,
  slackOnward: ROW_SLACK,
  unseen: false,
})

/** Sections that are layers: each holds a stretch of every row. */
export const asLayers = ({ rows, layers }: Stretches, rowStep: number): Sectioning => ({
  sections: layers,
  places: rows,
  sectionStride: 1,
  placeStride: layers,
  thickness: rowStep,
  onward: 0,
  slackWithin: ROW_SLACK,
  slackOnward: 0,
  unseen: true,
})

/**
 * Finds what leads from the sections that are held to those that are loaded: limbs of a section are stretches that touch from
 * row to row, and one bears when limbs lead on from it to either end.
 *
 * @param held sections up to this one are held, @param loaded those from this one on are loaded
 */
export function findLoadPath(stretches: Stretches, sectioning: Sectioning, held: number, loaded: number): LoadPath {
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
  let reaches = true
  for (let s = held + 1; s < loaded && reaches; s++) reaches = hasAny(stretches, sectioning, s, bears, 1)
  if (!reaches) bears.fill(1)
  const whole = Uint8Array.from({ length: sections }, (_, s) => (hasAny(stretches, sectioning, s, bears, 0) ? 0 : 1))
  return { stretches, sectioning, reaches, bears, whole, ...limbsOf(stretches, sectioning, bears, limbs) }
}

function limbsOf({ start, low, high }: Stretches, of: Sectioning, bears: Uint8Array, limbs: LimbSet): Pick<LoadPath, 'limbs' | 'solid'> {
  const count = new Uint8Array(of.sections)
  const solid = new Float64Array(of.sections)
  const areas = new Map<number, number>()
  for (let section = 0; section < of.sections; section++) {
    areas.clear()
    for (let place = 0; place < of.places; place++) {
      const cell = section * of.sectionStride + place * of.placeStride
      for (let i = start[cell]!; i < start[cell + 1]!; i++) {
        if (bears[i] === 0) continue
        const area = (high[i]! - low[i]!) * of.thickness
        solid[section]! += area
        areas.set(limbs.of(i), (areas.get(limbs.of(i)) ?? 0) + area)
      }
    }
    for (const area of areas.values()) if (area > SLIGHT * solid[section]! && count[section]! < 255) count[section]!++
  }
  return { limbs: count, solid }
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
    const slack = this.sectioning.slackWithin
    const [endA, endB] = [start[a + 1]!, start[b + 1]!]
    let i = start[a]!
    let j = start[b]!
    while (i < endA && j < endB) {
      if (low[i]! < high[j]! + slack && low[j]! < high[i]! + slack) this.parent[this.of(i)] = this.of(j)
      if (high[i]! < high[j]!) i++
      else j++
    }
  }

  private spreadCells(found: Uint8Array, lower: number, upper: number, up: boolean): void {
    const { start, low, high } = this.stretches
    const slack = this.sectioning.slackOnward
    const [endLower, endUpper] = [start[lower + 1]!, start[upper + 1]!]
    let i = start[lower]!
    let j = start[upper]!
    while (i < endLower && j < endUpper) {
      if (low[i]! < high[j]! + slack && low[j]! < high[i]! + slack) {
        const one = this.of(i)
        const other = this.of(j)
        if (found[up ? one : other] === 1) found[up ? other : one] = 1
      }
      if (high[i]! < high[j]!) i++
      else j++
    }
  }
}
