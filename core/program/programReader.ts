import { InputError } from '../units/errors'

/** What a program says, word by word; positions in mm, speeds in mm/s. Everything relative is resolved. */
export interface ProgramSink {
  /** A straight move. The array is the reader's own and holds it only for now. */
  move(move: ReadMove): void
  /** The machine waits, s. */
  dwell(seconds: number): void
  /** Temperature that is asked for, °C; waited for or not. */
  heat(what: 'nozzle' | 'bed', celsius: number, waits: boolean): void
  /** 0–1 */
  fan(share: number): void
  /** mm/s², for printing moves, travels or both. */
  acceleration(value: number, of: 'print' | 'travel' | 'both'): void
  comment(text: string): void
  home(): void
  /** A word that is not understood; it is left out. */
  unknown(word: string): void
}

/**
 * A move that was read: its run along x, y and z, what is pushed along it, mm, its speed, mm/s, and the height at which it ends,
 * mm. One array for all: numbers handed over one by one would each be put in a box.
 */
export type ReadMove = Float64Array
export const readMove = { dx: 0, dy: 1, dz: 2, filament: 3, speed: 4, z: 5 } as const

const INCH = 25.4
/** Arcs are run as chords that leave them by no more than this, mm. */
const ARC_TOLERANCE = 0.01
/** Chords that the arcs of a program come to at most: so many, and so many more for each of its bytes. */
const MOST_CHORDS = 5_000_000
const CHORDS_PER_BYTE = 1 / 8
/** No machine goes farther from its origin, mm, and no line of a program is longer, bytes. */
const FARTHEST = 1e6
const LONGEST_LINE = 1 << 16
const SEMICOLON = 59
const OPEN = 40
const CLOSE = 41
const NEWLINE = 10
const RETURN = 13
const STAR = 42
/** Bits of X, Y and Z. */
const AXES = (1 << 23) | (1 << 24) | (1 << 25)

/**
 * Reads G-code as it comes, piece by piece, whatever wrote it: RS-274 words with the common additive M-codes; absolute
 * and relative, inches, arcs in the XY plane, G92, both filament modes, speed and flow override. Holds one line only.
 *
 * Throws `InputError` naming the line for what no machine could run: a line without end, a place far out of reach, arcs
 * without measure, or bytes that are no text.
 */
export class ProgramReader {
  lines = 0
  private rest: Uint8Array | undefined
  private readonly values = new Float64Array(26)
  /** A bit for each letter of the line that came with a number, and for each that came without. */
  private given = 0
  private bare = 0
  private readonly position = new Float64Array(3)
  /** Where the program believes it is differs from where it is by what G92 set. */
  private readonly shift = new Float64Array(4)
  private readonly to = new Float64Array(3)
  private readonly moved: ReadMove = new Float64Array(6)
  private filament = 0
  private unit = 1
  private relative = false
  private filamentRelative = false
  private feed = 0
  private speedShare = 1
  private flowShare = 1
  private motion = 0
  private chords = 0
  private bytes = 0

  constructor(private readonly sink: ProgramSink) {}

  /** Takes the next bytes of the program. */
  push(bytes: Uint8Array): void {
    let from = 0
    this.bytes += bytes.length
    if (bytes.includes(0)) throw this.refusal('program-not-text', 'The file holds bytes that are no text: it is no G-code program.')
    const last = bytes.lastIndexOf(NEWLINE)
    if (bytes.length - 1 - last + (last < 0 ? (this.rest?.length ?? 0) : 0) > LONGEST_LINE)
      throw this.refusal('program-line-too-long', `A line is longer than ${LONGEST_LINE.toLocaleString('en')} characters.`)
    if (last < 0) {
      this.rest = this.rest ? joined(this.rest, bytes) : bytes.slice()
      return
    }
    if (this.rest) {
      const end = bytes.indexOf(NEWLINE)
      const line = joined(this.rest, bytes.subarray(0, end + 1))
      this.rest = undefined
      this.readLine(line, 0)
      from = end + 1
    }
    while (from <= last) from = this.readLine(bytes, from)
    if (from < bytes.length) this.rest = bytes.slice(from)
  }

  private refusal(code: string, what: string): InputError {
    return new InputError(
      code,
      what,
      `line ${(this.lines + 1).toLocaleString('en')}`,
      'Choose a G-code program as it was written for a printer.',
    )
  }

  /** The program has ended. */
  finish(): void {
    if (this.rest) this.readLine(joined(this.rest, Uint8Array.of(NEWLINE)), 0)
    this.rest = undefined
  }

  /**
   * Reads the line that begins at `from` and ends with a line feed, which must be there: it ends every loop by itself. Returns
   * where the next line begins.
   */
  private readLine(bytes: Uint8Array, from: number): number {
    this.lines++
    const { values } = this
    let given = 0
    let bare = 0
    let i = from
    let command = 0
    let number = -1
    for (;;) {
      const byte = bytes[i]!
      if (byte === NEWLINE) break
      const letter = byte & 0xdf
      if (letter < 65 || letter > 90) {
        if (byte === SEMICOLON) {
          const end = bytes.indexOf(NEWLINE, i)
          this.sink.comment(textOf(bytes.subarray(i + 1, bytes[end - 1] === RETURN ? end - 1 : end)))
          i = end
          break
        }
        if (byte === STAR) {
          i = bytes.indexOf(NEWLINE, i)
          break
        }
        if (byte === OPEN) while (bytes[i] !== CLOSE && bytes[i + 1] !== NEWLINE) i++
        i++
        continue
      }
      // A number after its letter, by hand: this loop is where the time of a large program goes.
      let k = i + 1
      let next = bytes[k]!
      while (next === 32) next = bytes[++k]!
      const negative = next === 45
      if (negative || next === 43) next = bytes[++k]!
      let whole = 0
      let digits = 0
      let point = -1
      for (; ; next = bytes[++k]!) {
        const digit = next - 48
        if (digit >= 0 && digit <= 9) {
          whole = whole * 10 + digit
          digits++
        } else if (next === 46 && point < 0) point = digits
        else break
      }
      const unsigned = point >= 0 ? whole / tenTo(digits - point) : whole
      const value = negative ? -unsigned : unsigned
      if ((letter === 71 || letter === 77 || letter === 84) && command === 0) {
        command = letter
        number = digits > 0 ? value : -1
      } else if (letter !== 78) {
        values[letter - 65] = value
        if (digits > 0) given |= 1 << (letter - 65)
        else bare |= 1 << (letter - 65)
      }
      i = k
      // Words of macro languages are longer than one letter; they are not understood, and nothing in them is guessed at.
      if (digits === 0 && isLetter(next)) {
        const end = bytes.indexOf(NEWLINE, i)
        this.sink.unknown(textOf(bytes.subarray(from, end)).trim().split(/\s/)[0] ?? '')
        return end + 1
      }
    }
    this.given = given
    this.bare = bare
    if (command !== 0) this.run(command, number)
    // Axis words alone repeat the last motion.
    else if ((given & AXES) !== 0) this.go(this.motion)
    return i + 1
  }

  private has(letter: number): boolean {
    return (this.given & (1 << (letter - 65))) !== 0
  }

  private run(letter: number, number: number): void {
    if (letter === 71) this.runG(number)
    else if (letter === 77) this.runM(number)
    // A tool change is no motion; what it means is the machine's affair.
    else if (number > 0) this.sink.unknown(`T${number}`)
  }

  private runG(number: number): void {
    switch (number) {
      case 0:
      case 1:
      case 2:
      case 3:
        this.motion = number
        this.go(number)
        return
      case 4:
        this.sink.dwell(this.has(80) ? this.values[15]! / 1000 : this.has(83) ? this.values[18]! : 0)
        return
      case 10:
      case 11:
      case 17:
      case 80:
      case 94:
        return
      case 20:
        this.unit = INCH
        return
      case 21:
        this.unit = 1
        return
      case 28: {
        const named = (this.given | this.bare) & AXES
        for (let k = 0; k < 3; k++) {
          if (named !== 0 && (named & (1 << (23 + k))) === 0) continue
          this.position[k] = 0
          this.shift[k] = 0
        }
        this.sink.home()
        return
      }
      case 90:
        this.relative = false
        this.filamentRelative = false
        return
      case 91:
        this.relative = true
        this.filamentRelative = true
        return
      case 92:
        for (let k = 0; k < 3; k++) if (this.has(88 + k)) this.shift[k] = this.position[k]! - this.values[23 + k]! * this.unit
        if (this.has(69)) this.filament = this.values[4]! * this.unit
        return
      default:
        this.sink.unknown(`G${number}`)
    }
  }

  private runM(number: number): void {
    const s = this.has(83) ? this.values[18]! : undefined
    switch (number) {
      case 82:
        this.filamentRelative = false
        return
      case 83:
        this.filamentRelative = true
        return
      case 104:
      case 109:
      case 140:
      case 190: {
        const wanted = s ?? (this.has(82) ? this.values[17]! : undefined)
        if (wanted !== undefined) this.sink.heat(number < 110 ? 'nozzle' : 'bed', wanted, number === 109 || number === 190)
        return
      }
      case 106:
        this.sink.fan(Math.min(1, (s ?? 255) / 255))
        return
      case 107:
        this.sink.fan(0)
        return
      case 204:
        if (s !== undefined) this.sink.acceleration(s, 'both')
        if (this.has(80)) this.sink.acceleration(this.values[15]!, 'print')
        if (this.has(84)) this.sink.acceleration(this.values[19]!, 'travel')
        return
      case 220:
        if (s !== undefined && s > 0) this.speedShare = s / 100
        return
      case 221:
        if (s !== undefined) this.flowShare = s / 100
        return
      case 17:
      case 18:
      case 84:
      case 105:
      case 110:
      case 115:
      case 117:
      case 73:
      case 0:
      case 1:
      case 2:
      case 30:
        return
      default:
        this.sink.unknown(`M${number}`)
    }
  }

  private go(number: number): void {
    const { values, position, shift, unit } = this
    if (this.has(70)) this.feed = (values[5]! * unit) / 60
    const { to } = this
    for (let k = 0; k < 3; k++) {
      const here = position[k]!
      to[k] = this.has(88 + k) ? (this.relative ? here + values[23 + k]! * unit : values[23 + k]! * unit + shift[k]!) : here
    }
    if (!(Math.abs(to[0]!) <= FARTHEST && Math.abs(to[1]!) <= FARTHEST && Math.abs(to[2]!) <= FARTHEST))
      throw this.refusal('program-too-far', 'A move ends farther out than any machine reaches.')
    let pushed = 0
    if (this.has(69)) {
      const e = values[4]! * unit
      pushed = (this.filamentRelative ? e : e - this.filament) * this.flowShare
      this.filament = this.filamentRelative ? this.filament + e : e
    }
    const speed = this.feed * this.speedShare
    if (number >= 2) this.arc(to, pushed, speed, number === 2)
    else {
      const { moved } = this
      moved[0] = to[0]! - position[0]!
      moved[1] = to[1]! - position[1]!
      moved[2] = to[2]! - position[2]!
      moved[3] = pushed
      moved[4] = speed
      moved[5] = to[2]!
      this.sink.move(moved)
    }
    for (let k = 0; k < 3; k++) position[k] = to[k]!
  }

  /** An arc about I, J or of radius R, in the XY plane, with a rise in Z spread over it. */
  private arc(to: Float64Array, pushed: number, speed: number, clockwise: boolean): void {
    const { position, values, unit } = this
    const [x0, y0, z0] = [position[0]!, position[1]!, position[2]!]
    const [dx, dy] = [to[0]! - x0, to[1]! - y0]
    let cx = this.has(73) ? values[8]! * unit : 0
    let cy = this.has(74) ? values[9]! * unit : 0
    if (this.has(82) && !this.has(73) && !this.has(74)) {
      const radius = values[17]! * unit
      const half = Math.hypot(dx, dy) / 2
      const height = Math.sqrt(Math.max(0, radius * radius - half * half))
      const side = (clockwise ? 1 : -1) * (radius < 0 ? -1 : 1)
      cx = dx / 2 + (side * height * dy) / (2 * half || 1)
      cy = dy / 2 - (side * height * dx) / (2 * half || 1)
    }
    const radius = Math.hypot(cx, cy)
    if (!(radius <= FARTHEST)) throw this.refusal('program-too-far', 'An arc has its centre farther out than any machine reaches.')
    const from = Math.atan2(-cy, -cx)
    let turn = Math.atan2(dy - cy, dx - cx) - from
    if (clockwise) while (turn >= -1e-9) turn -= 2 * Math.PI
    else while (turn <= 1e-9) turn += 2 * Math.PI
    const step = 2 * Math.acos(Math.max(0, 1 - ARC_TOLERANCE / Math.max(radius, ARC_TOLERANCE)))
    const pieces = radius > 0 ? Math.max(1, Math.ceil(Math.abs(turn) / Math.max(step, 1e-3))) : 1
    this.chords += pieces
    if (this.chords > MOST_CHORDS + CHORDS_PER_BYTE * this.bytes)
      throw this.refusal('program-too-many-arcs', `The arcs of the program come to more than ${MOST_CHORDS.toLocaleString('en')} moves.`)
    let [x, y] = [0, 0]
    for (let i = 1; i <= pieces; i++) {
      const at = from + (turn * i) / pieces
      const nx = i === pieces ? dx : cx + radius * Math.cos(at)
      const ny = i === pieces ? dy : cy + radius * Math.sin(at)
      this.moved.set([nx - x, ny - y, (to[2]! - z0) / pieces, pushed / pieces, speed, z0 + ((to[2]! - z0) * i) / pieces])
      this.sink.move(this.moved)
      x = nx
      y = ny
    }
  }
}

const POWERS = Float64Array.from({ length: 16 }, (_, i) => 10 ** i)

const tenTo = (n: number): number => (n < POWERS.length ? POWERS[n]! : 10 ** n)

/** Comments are read as single bytes: names in them are mostly plain letters. */
const textOf = (bytes: Uint8Array): string => String.fromCharCode(...bytes.subarray(0, 400))

const isLetter = (byte: number): boolean => (byte & 0xdf) >= 65 && (byte & 0xdf) <= 90

function joined(a: Uint8Array, b: Uint8Array): Uint8Array {
  const both = new Uint8Array(a.length + b.length)
  both.set(a)
  both.set(b, a.length)
  return both
}
