import type { TriangleSoup } from '../mesh/mesh'
import { decimalOf } from '../units/decimalOf'
import { InputError } from '../units/errors'
import { Growing } from '../units/growing'
import { readingLimits, tooManyTriangles } from './readingLimits'

const HEADER_BYTES = 84
const RECORD_BYTES = 50
/** Bits of a single-precision number that are all set when it is infinite or no number (IEEE 754). */
const EXPONENT = 0x7f800000

/**
 * Reads a binary or ASCII STL file. Coordinates are taken as millimetres; stored normals are ignored, since the
 * winding says the same and the two often disagree.
 *
 * @throws InputError when the file is empty, truncated, not an STL, holds no triangle or a coordinate that is no number.
 */
export function readStl(bytes: Uint8Array, fileName = 'model'): TriangleSoup {
  if (bytes.length === 0) {
    throw new InputError('stl-empty', 'The file is empty.', fileName, 'Export the part again and load the new file.')
  }
  const soup = looksBinary(bytes) ? readBinary(bytes, fileName) : readAscii(bytes, fileName)
  if (soup.corners.length === 0) {
    throw new InputError(
      'stl-no-triangles',
      'The file is an STL but holds no triangle.',
      fileName,
      'Export the part as a solid body and load it again.',
    )
  }
  return soup
}

/** A binary file says its own length, and may start with "solid" all the same; one cut short still holds zero bytes, which text never does. */
function looksBinary(bytes: Uint8Array): boolean {
  if (bytes.length >= HEADER_BYTES) {
    const count = new DataView(bytes.buffer, bytes.byteOffset).getUint32(80, true)
    if (HEADER_BYTES + count * RECORD_BYTES === bytes.length) return true
  }
  return bytes.subarray(0, 512).includes(0)
}

function readBinary(bytes: Uint8Array, fileName: string): TriangleSoup {
  if (bytes.length < HEADER_BYTES) {
    throw new InputError(
      'stl-truncated',
      `The file ends after ${bytes.length} bytes, inside the 84-byte header.`,
      fileName,
      'Copy or export the file again.',
    )
  }
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const promised = view.getUint32(80, true)
  const present = Math.floor((bytes.length - HEADER_BYTES) / RECORD_BYTES)
  const leftOver = bytes.length - HEADER_BYTES - present * RECORD_BYTES
  if (present < promised || (present > promised && leftOver !== 0)) {
    throw new InputError(
      'stl-truncated',
      `The header promises ${promised} triangles, but the file ends after ${present}.`,
      fileName,
      'It is cut short or no STL at all: copy or export it again.',
    )
  }
  const notes: string[] = []
  if (present > promised) notes.push(`The header counts ${promised} triangles but the file holds ${present}; all ${present} were read.`)
  if (present > readingLimits.triangles) throw tooManyTriangles(fileName)
  const corners = new Float32Array(present * 9)
  const words = new Int32Array(corners.buffer)
  for (let t = 0, at = HEADER_BYTES + 12, out = 0; t < present; t++, at += RECORD_BYTES) {
    for (let k = 0; k < 36; k += 4) {
      const word = view.getInt32(at + k, true)
      if ((word & EXPONENT) === EXPONENT) throw notANumber(t, fileName)
      words[out++] = word
    }
  }
  return { corners, notes }
}

function readAscii(bytes: Uint8Array, fileName: string): TriangleSoup {
  const words = new Words(bytes)
  if (!words.next() || !words.is('solid')) {
    throw new InputError(
      'stl-not-stl',
      'This is a text file, but not an STL: it does not begin with "solid".',
      fileName,
      'Load a binary or ASCII STL file.',
    )
  }
  const numbers = Growing.ofDoubles()
  const notes: string[] = []
  // Corners are read word by word rather than line by line: files with odd line ends and indents are common.
  let inFacet = 0
  let facets = 0
  let ended = false
  const badFacet = (why: string): InputError =>
    new InputError(
      'stl-bad-facet',
      `Triangle ${facets} cannot be read: ${why}.`,
      `${fileName}, line ${words.line}`,
      'Export the part again as triangles.',
    )
  while (words.next()) {
    if (words.is('facet')) {
      facets++
      inFacet = 0
    } else if (words.is('vertex')) {
      inFacet++
      if (numbers.length >= 9 * readingLimits.triangles) throw tooManyTriangles(fileName)
      for (let axis = 0; axis < 3; axis++) {
        if (!words.nextInLine()) throw badFacet('a corner has fewer than three coordinates')
        numbers.push(words.number)
      }
      words.skipLine()
    } else if (words.is('endfacet')) {
      if (inFacet !== 3) throw badFacet(`it has ${inFacet} corners where a triangle has 3`)
    } else if (words.is('endsolid')) {
      ended = true
      words.skipLine()
    }
  }
  if (numbers.length % 9 !== 0 || (facets > 0 && !ended && inFacet !== 3)) {
    throw new InputError(
      'stl-truncated',
      `The file ends inside triangle ${facets}.`,
      fileName,
      'The file is damaged or cut short: copy or export it again.',
    )
  }
  const bad = numbers.values.findIndex((number) => !Number.isFinite(number))
  if (bad >= 0) throw notANumber(Math.floor(bad / 9), fileName)
  if (!ended && facets > 0) notes.push('The closing "endsolid" is missing; all triangles before it were read.')
  return { corners: numbers.values, notes }
}

function notANumber(triangle: number, fileName: string): InputError {
  return new InputError(
    'stl-not-a-number',
    'A coordinate is not a finite number.',
    `${fileName}, triangle ${triangle + 1}`,
    'Repair or export the part again; one bad corner makes every figure meaningless.',
  )
}

const SPACE = 32
const NEWLINE = 10
const RETURN = 13

/** Steps through the words of a text as bytes, of which only numbers are ever decoded. */
class Words {
  private from = 0
  private to = 0

  constructor(private readonly bytes: Uint8Array) {}

  /** Goes to the next word, if there is one. */
  next(): boolean {
    const { bytes } = this
    let at = this.to
    while (at < bytes.length && bytes[at]! <= SPACE) at++
    this.from = at
    while (at < bytes.length && bytes[at]! > SPACE) at++
    this.to = at
    return this.to > this.from
  }

  /** Goes to the next word of this line, if there is one. */
  nextInLine(): boolean {
    const { bytes } = this
    for (let at = this.to; at < bytes.length && bytes[at] !== NEWLINE && bytes[at] !== RETURN; at++)
      if (bytes[at]! > SPACE) return this.next()
    return false
  }

  skipLine(): void {
    const { bytes } = this
    while (this.to < bytes.length && bytes[this.to] !== NEWLINE && bytes[this.to] !== RETURN) this.to++
  }

  /** Whether the word says this, in capitals or not. */
  is(keyword: string): boolean {
    if (this.to - this.from !== keyword.length) return false
    for (let k = 0; k < keyword.length; k++) if ((this.bytes[this.from + k]! | 32) !== keyword.charCodeAt(k)) return false
    return true
  }

  get number(): number {
    return decimalOf(this.bytes, this.from, this.to)
  }

  /** Line of the word, the first is 1. */
  get line(): number {
    let line = 1
    for (let at = 0; at < this.from; at++) if (this.bytes[at] === NEWLINE) line++
    return line
  }
}
