import { InputError } from '../errors'
import type { TriangleSoup } from '../mesh/mesh'

/**
 * Reads the triangles of an OBJ file; faces of more corners are fanned out. Lengths are taken as mm: the format has no unit.
 *
 * @throws InputError naming the line of a vertex that is no number or a face that names none
 */
export function readObj(bytes: Uint8Array, fileName = 'model.obj'): TriangleSoup {
  const vertices: number[] = []
  const corners: number[] = []
  let number = 0
  let other = 0
  for (const line of linesOf(bytes)) {
    number++
    if (line.startsWith('v ')) {
      const xyz = line.trim().split(/\s+/).slice(1, 4).map(Number)
      if (xyz.length < 3 || !xyz.every(Number.isFinite)) throw refusal(fileName, number, 'A vertex needs three numbers.')
      vertices.push(...xyz)
    } else if (line.startsWith('f ')) {
      const face = line
        .trim()
        .split(/\s+/)
        .slice(1)
        .map((word) => indexOf(word, vertices.length / 3))
      if (face.length < 3) throw refusal(fileName, number, 'A face needs three corners.')
      if (face.some((i) => !(i >= 0 && i < vertices.length / 3)))
        throw refusal(fileName, number, 'A face names a vertex that there is not.')
      for (let k = 2; k < face.length; k++)
        for (const i of [face[0]!, face[k - 1]!, face[k]!]) corners.push(vertices[3 * i]!, vertices[3 * i + 1]!, vertices[3 * i + 2]!)
    } else if (/^(l|p|curv|surf)\s/.test(line)) other++
  }
  if (corners.length === 0)
    throw new InputError('obj-empty', 'The file holds no faces.', fileName, 'Export it again as a mesh of triangles.')
  return {
    corners: Float64Array.from(corners),
    notes: other > 0 ? [`${other} lines, points or curves of the file are no surface and were left out.`] : [],
  }
}

/** Counted from 1, or from the last one backwards when negative; texture and normal after a slash do not matter. */
function indexOf(word: string, count: number): number {
  const i = Number.parseInt(word, 10)
  return i < 0 ? count + i : i - 1
}

const refusal = (fileName: string, line: number, what: string): InputError =>
  new InputError('obj-malformed', what, `${fileName}, line ${line}`, 'Export the model again, or mend that line.')

/** Lines of a text, decoded piece by piece so that a large file is not held twice. */
function* linesOf(bytes: Uint8Array): Generator<string> {
  let from = 0
  while (from <= bytes.length) {
    let to = bytes.indexOf(10, from)
    if (to < 0) to = bytes.length
    let text = ''
    for (let i = from; i < to; i++) text += String.fromCharCode(bytes[i]!)
    yield text
    from = to + 1
  }
}
