import { Making } from '../making'
import type { Truth } from '../truth'
import { Heater } from './heater'
import { cornerSpeed, MoveBuffer, type PlannedMove } from './planner'

/** What a machine says of its limits (M503), by axis and for the filament. */
export interface Limits {
  readonly speed: readonly [x: number, y: number, z: number, e: number]
  readonly acceleration: readonly [x: number, y: number, z: number, e: number]
}

export const usualLimits: Limits = { speed: [400, 400, 15, 60], acceleration: [5000, 5000, 200, 5000] }

/** What can be made to go wrong: a nozzle that jams, layers that shift, filament that runs out, a plug that is pulled. */
export const mishapKinds = ['jam', 'shift', 'runOut', 'pulledPlug'] as const
/** One of them, and the height at which it happens, mm. */
export interface Mishap {
  readonly kind: (typeof mishapKinds)[number]
  readonly atZ: number
}

const BUFFER = 32
const ROOM = 22
const HOMING_S = 18

/** A machine that runs G-code by its own clock: heats, plans with a finite buffer, and remembers what it made. Nothing of it knows a line or a wire. */
export class Machine {
  readonly nozzle: Heater
  readonly bed: Heater
  /** What lies on its table; homing, at the head of every program, finds it cleared. */
  making: Making
  /** All filament that it ever took, mm. */
  fedMm = 0
  private made = 0
  fan = 0
  /** Where it stands, mm. */
  readonly at = { x: 0, y: 0, z: 0, e: 0 }
  /** By how much it lost its way, mm. */
  shiftedMm = 0
  /** Seconds on its own clock since it was switched on, and of it those that it moved. */
  clock = 0
  busyS = 0
  private buffer = new MoveBuffer(BUFFER)
  private lastAdded: PlannedMove | undefined
  private runningUntil = 0
  private acceleration = 1500
  private relativeE = false
  private relative = false
  private waitUntil: (() => boolean) | undefined
  mishap: Mishap | undefined
  /** It ran into what it was told to run into. */
  struck: Mishap['kind'] | undefined

  constructor(
    readonly truth: Truth,
    readonly limits: Limits = usualLimits,
    private readonly seed = 0,
  ) {
    this.making = new Making(truth, seed)
    this.nozzle = new Heater(ROOM, truth.nozzleTauS, 300)
    this.bed = new Heater(ROOM, truth.bedTauS, 120)
  }

  /** Lets its clock run on. */
  advance(seconds: number): void {
    const until = this.clock + seconds
    this.nozzle.advance(seconds)
    this.bed.advance(seconds)
    while (this.runningUntil <= until) {
      const next = this.buffer.next()
      if (!next) {
        this.runningUntil = Math.max(this.runningUntil, this.clock)
        break
      }
      const took = next.seconds * this.truth.pace
      this.runningUntil = Math.max(this.runningUntil, this.clock) + took
      this.busyS += took
      this.remember(next.move, took, next.peak / this.truth.pace)
    }
    this.clock = until
    if (this.waitUntil?.()) this.waitUntil = undefined
  }

  private remember(move: PlannedMove, seconds: number, peak: number): void {
    const { mishap } = this
    if (mishap && this.struck === undefined && move.z >= mishap.atZ && move.feed > 0) {
      this.struck = mishap.kind
      if (mishap.kind === 'shift') this.shiftedMm = 4
    }
    const isEmpty = this.struck === 'jam' || this.struck === 'runOut'
    if (!isEmpty) this.fedMm += move.feed
    this.making.note(
      { ...move, seconds, peak },
      {
        // What the thermometer shows is what is held: the melt is as much colder as it shows too much.
        nozzle: this.nozzle.celsius - this.truth.thermometer,
        fan: this.fan,
        clock: this.clock,
        shiftedMm: this.shiftedMm,
        isEmpty,
      },
    )
  }

  /** Whether it can take another line. */
  get isReady(): boolean {
    return this.waitUntil === undefined && !this.buffer.isFull
  }

  /** Whether everything that it was given is done. */
  get isIdle(): boolean {
    return this.waitUntil === undefined && this.buffer.isEmpty && this.runningUntil <= this.clock
  }

  /** Seconds until it could take another line, as far as it knows. */
  get isWaiting(): boolean {
    return this.waitUntil !== undefined
  }

  /** Everything stops; heaters off. */
  halt(): void {
    this.buffer.clear()
    this.waitUntil = undefined
    this.runningUntil = this.clock
    this.nozzle.target = 0
    this.bed.target = 0
  }

  /** Runs a command that it was given: a word and its values. Whatever it does not know it passes over. */
  run(word: string, values: Readonly<Record<string, number>>): void {
    switch (word) {
      case 'G0':
      case 'G1':
        this.move(values)
        return
      case 'G4':
        this.waitFor((values.S ?? 0) + (values.P ?? 0) / 1000)
        return
      case 'G28':
        Object.assign(this.at, { x: 0, y: 0, z: 0 })
        this.making = new Making(this.truth, this.seed + ++this.made)
        this.waitFor(HOMING_S + this.truth.startS)
        return
      case 'G90':
        this.relative = false
        return
      case 'G91':
        this.relative = true
        return
      case 'G92':
        for (const [axis, key] of [
          ['x', 'X'],
          ['y', 'Y'],
          ['z', 'Z'],
          ['e', 'E'],
        ] as const)
          if (values[key] !== undefined) this.at[axis] = values[key]
        return
      case 'M82':
        this.relativeE = false
        return
      case 'M83':
        this.relativeE = true
        return
      case 'M104':
      case 'M109':
        this.nozzle.target = values.S ?? values.R ?? 0
        if (word === 'M109') this.waitUntil = () => this.buffer.isEmpty && this.nozzle.isThere
        return
      case 'M140':
      case 'M190':
        this.bed.target = values.S ?? values.R ?? 0
        if (word === 'M190') this.waitUntil = () => this.buffer.isEmpty && this.bed.isThere
        return
      case 'M106':
        this.fan = values.S ?? 255
        return
      case 'M107':
        this.fan = 0
        return
      case 'M204':
        this.acceleration = values.S ?? values.P ?? values.T ?? this.acceleration
        return
      case 'M75':
        this.timerFrom = this.clock
        this.timerTo = undefined
        return
      case 'M77':
        this.timerTo = this.clock
        return
      case 'M400':
        this.waitUntil = () => this.buffer.isEmpty && this.runningUntil <= this.clock
        return
      default:
    }
  }

  private waitFor(seconds: number): void {
    let until: number | undefined
    // Its time begins when all that was before is done.
    this.waitUntil = () => {
      if (until === undefined && this.buffer.isEmpty && this.runningUntil <= this.clock) until = this.clock + seconds
      return until !== undefined && this.clock >= until
    }
  }

  private feedrate = 60
  /** Seconds of its own clock since a print's timer was started, until it was stopped. */
  private timerFrom: number | undefined
  private timerTo: number | undefined

  get printS(): number {
    return this.timerFrom === undefined ? 0 : (this.timerTo ?? this.clock) - this.timerFrom
  }

  private move(values: Readonly<Record<string, number>>): void {
    if (values.F !== undefined && values.F > 0) this.feedrate = values.F / 60
    const { at } = this
    const to = (axis: 'x' | 'y' | 'z', given: number | undefined): number =>
      given === undefined ? at[axis] : this.relative ? at[axis] + given : given
    const target = { x: to('x', values.X), y: to('y', values.Y), z: to('z', values.Z) }
    const feed = values.E === undefined ? 0 : this.relativeE || this.relative ? values.E : values.E - at.e
    const way = [target.x - at.x, target.y - at.y, target.z - at.z] as const
    const length = Math.hypot(...way)
    const from = [at.x, at.y] as const
    Object.assign(at, target, { e: at.e + feed })
    // Too cold to melt: the feed is refused, the move is not.
    const cold = feed > 0 && this.nozzle.celsius < 160
    const fed = cold ? 0 : feed
    const { speed, acceleration } = this.limits
    const own = length > 1e-9 ? length : Math.abs(feed)
    if (own < 1e-9) return
    const along = length > 1e-9 ? (way.map((mm) => mm / length) as [number, number, number]) : ([0, 0, 0] as const)
    let most = this.feedrate
    let hardest = this.acceleration
    for (const axis of [0, 1, 2] as const) {
      const share = Math.abs(along[axis])
      if (share < 1e-9) continue
      most = Math.min(most, speed[axis] / share)
      hardest = Math.min(hardest, acceleration[axis] / share)
    }
    const feedShare = Math.abs(feed) / own
    if (feedShare > 1e-9) {
      most = Math.min(most, speed[3] / feedShare)
      hardest = Math.min(hardest, acceleration[3] / feedShare)
    }
    const move: PlannedMove = {
      length: own,
      along,
      speed: most,
      acceleration: hardest * this.truth.accelerationFactor,
      entry: cornerSpeed(this.lastAdded, along, most),
      feed: fed,
      z: target.z,
      from,
      to: [target.x, target.y],
    }
    this.buffer.add(move)
    this.lastAdded = move
  }
}
