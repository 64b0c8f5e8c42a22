import { strFromU8, unzipSync } from 'fflate'
import { SaxesParser } from 'saxes'
import { InputError } from '../errors'
import type { TriangleSoup } from '../mesh/mesh'

/** An archive may not unpack to more than this, bytes: a small file can be made to fill any memory. */
const MOST_UNPACKED = 512 * 1024 * 1024
/** Components may stand in components this deep; deeper is a circle. */
const DEEPEST = 32
/** Triangles of all placed objects together. */
const MOST_TRIANGLES = 20_000_000

/** Units of 3MF Core 1.3, §3.4, in mm. */
const UNITS: Readonly<Record<string, number>> = { micron: 0.001, millimeter: 1, centimeter: 10, inch: 25.4, foot: 304.8, meter: 1000 }

/** Row-major 4 × 3 matrix of 3MF: a point is a row (x y z 1) times it. */
type Matrix = readonly number[]
const IDENTITY: Matrix = [1, 0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0]

interface Model {
  readonly unit: number
  readonly objects: Map<string, { vertices: number[]; triangles: number[]; components: { id: string; path: string; matrix: Matrix }[] }>
  readonly items: { id: string; path: string; matrix: Matrix }[]
}

/**
 * Reads a 3MF file (3MF Core Specification 1.3): units, objects, components with their transforms, and what the build
 * places, of several objects and model parts, as one body of triangles in mm.
 *
 * @throws InputError when the archive is damaged or too large, or holds no model
 */
export function read3mf(bytes: Uint8Array, fileName = 'model.3mf'): TriangleSoup {
  const files = unpack(bytes, fileName)
  const models = new Map(
    Object.entries(files).map(([path, content]) => [`/${path}`.replace('//', '/'), parseModel(strFromU8(content), `${fileName}, ${path}`)]),
  )
  const rootPath = [...models.keys()].find((path) => /^\/3d\/3dmodel\.model$/i.test(path)) ?? [...models.keys()][0]
  const root = rootPath === undefined ? undefined : models.get(rootPath)
  if (!root || rootPath === undefined)
    throw new InputError('3mf-without-model', 'The archive holds no model.', fileName, 'Export it again as 3MF.')
  const corners: number[] = []
  const notes: string[] = []
  const place = (path: string, id: string, matrix: Matrix, depth: number): void => {
    const object = models.get(path)?.objects.get(id)
    if (!object) {
      notes.push(`Object ${id} is placed but not in the file; it was left out.`)
      return
    }
    if (depth > DEEPEST)
      throw new InputError(
        '3mf-circle',
        'Components of the model contain each other.',
        `${fileName}, object ${id}`,
        'Export the model again.',
      )
    const { vertices, triangles, components } = object
    if (corners.length / 9 + triangles.length / 3 > MOST_TRIANGLES)
      throw new InputError(
        '3mf-too-large',
        'The placed objects have more triangles than can be worked on.',
        fileName,
        'Export fewer copies.',
      )
    const mirrored = determinant(matrix) < 0
    for (let t = 0; t < triangles.length; t += 3) {
      for (const k of mirrored ? [0, 2, 1] : [0, 1, 2]) {
        const v = 3 * triangles[t + k]!
        if (!(v >= 0 && v < vertices.length))
          throw new InputError(
            '3mf-malformed',
            'A triangle names a vertex that there is not.',
            `${fileName}, object ${id}, triangle ${t / 3 + 1}`,
            'Export the model again.',
          )
        pushPoint(corners, vertices[v]!, vertices[v + 1]!, vertices[v + 2]!, matrix, root.unit)
      }
    }
    for (const component of components) place(component.path || path, component.id, times(component.matrix, matrix), depth + 1)
  }
  for (const item of root.items) place(item.path || rootPath, item.id, item.matrix, 0)
  if (corners.length === 0)
    throw new InputError(
      '3mf-empty',
      'The file places no triangles on the bed.',
      fileName,
      'Export it again with its objects in the build.',
    )
  if (root.items.length > 1) notes.push(`${root.items.length} objects of the file are taken together as one part.`)
  return { corners: Float64Array.from(corners), notes }
}

function unpack(bytes: Uint8Array, fileName: string): Record<string, Uint8Array> {
  let total = 0
  try {
    return unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        if (!/\.model$/i.test(name)) return false
        total += originalSize
        if (total > MOST_UNPACKED)
          throw new InputError(
            '3mf-unpacks-too-large',
            `The archive unpacks to more than ${MOST_UNPACKED / 1024 / 1024} MB.`,
            fileName,
            'Export a coarser mesh.',
          )
        return true
      },
    })
  } catch (error) {
    if (error instanceof InputError) throw error
    throw new InputError(
      '3mf-damaged',
      `The archive cannot be unpacked (${(error as Error).message}).`,
      fileName,
      'Copy or export the file again.',
    )
  }
}

function parseModel(xml: string, where: string): Model {
  const model: Model = { unit: 1, objects: new Map(), items: [] }
  let unit = 1
  let object: { vertices: number[]; triangles: number[]; components: { id: string; path: string; matrix: Matrix }[] } | undefined
  const parser = new SaxesParser()
  parser.on('opentag', ({ name, attributes }) => {
    const given = attributes as Record<string, string>
    const number = (key: string): number => {
      const value = Number(given[key])
      if (given[key] === undefined || !Number.isFinite(value))
        throw new InputError(
          '3mf-malformed',
          `<${name}> needs a number in "${key}".`,
          `${where}, line ${parser.line}`,
          'Export the model again.',
        )
      return value
    }
    const path = (): string => Object.entries(given).find(([key]) => key.endsWith(':path'))?.[1] ?? ''
    switch (name.replace(/^.*:/, '')) {
      case 'model':
        unit = UNITS[given.unit ?? 'millimeter'] ?? 1
        break
      case 'object':
        object = { vertices: [], triangles: [], components: [] }
        model.objects.set(given.id ?? '', object)
        break
      case 'vertex':
        object?.vertices.push(number('x'), number('y'), number('z'))
        break
      case 'triangle':
        object?.triangles.push(number('v1'), number('v2'), number('v3'))
        break
      case 'component':
        object?.components.push({ id: given.objectid ?? '', path: path(), matrix: matrixOf(given.transform) })
        break
      case 'item':
        model.items.push({ id: given.objectid ?? '', path: path(), matrix: matrixOf(given.transform) })
        break
    }
  })
  try {
    parser.write(xml).close()
  } catch (error) {
    if (error instanceof InputError) throw error
    throw new InputError(
      '3mf-malformed',
      `The model is not well-formed XML (${(error as Error).message}).`,
      where,
      'Export the model again.',
    )
  }
  return { ...model, unit }
}

function matrixOf(text: string | undefined): Matrix {
  const values = (text ?? '').trim().split(/\s+/).map(Number)
  return values.length === 12 && values.every(Number.isFinite) ? values : IDENTITY
}

/** First a, then b. */
function times(a: Matrix, b: Matrix): Matrix {
  const row = (r: number, w: number): number[] =>
    [0, 1, 2].map((c) => a[3 * r]! * b[c]! + a[3 * r + 1]! * b[3 + c]! + a[3 * r + 2]! * b[6 + c]! + w * b[9 + c]!)
  return [...row(0, 0), ...row(1, 0), ...row(2, 0), ...row(3, 1)]
}

const determinant = (m: Matrix): number =>
  m[0]! * (m[4]! * m[8]! - m[5]! * m[7]!) - m[1]! * (m[3]! * m[8]! - m[5]! * m[6]!) + m[2]! * (m[3]! * m[7]! - m[4]! * m[6]!)

function pushPoint(out: number[], x: number, y: number, z: number, m: Matrix, unit: number): void {
  for (let c = 0; c < 3; c++) out.push((x * m[c]! + y * m[3 + c]! + z * m[6 + c]! + m[9 + c]!) * unit)
}
