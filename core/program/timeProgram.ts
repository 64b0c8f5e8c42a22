import { type Limiter, limiterCode, limiters } from '../motion/limiters'
import { MoveChunk, nextMove, type PlannedMoves, pace } from '../motion/moveChunk'
import type { Printer } from '../shelf/printer'
import { InputError } from '../units/errors'
import { filamentArea } from '../units/flow'
import { ProgramReader, type ProgramSink, type ReadMove, readMove } from './programReader'
import { DEFAULT_FEATURE_PATTERN, DEFAULT_LAYER_PATTERN, mark } from './words'

export interface ProgramOptions {
  /** Speed kept at corners, mm/s, unless the program tells its own; the printer's default otherwise. */
  readonly cornerSpeed?: number
  /** Regular expressions for comments that name a feature (first group) and that begin a layer. */
  readonly featurePattern?: string
  readonly layerPattern?: string
}

/** What running a program takes on a machine. */
export interface ProgramFigures {
  /** Motion and dwells; heating and homing are the machine's own affair and not included. */
  readonly timeS: number
  /** By the names in the program's comments, or by what the motion shows: travel, retraction, laying. */
  readonly timeByFeatureS: Readonly<Record<string, number>>
  readonly limiters: Readonly<Record<Limiter, number>>
  readonly layerCount: number
  readonly layers: readonly { readonly z: number; readonly timeS: number }[]
  readonly filament: { readonly lengthMm: number; readonly volumeMm3: number }
  readonly nozzleTemperature: number | undefined
  readonly bedTemperature: number | undefined
  readonly lines: number
  readonly moves: number
  /** Words that were not understood and left out, with how often each came. */
  readonly unknown: Readonly<Record<string, number>>
}

/** A chunk is planned at the next stop of the machine once it is this long, and in any case at the second length. */
const CHUNK = 4096
const LONGEST_CHUNK = 1 << 16
/** Speed of moves before a program has given any, mm/s; semi-empirical, and rare. */
const FIRST_SPEED = 50
/** More layers than this no machine lays; a pattern that finds so many matches something else. */
const MOST_LAYERS = 100_000
/** A text in which so many times more words are not understood than moves are made is no program. */
const MOST_UNKNOWN_PER_MOVE = 10

const CHOOSE_PROGRAM = 'Choose a G-code program as it was written for a printer.'

/** Times a program on a machine, piece by piece; holds no more than a chunk of it. */
export class ProgramTimer implements ProgramSink {
  private readonly reader = new ProgramReader(this)
  private readonly chunk: MoveChunk
  private readonly planned: PlannedMoves
  private readonly labelOf = new Uint16Array(LONGEST_CHUNK)
  private readonly layerOf = new Uint32Array(LONGEST_CHUNK)
  private readonly labels: string[] = ['travel', 'retraction', 'laying']
  private readonly timeByLabel: number[] = [0, 0, 0]
  private readonly timeByLimiter = new Float64Array(limiters.length)
  private layingTime = 0
  private readonly layers: { z: number; timeS: number }[] = []
  private readonly unknownWords = new Map<string, number>()
  private readonly feature: RegExp
  private readonly layerStart: RegExp
  private readonly filamentSection: number
  private label = 2
  private layersNamed = false
  private printAcceleration: number
  private travelAcceleration: number
  private cornerSpeed: number
  private dwelt = 0
  private time = 0
  private pushed = 0
  private moves = 0
  private lastSpeed = FIRST_SPEED
  private nozzle: number | undefined
  private bed: number | undefined

  /** @throws SyntaxError when a pattern is no regular expression */
  constructor(printer: Pick<Printer, 'limits' | 'cornerSchool' | 'filamentDiameter' | 'defaults'>, options: ProgramOptions = {}) {
    this.chunk = new MoveChunk(printer)
    this.planned = {
      duration: new Float32Array(LONGEST_CHUNK),
      peak: new Float32Array(LONGEST_CHUNK),
      exit: new Float32Array(LONGEST_CHUNK),
      asked: new Float32Array(LONGEST_CHUNK),
      acceleration: new Float32Array(LONGEST_CHUNK),
      limiter: new Uint8Array(LONGEST_CHUNK),
    }
    this.filamentSection = filamentArea(printer.filamentDiameter)
    this.feature = new RegExp(options.featurePattern ?? DEFAULT_FEATURE_PATTERN, 'i')
    this.layerStart = new RegExp(options.layerPattern ?? DEFAULT_LAYER_PATTERN, 'i')
    const { acceleration } = printer.limits
    this.printAcceleration = printer.defaults.acceleration ?? Math.min(acceleration.x, acceleration.y)
    this.travelAcceleration = printer.defaults.travelAcceleration ?? this.printAcceleration
    this.cornerSpeed = options.cornerSpeed ?? printer.defaults.cornerSpeed ?? 8
  }

  push(bytes: Uint8Array): void {
    this.reader.push(bytes)
  }

  /** @throws InputError for what is no program: nothing in it moves, or hardly a word of it is understood */
  finish(): ProgramFigures {
    this.reader.finish()
    this.flush()
    if (this.moves === 0)
      throw new InputError('program-without-moves', 'Nothing in the file moves a machine: it is no G-code program.', '', CHOOSE_PROGRAM)
    const unknown = [...this.unknownWords.values()].reduce((sum, times) => sum + times, 0)
    if (unknown > 100 && unknown > MOST_UNKNOWN_PER_MOVE * this.moves)
      throw new InputError(
        'program-not-understood',
        'Hardly a word of the file is understood: it is no G-code program.',
        '',
        CHOOSE_PROGRAM,
      )
    return {
      timeS: this.time + this.dwelt,
      timeByFeatureS: Object.fromEntries(
        this.labels.map((label, i) => [label, this.timeByLabel[i]!] as const).filter(([, seconds]) => seconds > 0),
      ),
      limiters: Object.fromEntries(
        limiters.map((limiter, i) => [limiter, this.layingTime > 0 ? this.timeByLimiter[i]! / this.layingTime : 0]),
      ) as Record<Limiter, number>,
      layerCount: this.layers.length,
      layers: this.layers,
      filament: { lengthMm: this.pushed, volumeMm3: this.pushed * this.filamentSection },
      nozzleTemperature: this.nozzle,
      bedTemperature: this.bed,
      lines: this.reader.lines,
      moves: this.moves,
      unknown: Object.fromEntries([...this.unknownWords].sort((a, b) => b[1] - a[1])),
    }
  }

  move(move: ReadMove): void {
    const dx = move[readMove.dx]!
    const dy = move[readMove.dy]!
    const dz = move[readMove.dz]!
    const filament = move[readMove.filament]!
    const speed = move[readMove.speed]!
    if (speed > 0) this.lastSpeed = speed
    const length = Math.sqrt(dx * dx + dy * dy + dz * dz)
    if (length < 1e-9) {
      if (filament === 0) return
      this.note(1)
      this.pushed += filament
      this.chunk.addFilament(Math.abs(filament), this.lastSpeed)
      if (this.chunk.count >= CHUNK) this.flush()
      return
    }
    const lays = filament > 0
    if (lays && (dx !== 0 || dy !== 0)) this.onLayerAt(move[readMove.z]!)
    this.note(lays ? this.label : 0)
    this.pushed += filament
    const { next } = this.chunk
    next[nextMove.dx] = dx
    next[nextMove.dy] = dy
    next[nextMove.dz] = dz
    next[nextMove.feed] = filament / length
    next[nextMove.asked] = this.lastSpeed
    next[nextMove.acceleration] = lays ? this.printAcceleration : this.travelAcceleration
    next[nextMove.cornerSpeed] = this.cornerSpeed
    next[nextMove.flowLimit] = Infinity
    this.chunk.addMove(limiterCode.asked, pace.fixed)
    if (this.chunk.count >= LONGEST_CHUNK) this.flush()
  }

  dwell(seconds: number): void {
    this.flush()
    this.dwelt += Math.max(0, seconds)
  }

  heat(what: 'nozzle' | 'bed', celsius: number): void {
    if (celsius <= 0) return
    if (what === 'nozzle') this.nozzle = Math.max(this.nozzle ?? 0, celsius)
    else this.bed = Math.max(this.bed ?? 0, celsius)
  }

  fan(): void {}

  home(): void {
    this.flush()
  }

  acceleration(value: number, of: 'print' | 'travel' | 'both'): void {
    if (!(value > 0)) return
    if (of !== 'travel') this.printAcceleration = value
    if (of !== 'print') this.travelAcceleration = value
  }

  comment(text: string): void {
    if (text.startsWith(mark.cornerSpeed)) {
      const told = Number(text.slice(mark.cornerSpeed.length))
      if (told >= 0) this.cornerSpeed = told
      return
    }
    const named = this.feature.exec(text)
    if (named?.[1]) this.label = this.labelled(named[1].slice(0, 60))
    else if (this.layerStart.test(text)) {
      if (!this.layersNamed) {
        // The program names its layers, so heights need not be guessed from; the first line of it was before any name.
        this.layersNamed = true
        this.layers.length = 0
      }
      this.beginLayer(0)
    }
  }

  unknown(word: string): void {
    const key = word.slice(0, 24)
    if (this.unknownWords.has(key) || this.unknownWords.size < 200) this.unknownWords.set(key, (this.unknownWords.get(key) ?? 0) + 1)
  }

  private labelled(name: string): number {
    const known = this.labels.indexOf(name)
    if (known >= 0) return known
    if (this.labels.length >= 200) return 2
    this.timeByLabel.push(0)
    return this.labels.push(name) - 1
  }

  /** Without named layers every new height at which something is laid begins one. */
  private onLayerAt(z: number): void {
    const last = this.layers[this.layers.length - 1]
    if (this.layersNamed) {
      if (last && last.z === 0) last.z = z
    } else if (!last || z > last.z + 1e-6) this.beginLayer(z)
  }

  private beginLayer(z: number): void {
    if (this.layers.length === MOST_LAYERS)
      throw new InputError(
        'program-too-many-layers',
        `The program begins more than ${MOST_LAYERS.toLocaleString('en')} layers.`,
        `line ${this.reader.lines.toLocaleString('en')}`,
        'If you gave a pattern for layers, let it match fewer comments.',
      )
    this.layers.push({ z, timeS: 0 })
  }

  private note(label: number): void {
    const i = this.chunk.count
    this.labelOf[i] = label
    this.layerOf[i] = Math.max(0, this.layers.length - 1)
    this.moves++
  }

  private flush(): void {
    const { chunk, planned } = this
    if (chunk.count === 0) return
    this.time += chunk.plan()
    chunk.write(planned, 0)
    for (let i = 0; i < chunk.count; i++) {
      const seconds = planned.duration[i]!
      const label = this.labelOf[i]!
      this.timeByLabel[label]! += seconds
      const layer = this.layers[this.layerOf[i]!]
      if (layer) layer.timeS += seconds
      if (label >= 2) {
        this.layingTime += seconds
        this.timeByLimiter[planned.limiter[i]!]! += seconds
      }
    }
    chunk.clear()
  }
}
