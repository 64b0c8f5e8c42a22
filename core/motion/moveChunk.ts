import type { Printer } from '../shelf/printer'
import { filamentArea } from '../units/flow'
import { deviationCornerSquared, instantChangeCorner } from './cornerSpeed'
import { limiterCode } from './limiters'
import { peakSpeed, timeAtPeak } from './trapezoid'

/** Where a planned chunk is written, one entry a move. */
export interface PlannedMoves {
  readonly duration: Float32Array
  readonly peak: Float32Array
  readonly exit: Float32Array
  readonly asked: Float32Array
  readonly acceleration: Float32Array
  readonly limiter: Uint8Array
}

export interface MotionPrinter extends Pick<Printer, 'limits' | 'cornerSchool' | 'filamentDiameter'> {
  /** Share that it keeps of the acceleration that it is told; all of it where nothing is known. */
  readonly keeps?: number
}

/** What layer-time slowing may do to a move. */
export const pace = { fixed: 0, outerWall: 1, other: 2 } as const

/** Places in `MoveChunk.next`: mm; filament per mm of the way, negative when it is pulled back; mm/s and mm/s²; mm³/s. */
export const nextMove = { dx: 0, dy: 1, dz: 2, feed: 3, asked: 4, acceleration: 5, cornerSpeed: 6, flowLimit: 7 } as const

/** A move whose peak comes this near its cap has reached it. */
const REACHED = 1 - 1e-6
/** A move that gains less than this share of speed between two corners runs at what the corners allow. */
const CORNERING = 1.1

/**
 * Moves that are planned together, from rest to rest (models §2). Each is capped by what was asked, flow, axes and
 * extruder; corners bound the speed between moves; a backward and a forward pass keep every change of speed within the
 * acceleration. The arrays are used again for the next chunk.
 *
 * ```
 * length        mm; of a move of filament alone, mm of filament
 * acceleration  mm/s², as far as axes and extruder allow; in wanted what was asked for
 * asked         mm/s
 * hardCap       largest speed, mm/s, at most the asked one, and in hardLimiter the code of what sets it
 * pace          what layer-time slowing may do
 * corner        largest squared speed between move i − 1 and i, from the corner alone
 * joint         planned squared speed between moves, and in speed its root
 * peak          planned highest speed, mm/s
 * duration      planned, s
 * ```
 */
export class MoveChunk {
  count = 0
  /** What the next move asks for, by the places of `nextMove`: numbers in an array need no room of their own on the way here. */
  readonly next = new Float64Array(8)
  /** Squared speed at which the chunk begins, mm²/s²; at most what its first move can brake from. */
  entry = 0
  /** Whether the last move belongs to what follows and only shows where this chunk leads to. */
  looksAhead = false
  /** Fastest asked speed of a move that slowing may touch, mm/s. */
  fastestAsked = 0
  private capacity = 0
  private length = new Float64Array(0)
  private acceleration = new Float64Array(0)
  private wanted = new Float64Array(0)
  private asked = new Float64Array(0)
  private cap = new Float64Array(0)
  private hardCap = new Float64Array(0)
  private hardLimiter = new Uint8Array(0)
  private limiter = new Uint8Array(0)
  private pace = new Uint8Array(0)
  private corner = new Float64Array(1)
  private joint = new Float64Array(1)
  private speed = new Float64Array(1)
  private peak = new Float64Array(0)
  private duration = new Float64Array(0)
  private ux = 0
  private uy = 0
  private uz = 0
  private readonly filament: number
  private readonly byDeviation: boolean

  /** Share of the asked acceleration that is kept. */
  readonly keeps: number

  constructor(private readonly printer: MotionPrinter) {
    this.keeps = printer.keeps ?? 1
    this.filament = filamentArea(printer.filamentDiameter)
    this.byDeviation = printer.cornerSchool === 'deviation'
    this.grow(1024)
  }

  clear(): void {
    this.count = 0
    this.entry = 0
    this.looksAhead = false
    this.fastestAsked = 0
    this.ux = this.uy = this.uz = 0
  }

  /**
   * A straight move, as `next` asks for it.
   *
   * @param askedLimiter code of what set the asked speed
   * @param slowing what layer-time slowing may do
   */
  addMove(askedLimiter: number, slowing: number): void {
    const { next } = this
    const dx = next[nextMove.dx]!
    const dy = next[nextMove.dy]!
    const dz = next[nextMove.dz]!
    const feed = next[nextMove.feed]!
    const asked = next[nextMove.asked]!
    const acceleration = next[nextMove.acceleration]!
    const cornerSpeed = next[nextMove.cornerSpeed]!
    const flowLimit = next[nextMove.flowLimit]!
    const { speed, acceleration: most, extruderSpeed, extruderAcceleration } = this.printer.limits
    if (this.count === this.capacity) this.grow(2 * this.capacity)
    const i = this.count++
    const length = Math.sqrt(dx * dx + dy * dy + dz * dz)
    const per = length > 0 ? 1 / length : 0
    const nx = dx * per
    const ny = dy * per
    const nz = dz * per
    const ax = nx < 0 ? -nx : nx
    const ay = ny < 0 ? -ny : ny
    const az = nz < 0 ? -nz : nz
    // Few limits bind, so each is compared first and divided only then.
    let cap = asked
    let hard = limiterCode.axis
    let a = acceleration
    if (speed.x < cap * ax) cap = speed.x / ax
    if (most.x < a * ax) a = most.x / ax
    if (speed.y < cap * ay) cap = speed.y / ay
    if (most.y < a * ay) a = most.y / ay
    if (speed.z < cap * az) cap = speed.z / az
    if (most.z < a * az) a = most.z / az
    if (feed !== 0) {
      const byFeed = feed < 0 ? -feed : feed
      const area = feed * this.filament
      if (feed > 0 && flowLimit < cap * area) {
        cap = flowLimit / area
        hard = limiterCode.flow
      }
      if (extruderSpeed < cap * byFeed) {
        cap = extruderSpeed / byFeed
        hard = limiterCode.extruder
      }
      if (extruderAcceleration < a * byFeed) a = extruderAcceleration / byFeed
    }
    if (slowing !== pace.fixed && asked > this.fastestAsked) this.fastestAsked = asked
    this.length[i] = length
    this.acceleration[i] = a
    this.wanted[i] = acceleration
    this.asked[i] = asked
    this.pace[i] = slowing
    this.hardCap[i] = cap
    this.hardLimiter[i] = cap < asked ? hard : askedLimiter
    if (this.ux === 0 && this.uy === 0 && this.uz === 0) this.corner[i] = 0
    else if (this.byDeviation) {
      const before = this.acceleration[i - 1]! * this.length[i - 1]!
      const here = a * length
      this.corner[i] = deviationCornerSquared(this.ux * nx + this.uy * ny + this.uz * nz, cornerSpeed, before < here ? before : here)
    } else {
      const v = instantChangeCorner(nx - this.ux, ny - this.uy, nz - this.uz, cornerSpeed)
      this.corner[i] = v * v
    }
    this.ux = nx
    this.uy = ny
    this.uz = nz
  }

  /** Moves that are the chunk's own. */
  get own(): number {
    return this.looksAhead ? this.count - 1 : this.count
  }

  /** Squared speed at the end of its own moves, as planned last. */
  get exit(): number {
    return this.looksAhead ? this.joint[this.count - 1]! : 0
  }

  /** Filament alone moves, by `length` mm, from rest to rest. */
  addFilament(length: number, asked: number, askedLimiter: number = limiterCode.asked): void {
    const { extruderSpeed, extruderAcceleration } = this.printer.limits
    if (this.count === this.capacity) this.grow(2 * this.capacity)
    const i = this.count++
    this.length[i] = length
    this.acceleration[i] = extruderAcceleration
    this.wanted[i] = 0
    this.asked[i] = asked
    this.pace[i] = pace.fixed
    this.hardCap[i] = extruderSpeed
    this.hardLimiter[i] = extruderSpeed < asked ? limiterCode.extruder : askedLimiter
    this.corner[i] = 0
    this.ux = this.uy = this.uz = 0
  }

  /**
   * Plans the chunk with its asked speeds scaled, none below the floor speed. Returns its time, s.
   *
   * @param outer scale of outer walls, @param other scale of everything else that lays plastic; 1 leaves it
   */
  plan(outer = 1, other = 1, floor = 0): number {
    const { count, length, acceleration, joint, cap, corner, asked, hardCap, hardLimiter, limiter } = this
    for (let i = 0; i < count; i++) {
      let wanted = asked[i]!
      const slowing = this.pace[i]!
      const scale = slowing === pace.fixed ? 1 : slowing === pace.outerWall ? outer : other
      const hard = hardCap[i]!
      if (scale < 1) {
        const slowed = Math.min(wanted, Math.max(floor, wanted * scale))
        limiter[i] = slowed < wanted && slowed < hard ? limiterCode.layerTime : hardLimiter[i]!
        wanted = slowed
      } else limiter[i] = hardLimiter[i]!
      cap[i] = hard < wanted ? hard : wanted
    }
    joint[0] = this.entry
    joint[count] = 0
    for (let i = count - 1; i > 0; i--) {
      const lower = cap[i]! < cap[i - 1]! ? cap[i]! : cap[i - 1]!
      const reachable = joint[i + 1]! + 2 * acceleration[i]! * length[i]!
      let v2 = lower * lower
      if (corner[i]! < v2) v2 = corner[i]!
      joint[i] = reachable < v2 ? reachable : v2
    }
    let total = 0
    const { own, speed, peak, duration } = this
    let v0 = Math.sqrt(joint[0]!)
    speed[0] = v0
    for (let i = 0; i < count; i++) {
      const a = acceleration[i]!
      const l = length[i]!
      const reachable = joint[i]! + 2 * a * l
      if (reachable < joint[i + 1]!) joint[i + 1] = reachable
      const v1 = Math.sqrt(joint[i + 1]!)
      const tip = peakSpeed(l, v0, v1, a)
      peak[i] = tip >= cap[i]! * REACHED ? cap[i]! : tip
      duration[i] = timeAtPeak(l, v0, v1, peak[i]!, a)
      if (i < own) total += duration[i]!
      v0 = v1
      speed[i + 1] = v1
    }
    return total
  }

  /** Writes what `plan` found last to the moves from `first` on. */
  write(motion: PlannedMoves, first: number): void {
    const { joint, cap, corner, speed, peak, duration, own } = this
    for (let i = 0; i < own; i++) {
      const v0 = speed[i]!
      const v1 = speed[i + 1]!
      motion.asked[first + i] = cap[i]!
      motion.acceleration[first + i] = this.wanted[i]!
      motion.duration[first + i] = duration[i]!
      motion.peak[first + i] = peak[i]!
      motion.exit[first + i] = v1
      motion.limiter[first + i] =
        peak[i] === cap[i]
          ? this.limiter[i]!
          : peak[i]! <= CORNERING * (v0 < v1 ? v0 : v1) &&
              joint[i]! >= corner[i]! * REACHED &&
              i + 1 < this.count &&
              joint[i + 1]! >= corner[i + 1]! * REACHED
            ? limiterCode.corner
            : limiterCode.acceleration
    }
  }

  private grow(capacity: number): void {
    this.capacity = capacity
    const grown = <A extends Float64Array | Uint8Array>(old: A, fresh: A): A => {
      fresh.set(old)
      return fresh
    }
    this.length = grown(this.length, new Float64Array(capacity))
    this.acceleration = grown(this.acceleration, new Float64Array(capacity))
    this.wanted = grown(this.wanted, new Float64Array(capacity))
    this.asked = grown(this.asked, new Float64Array(capacity))
    this.cap = new Float64Array(capacity)
    this.hardCap = grown(this.hardCap, new Float64Array(capacity))
    this.hardLimiter = grown(this.hardLimiter, new Uint8Array(capacity))
    this.limiter = new Uint8Array(capacity)
    this.pace = grown(this.pace, new Uint8Array(capacity))
    this.corner = grown(this.corner, new Float64Array(capacity + 1))
    this.joint = new Float64Array(capacity + 1)
    this.speed = new Float64Array(capacity + 1)
    this.peak = new Float64Array(capacity)
    this.duration = new Float64Array(capacity)
  }
}
