import type { TriangleSoup } from '../mesh/mesh'
import { decimalOf } from '../units/decimalOf'
import { InputError } from '../units/errors'
import { Growing } from '../units/growing'
import { cutFace } from './cutFace'
import { readingLimits, tooManyTriangles } from './readingLimits'

const NEWLINE = 10
const RETURN = 13
const SPACE = 32
const TAB = 9
const SLASH = 47
const BACKSLASH = 92
const V = 118
const F = 102
const [L, P, C, S] = [108, 112, 99, 115]

/**
 * Reads the triangles of an OBJ file; faces of more corners are cut into triangles. Lengths are taken as mm: the format has no unit.
 *
 * @throws InputError naming the line of a vertex that is no number or a face that names none
 */
export function readObj(bytes: Uint8Array, fileName = 'model.obj'): TriangleSoup {
  const vertices = Growing.ofDoubles()
  const corners = Growing.ofDoubles()
  const face: number[] = []
  let number = 0
  let other = 0
  const refusal = (what: string): InputError =>
    new InputError('obj-malformed', what, `${fileName}, line ${number}`, 'Export the model again, or mend that line.')
  for (let from = 0; from <= bytes.length; ) {
    number++
    if (bytes[from] === NEWLINE) {
      from++
      continue
    }
    const { end, lines } = statementEnd(bytes, from)
    const isVertex = bytes[from] === V && isBlank(bytes[from + 1])
    const isFace = bytes[from] === F && isBlank(bytes[from + 1])
    if ((isVertex || isFace) && end - from > readingLimits.lineCharacters)
      throw refusal(`The line is longer than ${readingLimits.lineCharacters.toLocaleString('en')} characters.`)
    if (isVertex) {
      for (let axis = 0, at = from + 1; axis < 3; axis++) {
        const word = wordAfter(bytes, at, end)
        at = word.to
        const value = decimalOf(bytes, word.from, word.to)
        if (!Number.isFinite(value)) throw refusal('A vertex needs three numbers.')
        vertices.push(value)
      }
    } else if (isFace) {
      const count = vertices.length / 3
      face.length = 0
      for (let word = wordAfter(bytes, from + 1, end); word.to > word.from; word = wordAfter(bytes, word.to, end)) {
        const vertex = indexOf(bytes, word, count)
        if (!(vertex >= 0 && vertex < count)) throw refusal('A face names a vertex that there is not.')
        face.push(vertex)
        if (face.length > readingLimits.faceCorners)
          throw refusal(`A face has more than ${readingLimits.faceCorners.toLocaleString('en')} corners.`)
      }
      if (face.length < 3) throw refusal('A face needs three corners.')
      if (corners.length / 9 + face.length - 2 > readingLimits.triangles) throw tooManyTriangles(fileName)
      for (const vertex of cutFace(face, (vertex, axis) => vertices.at(3 * vertex + axis)))
        for (let axis = 0; axis < 3; axis++) corners.push(vertices.at(3 * vertex + axis))
    } else if (isOther(bytes, from, end)) other++
    from = end + 1
    number += lines - 1
  }
  if (corners.length === 0)
    throw new InputError('obj-empty', 'The file holds no faces.', fileName, 'Export it again as a mesh of triangles.')
  return {
    corners: corners.values,
    notes: other > 0 ? [`${other.toLocaleString('en')} lines, points or curves of the file are no surface and were left out.`] : [],
  }
}

/** Counted from 1, or from the last one backwards when negative; texture and normal after a slash do not matter. */
function indexOf(bytes: Uint8Array, { from, to }: Word, count: number): number {
  let end = from
  while (end < to && bytes[end] !== SLASH) end++
  const i = decimalOf(bytes, from, end)
  if (!Number.isInteger(i)) return -1
  return i < 0 ? count + i : i - 1
}

/** Where a line ends, with all those that a backslash before its end ties to it. */
function statementEnd(bytes: Uint8Array, from: number): { readonly end: number; readonly lines: number } {
  for (let at = from, lines = 1; ; lines++) {
    const newline = bytes.indexOf(NEWLINE, at)
    if (newline < 0) return { end: bytes.length, lines }
    const last = bytes[newline - 1] === RETURN ? newline - 2 : newline - 1
    if (last < at || bytes[last] !== BACKSLASH) return { end: newline, lines }
    at = newline + 1
  }
}

const isBlank = (byte: number | undefined): boolean =>
  byte === SPACE || byte === TAB || byte === RETURN || byte === NEWLINE || byte === BACKSLASH

interface Word {
  readonly from: number
  readonly to: number
}

/** Where the next word between blanks stands; empty at the end of the line. */
function wordAfter(bytes: Uint8Array, at: number, end: number): Word {
  let from = at
  while (from < end && isBlank(bytes[from])) from++
  let to = from
  while (to < end && !isBlank(bytes[to])) to++
  return { from, to }
}

/** Lines, points and free-form curves and surfaces. */
function isOther(bytes: Uint8Array, from: number, to: number): boolean {
  const first = bytes[from]
  if (first !== L && first !== P && first !== C && first !== S) return false
  const word = String.fromCharCode(...bytes.subarray(from, Math.min(to, from + 5)))
  return /^(l|p|curv|surf)\s/.test(`${word} `)
}
