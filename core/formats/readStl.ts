import { InputError } from '../errors'
import type { TriangleSoup } from '../mesh/mesh'

const HEADER_BYTES = 84
const RECORD_BYTES = 50
/** Bits of a single-precision number that are all set when it is infinite or no number (IEEE 754). */
const EXPONENT = 0x7f800000
/** More triangles than this do not fit the memory that the rest of the pipeline needs. */
const MAX_TRIANGLES = 5_000_000

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
  if (present > MAX_TRIANGLES) throw tooMany(present, fileName)
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
  const text = ascii(bytes, 0, bytes.length)
  if (!/^\s*solid\b/i.test(text)) {
    throw new InputError(
      'stl-not-stl',
      'This is a text file, but not an STL: it does not begin with "solid".',
      fileName,
      'Load a binary or ASCII STL file.',
    )
  }
  const numbers: number[] = []
  const notes: string[] = []
  // Corners are read word by word rather than line by line: files with odd line ends and indents are common.
  const words = /\b(facet|vertex|endfacet|endsolid)\b/gi
  let inFacet = 0
  let facets = 0
  let ended = false
  for (let match = words.exec(text); match !== null; match = words.exec(text)) {
    const word = (match[1] as string).toLowerCase()
    if (word === 'facet') {
      facets++
      inFacet = 0
      if (facets > MAX_TRIANGLES) throw tooMany(facets, fileName)
    } else if (word === 'vertex') {
      inFacet++
      const end = lineEnd(text, words.lastIndex)
      const parts = text.slice(words.lastIndex, end).trim().split(/\s+/)
      if (parts.length < 3) throw badFacet(fileName, facets, text, match.index, 'a corner has fewer than three coordinates')
      numbers.push(Number(parts[0]), Number(parts[1]), Number(parts[2]))
      words.lastIndex = end
    } else if (word === 'endfacet') {
      if (inFacet !== 3) throw badFacet(fileName, facets, text, match.index, `it has ${inFacet} corners where a triangle has 3`)
    } else {
      ended = true
      words.lastIndex = lineEnd(text, words.lastIndex)
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
  const bad = numbers.findIndex((number) => !Number.isFinite(number))
  if (bad >= 0) throw notANumber(Math.floor(bad / 9), fileName)
  if (!ended && facets > 0) notes.push('The closing "endsolid" is missing; all triangles before it were read.')
  return { corners: Float64Array.from(numbers), notes }
}

function badFacet(fileName: string, facet: number, text: string, offset: number, why: string): InputError {
  const line = text.slice(0, offset).split('\n').length
  return new InputError(
    'stl-bad-facet',
    `Triangle ${facet} cannot be read: ${why}.`,
    `${fileName}, line ${line}`,
    'Export the part again as triangles.',
  )
}

function notANumber(triangle: number, fileName: string): InputError {
  return new InputError(
    'stl-not-a-number',
    'A coordinate is not a finite number.',
    `${fileName}, triangle ${triangle + 1}`,
    'Repair or export the part again; one bad corner makes every figure meaningless.',
  )
}

function tooMany(count: number, fileName: string): InputError {
  return new InputError(
    'stl-too-many',
    `The file holds ${count} triangles; ${MAX_TRIANGLES} is the most that can be worked on.`,
    fileName,
    'Reduce the mesh before loading it.',
  )
}

function lineEnd(text: string, from: number): number {
  const at = text.slice(from, from + 400).search(/[\r\n]/)
  return at < 0 ? Math.min(text.length, from + 400) : from + at
}

function ascii(bytes: Uint8Array, from: number, to: number): string {
  let text = ''
  for (let at = from; at < to; at += 8192) text += String.fromCharCode(...bytes.subarray(at, Math.min(to, at + 8192)))
  return text
}
