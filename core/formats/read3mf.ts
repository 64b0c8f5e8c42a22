import { DecodeUTF8 } from 'fflate'
import type { TriangleSoup } from '../mesh/mesh'
import { InputError } from '../units/errors'
import { type Component, IDENTITY, type Matrix, type ModelPart, type PlacedObject, parseModelPart } from './parse3mf'
import { readingLimits, tooManyTriangles } from './readingLimits'
import { unpack } from './unpack'

/** What placing an object comes to, its components and theirs included. */
interface Weight {
  readonly triangles: number
  readonly placements: number
  /** How deep components stand in it: 1 for none. */
  readonly height: number
}

/**
 * Reads a 3MF file (3MF Core Specification 1.3): units, objects, components with their transforms, and what the build
 * places, of several objects and model parts, as one body of triangles in mm. What it comes to is counted before anything
 * is made: a few hundred bytes of components in components can stand for millions of triangles.
 *
 * @throws InputError when the archive is damaged or too large, or holds no model
 */
export function read3mf(bytes: Uint8Array, fileName = 'model.3mf'): TriangleSoup {
  const tally = { parts: 0, objects: 0, placements: 0 }
  const parts = new Map<string, ModelPart>()
  unpack(bytes, fileName, readingLimits.unpackedBytes, (path) => {
    if (!/\.model$/i.test(path)) return undefined
    if (++tally.parts > readingLimits.modelParts) throw tooMuch('model parts', readingLimits.modelParts, fileName)
    const sink = parseModelPart(`${fileName}, ${path}`, tally, (part) => parts.set(`/${path}`.replace('//', '/'), part))
    const text = new DecodeUTF8((piece) => sink.write(piece))
    return (piece, isLast) => {
      text.push(piece, isLast)
      if (isLast) sink.end()
    }
  })
  const rootPath = [...parts.keys()].find((path) => /^\/3d\/3dmodel\.model$/i.test(path)) ?? [...parts.keys()][0]
  const root = rootPath === undefined ? undefined : parts.get(rootPath)
  if (!root || rootPath === undefined)
    throw new InputError('3mf-without-model', 'The archive holds no model.', fileName, 'Export it again as 3MF.')

  const find = (item: Component, path: string): PlacedObject | undefined => parts.get(item.path || path)?.objects.get(item.id)
  const weights = new Map<PlacedObject, Weight>()
  const notes: string[] = []
  let missing = 0
  const weigh = (item: Component, path: string, depth: number): Weight => {
    const object = find(item, path)
    if (!object) {
      if (++missing <= readingLimits.notes) notes.push(`Object ${item.id} is placed but not in the file; it was left out.`)
      return { triangles: 0, placements: 1, height: 1 }
    }
    const known = weights.get(object)
    if (depth + (known?.height ?? 1) > readingLimits.depth)
      throw new InputError(
        '3mf-circle',
        `Components of the model contain each other, or stand more than ${readingLimits.depth} deep in one another.`,
        `${fileName}, object ${item.id}`,
        'Export the model again.',
      )
    if (known) return known
    let [triangles, placements, height] = [object.triangles.length / 3, 1, 1]
    for (const component of object.components) {
      const inner = weigh(component, item.path || path, depth + 1)
      triangles += inner.triangles
      placements += inner.placements
      height = Math.max(height, inner.height + 1)
    }
    const weight = { triangles, placements, height }
    weights.set(object, weight)
    return weight
  }
  let [triangles, placements] = [0, 0]
  for (const item of root.items) {
    const weight = weigh(item, rootPath, 0)
    triangles += weight.triangles
    placements += weight.placements
    if (triangles > readingLimits.triangles) throw tooManyTriangles(fileName)
    if (placements > readingLimits.placements) throw tooMuch('placed objects', readingLimits.placements, fileName)
  }
  if (triangles === 0)
    throw new InputError(
      '3mf-empty',
      'The file places no triangles on the bed.',
      fileName,
      'Export it again with its objects in the build.',
    )

  const corners = new Float64Array(9 * triangles)
  let at = 0
  const place = (item: Component, path: string, before: Matrix): void => {
    const object = find(item, path)
    if (!object) return
    const matrix = times(item.matrix, before)
    at = layTriangles(object, matrix, root.unit, corners, at, `${fileName}, object ${item.id}`)
    for (const component of object.components) place(component, item.path || path, matrix)
  }
  for (const item of root.items) place(item, rootPath, IDENTITY)
  if (missing > notes.length) notes.push(`${(missing - notes.length).toLocaleString('en')} more placed objects are not in the file.`)
  if (root.items.length > 1) notes.push(`${root.items.length.toLocaleString('en')} objects of the file are taken together as one part.`)
  return { corners, notes }
}

/** Writes the corners of an object's own triangles, placed, mm; returns where the next ones go. */
function layTriangles(object: PlacedObject, matrix: Matrix, unit: number, corners: Float64Array, at: number, where: string): number {
  const { vertices, triangles } = object
  const mirrored = determinant(matrix) < 0
  for (let t = 0; t < triangles.length; t += 3) {
    for (const k of mirrored ? [0, 2, 1] : [0, 1, 2]) {
      const v = 3 * triangles.at(t + k)
      if (v >= vertices.length)
        throw new InputError(
          '3mf-malformed',
          'A triangle names a vertex that there is not.',
          `${where}, triangle ${t / 3 + 1}`,
          'Export the model again.',
        )
      const [x, y, z] = [vertices.at(v), vertices.at(v + 1), vertices.at(v + 2)]
      for (let c = 0; c < 3; c++) corners[at++] = (x * matrix[c]! + y * matrix[3 + c]! + z * matrix[6 + c]! + matrix[9 + c]!) * unit
    }
  }
  return at
}

const tooMuch = (what: string, most: number, fileName: string): InputError =>
  new InputError('3mf-too-large', `The file has more than ${most.toLocaleString('en')} ${what}.`, fileName, 'Export fewer of them.')

/** First a, then b. */
function times(a: Matrix, b: Matrix): Matrix {
  const row = (r: number, w: number): number[] =>
    [0, 1, 2].map((c) => a[3 * r]! * b[c]! + a[3 * r + 1]! * b[3 + c]! + a[3 * r + 2]! * b[6 + c]! + w * b[9 + c]!)
  return [...row(0, 0), ...row(1, 0), ...row(2, 0), ...row(3, 1)]
}

const determinant = (m: Matrix): number =>
  m[0]! * (m[4]! * m[8]! - m[5]! * m[7]!) - m[1]! * (m[3]! * m[8]! - m[5]! * m[6]!) + m[2]! * (m[3]! * m[7]! - m[4]! * m[6]!)
