import { normalBy, poissonBy, seededBy } from './random'
import type { Truth } from './truth'

/** A layer of what was made. */
export interface MadeLayer {
  readonly z: number
  seconds: number
  /** Filament asked for, mm, and the fastest that it was asked for, mm/s. */
  feed: number
  fastest: number
  /** As its thermometer shows it, °C. */
  nozzle: number
  /** What came out of the filament that was asked for, 0 to 1, weighted by what was asked. */
  came: number
  /** Strings that chance would leave, and the share of its lines that look dull. */
  strung: number
  dull: number
  /** How far what spans the air hangs down, and how far walls wave after a corner, mm. */
  sagMm: number
  waveMm: number
  /** Where its plastic lies, in cells, by column and row. */
  readonly cells: Set<number>
  /** Middles of its outermost lines, mm. */
  reach: readonly [left: number, right: number, front: number, back: number]
  /** By how much it lies beside where it was meant, mm. */
  readonly shiftedMm: number
}

/** A hair from one place to another at a height, mm. */
export interface MadeString {
  readonly z: number
  readonly from: number
  readonly to: number
  readonly sag: number
}
/** A hole in a wall, mm. */
export interface MadeGap {
  readonly z: number
  readonly x: number
  readonly width: number
}

/** A move as it ran. */
export interface RunMove {
  readonly from: readonly [x: number, y: number]
  readonly to: readonly [x: number, y: number]
  readonly z: number
  readonly feed: number
  readonly acceleration: number
  readonly seconds: number
  /** Its fastest, mm/s. */
  readonly peak: number
}
/** How the machine stood meanwhile. */
export interface Standing {
  readonly nozzle: number
  /** 0 to 255. */
  readonly fan: number
  readonly clock: number
  readonly shiftedMm: number
  /** Nothing comes out. */
  readonly isEmpty: boolean
}

/** Cross-section of the filament, mm². */
export const FILAMENT_MM2 = Math.PI * 0.875 ** 2
/** Side of a cell, mm: about a line. */
export const CELL = 0.5
const ROW = 8192

// What follows is assumed: about what hobbyists see, so that a reader has something to read.
/** Strings of a way of this length over open air at the upper edge of what prints clean, nothing pulled back; and how their number grows with heat. */
const [STRINGS, WAY_MM, HEAT_SCALE] = [0.2, 20, 8]
/** What a pull lets through: mm to the e-th part, and what no pull stops. */
const [PULL_MM, STAYS] = [0.35, 0.02]
/** Open ways shorter than this leave nothing to be seen, mm. */
const SHORTEST_WAY = 1
/** Holes of a layer at the lower edge of what holds, and how their number grows with cold, °C. */
const [COLD_GAPS, COLD_SCALE] = [0.002, 3]
/** Holes by mm of line and by the logarithm of how far it is beyond what melts. */
const STARVED_GAPS = 0.08
/** From this share of what melts, lines look dull. */
const DULL_FROM = 0.85
/** Sag of a free span by the square of its length, 1/mm, without a fan; a full fan takes most of it. */
const [SAG, FAN_HOLDS] = [0.0012, 0.8]
/** What hangs comes to rest on what lies within so many layers. */
const RESTS_WITHIN = 3
/** A line so near to the outermost one is it, mm. */
const SURFACE_MM = 0.2
/** Colder than what prints clean, layers hold less: °C to the e-th part. */
const COLD_BOND = 30
/** What bars of a batch scatter by, and how many of them are flawed, and how much that takes. */
const [BATCH, FLAWED, FLAW] = [0.05, 0.05, 0.65]
/** Walls farther away than this stand around nothing, cells. */
const FARTHEST = 80
const MOST_SEEN = 4000

/** What lies on the table: worked out from moves as they run and from how the machine really is, and from nothing else. */
export class Making {
  readonly layers: MadeLayer[] = []
  readonly strings: MadeString[] = []
  readonly gaps: MadeGap[] = []
  private readonly random: () => number
  private pulledMm = 0
  /** The most that was pulled back while it travelled. */
  private pulledOnWay = 0
  /** A thing is pulled apart once, however often one asks. */
  private partedAt: number | undefined
  private below: ReadonlySet<number> = new Set()
  /** What lies a few layers deep: what hangs comes to rest on it. */
  private deeper: ReadonlySet<number>[] = []
  /** Out to where the layer below reaches: what is laid there is seen. */
  private reach: readonly [left: number, right: number, front: number, back: number] | undefined
  /** Where the nozzle last laid something, while it travels. */
  private left: readonly [number, number] | undefined

  constructor(
    private readonly truth: Truth,
    seed: number,
  ) {
    this.random = seededBy(seed)
  }

  note(move: RunMove, standing: Standing): void {
    const { feed, seconds } = move
    const length = wayOf(move)
    if (length < 1e-9) this.pulledMm = Math.max(0, this.pulledMm - feed)
    if (feed > 0 && length > 0) this.lay(move, standing)
    else if (length > 0) {
      this.pulledMm -= feed
      this.pulledOnWay = Math.max(this.pulledOnWay, this.pulledMm)
    }
    const layer = this.layers.at(-1)
    if (layer) layer.seconds += seconds
  }

  private lay(move: RunMove, standing: Standing): void {
    const layer = this.layerAt(move.z, standing)
    if (this.left) this.travelled(this.left, move.from, layer, standing)
    this.pulledMm = 0
    this.pulledOnWay = 0
    const { feed, seconds } = move
    const came = standing.isEmpty ? 0 : this.cameOut(move, layer, standing)
    layer.came += (came - layer.came) * (feed / (layer.feed + feed))
    if (!standing.isEmpty) layer.feed += feed
    if (seconds > 0) {
      layer.fastest = Math.max(layer.fastest, feed / seconds)
      const { looseness, frameHz, tableGives } = this.truth
      const shakes = (tableGives * move.z * move.acceleration) / 1e5
      if (this.isSeen(move, standing)) layer.waveMm = Math.max(layer.waveMm, looseness * waveOf(move.acceleration, frameHz) + shakes)
    }
    if (came > 0.02) this.cover(move, layer, standing)
    this.holesOfCold(layer, move, standing)
    this.left = move.to
  }

  private layerAt(z: number, { nozzle, shiftedMm }: Standing): MadeLayer {
    const last = this.layers.at(-1)
    if (last?.z === z) return last
    if (last) {
      this.deeper = [this.below, ...this.deeper].slice(0, RESTS_WITHIN)
      this.below = last.cells
      this.reach = last.reach
    }
    const layer: MadeLayer = {
      z,
      seconds: 0,
      feed: 0,
      fastest: 0,
      nozzle: nozzle + this.truth.thermometer,
      came: 1,
      strung: 0,
      dull: 0,
      sagMm: 0,
      waveMm: 0,
      cells: new Set(),
      reach: [Infinity, -Infinity, Infinity, -Infinity],
      shiftedMm,
    }
    this.layers.push(layer)
    this.partedAt = undefined
    return layer
  }

  /** Strings of a way from one line to the next, as far as nothing of this layer or the one below lies under it. */
  private travelled(from: readonly [number, number], to: readonly [number, number], layer: MadeLayer, standing: Standing): void {
    const length = Math.hypot(to[0] - from[0], to[1] - from[1])
    if (length < SHORTEST_WAY) return
    const steps = Math.ceil(length / CELL)
    let open = 0
    let first: number | undefined
    let last = 0
    for (let i = 1; i < steps; i++) {
      const share = i / steps
      const cell = cellOf(from[0] + share * (to[0] - from[0]) + standing.shiftedMm, from[1] + share * (to[1] - from[1]))
      if (near(layer.cells, cell) || near(this.below, cell) || this.isInside(cell, layer)) continue
      open += length / steps
      first ??= share
      last = share
    }
    if (open < SHORTEST_WAY || first === undefined || standing.isEmpty) return
    const { ooze, window, wetPerHour, damp, pullSlackMm } = this.truth
    const heat = Math.exp(Math.min(3, (standing.nozzle - window.high) / HEAT_SCALE))
    const pulled = STAYS + (1 - STAYS) * Math.exp(-Math.max(0, this.pulledOnWay - pullSlackMm) / PULL_MM)
    const wet = 1 + damp + (wetPerHour * standing.clock) / 3600
    const mean = STRINGS * Math.sqrt(open / WAY_MM) * ooze * heat * pulled * wet
    layer.strung += mean
    const at = (share: number): number => from[0] + share * (to[0] - from[0]) + standing.shiftedMm
    for (let n = poissonBy(mean, this.random); n > 0 && this.strings.length < MOST_SEEN; n--) {
      const end = this.random() < 0.7 ? last : first + (last - first) * (0.4 + 0.5 * this.random())
      this.strings.push({ z: layer.z, from: at(first), to: at(end), sag: 0.2 + 1.5 * this.random() })
    }
  }

  /** Whether walls stand around a place in this layer or the one below: what strings there is not seen. */
  private isInside(cell: number, { cells }: MadeLayer): boolean {
    return [1, -1, ROW, -ROW].every((step) => {
      for (let n = 1, at = cell; n < FARTHEST; n++) {
        at += step
        if (cells.has(at) || this.below.has(at)) return true
      }
      return false
    })
  }

  /** Whether a move ends where the layer below reaches farthest: as good as on the surface. */
  private isSeen({ from, to }: RunMove, { shiftedMm }: Standing): boolean {
    if (!this.reach) return false
    const [left, right, front, back] = this.reach
    const isOut = (at: number, edge: number): boolean => Math.abs(at - edge) < SURFACE_MM
    return [from, to].some(([x, y]) => isOut(x + shiftedMm, left) || isOut(x + shiftedMm, right) || isOut(y, front) || isOut(y, back))
  }

  /** What comes out of what is asked for: all of it as far as it melts. */
  private cameOut({ from, to, feed, peak }: RunMove, layer: MadeLayer, { nozzle, shiftedMm }: Standing): number {
    const { failingFlow, flowSlope, flowFactor, boreOpen } = this.truth
    const melts = failingFlow * Math.exp((flowSlope * (nozzle - 210)) / 10)
    const way = wayOf({ from, to })
    const flow = way > 0 ? (peak * feed * FILAMENT_MM2 * flowFactor) / way : 0
    layer.dull += ((flow > DULL_FROM * melts ? 1 : 0) - layer.dull) * (feed / (layer.feed + feed))
    const came = boreOpen * Math.min(1, melts / Math.max(flow, 1e-9))
    if (came >= 1) return 1
    const mean = STARVED_GAPS * way * Math.log(1 / came) * 10
    for (let n = poissonBy(mean, this.random); n > 0 && this.gaps.length < MOST_SEEN; n--)
      this.gaps.push({ z: layer.z, ...somewhere(from, to, this.random, shiftedMm) })
    return came
  }

  /** Marks where a line lies, and how far it hangs where nothing bears it. */
  private cover({ from, to }: RunMove, layer: MadeLayer, { fan, shiftedMm }: Standing): void {
    const length = wayOf({ from, to })
    const steps = Math.max(1, Math.ceil(length / CELL))
    let free = 0
    let longest = 0
    for (let i = 0; i <= steps; i++) {
      const share = i / steps
      const cell = cellOf(from[0] + share * (to[0] - from[0]) + shiftedMm, from[1] + share * (to[1] - from[1]))
      layer.cells.add(cell)
      const [x, y] = [from[0] + share * (to[0] - from[0]) + shiftedMm, from[1] + share * (to[1] - from[1])]
      const [left, right, front, back] = layer.reach
      layer.reach = [Math.min(left, x), Math.max(right, x), Math.min(front, y), Math.max(back, y)]
      const rests = this.below.size === 0 || near(this.below, cell) || this.deeper.some((cells) => near(cells, cell))
      free = rests ? 0 : free + length / steps
      longest = Math.max(longest, free)
    }
    const cooled = Math.min(1, (fan / 255) * this.truth.fanFactor)
    layer.sagMm = Math.max(layer.sagMm, SAG * longest ** 2 * (1 - FAN_HOLDS * cooled))
  }

  private holesOfCold(layer: MadeLayer, { from, to }: RunMove, { nozzle, shiftedMm }: Standing): void {
    const mean = COLD_GAPS * (wayOf({ from, to }) / 40) * Math.exp(Math.min(4, (this.truth.window.low - nozzle) / COLD_SCALE))
    for (let n = poissonBy(mean, this.random); n > 0 && this.gaps.length < MOST_SEEN; n--)
      this.gaps.push({ z: layer.z, ...somewhere(from, to, this.random, shiftedMm) })
  }

  /** The load at which it parts when it is pulled upwards, N: its weakest layer's plastic by what layers bear. */
  pullN(): number {
    this.partedAt ??= this.parts()
    return this.partedAt
  }

  private parts(): number {
    const { strengthMpa, bond, window, flowFactor } = this.truth
    let least = Number.POSITIVE_INFINITY
    for (const [i, { z, feed, came, nozzle }] of this.layers.entries()) {
      const height = z - (this.layers[i - 1]?.z ?? 0)
      if (height <= 0 || i === 0) continue
      const area = (feed * came * flowFactor * FILAMENT_MM2) / height
      const cold = Math.min(1, Math.exp((nozzle - this.truth.thermometer - window.low) / COLD_BOND))
      least = Math.min(least, area * strengthMpa * bond * cold * came)
    }
    const batch = Math.exp(BATCH * normalBy(this.random))
    return Number.isFinite(least) ? least * batch * (this.random() < FLAWED ? FLAW : 1) : 0
  }
}

/** Way over the table, mm. */
const wayOf = ({ from, to }: Pick<RunMove, 'from' | 'to'>): number => Math.hypot(to[0] - from[0], to[1] - from[1])

/** Amplitude of a frame that is struck with an acceleration: a/(2πf)², mm. */
const waveOf = (acceleration: number, hz: number): number => acceleration / (2 * Math.PI * hz) ** 2

const cellOf = (x: number, y: number): number => Math.round(x / CELL) * ROW + Math.round(y / CELL)
/** Along x, of a cell's number, mm. */
export const xOfCell = (cell: number): number => Math.floor((cell + ROW / 2) / ROW) * CELL
export const yOfCell = (cell: number): number => (((cell + ROW / 2) % ROW) - ROW / 2) * CELL

/** Whether something lies at a cell or right beside it. */
const near = (cells: ReadonlySet<number>, cell: number): boolean =>
  cells.has(cell) || cells.has(cell - 1) || cells.has(cell + 1) || cells.has(cell - ROW) || cells.has(cell + ROW)

const somewhere = (from: readonly [number, number], to: readonly [number, number], random: () => number, shiftedMm: number) => ({
  x: from[0] + random() * (to[0] - from[0]) + shiftedMm,
  width: 0.4 + 1.2 * random(),
})
