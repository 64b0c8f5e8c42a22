import { SaxesParser } from 'saxes'
import { InputError } from '../units/errors'
import { Growing } from '../units/growing'
import { readingLimits, tooManyTriangles } from './readingLimits'

/** What takes the text of a model part as it comes. */
export interface TextSink {
  write(text: string): void
  end(): void
}

/** Units of 3MF Core 1.3, §3.4, in mm. */
const UNITS: Readonly<Record<string, number>> = { micron: 0.001, millimeter: 1, centimeter: 10, inch: 25.4, foot: 304.8, meter: 1000 }
/** Elements stand in elements six deep in the specification; metadata of others may go further. */
const DEEPEST_ELEMENT = 100
const MOST_ATTRIBUTES = 100
const COORDINATES = ['x', 'y', 'z'] as const
const CORNERS = ['v1', 'v2', 'v3'] as const

/** Row-major 4 × 3 matrix of 3MF: a point is a row (x y z 1) times it. */
export type Matrix = readonly number[]
export const IDENTITY: Matrix = [1, 0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0]

/** An object that is placed, by the build or within another one. */
export interface Component {
  readonly id: string
  /** Model part that holds it; empty where that is the same one. */
  readonly path: string
  readonly matrix: Matrix
}

/** An object of its own: x, y, z per vertex in the file's unit, three vertices per triangle. */
export interface PlacedObject {
  readonly vertices: Growing<Float64Array>
  readonly triangles: Growing<Uint32Array>
  readonly components: Component[]
}

export interface ModelPart {
  /** mm */
  readonly unit: number
  readonly objects: ReadonlyMap<string, PlacedObject>
  readonly items: readonly Component[]
}

/**
 * Parses a model part as its text comes.
 *
 * @param tally what all parts of the file have so far
 * @throws InputError for what is no model, or beyond `readingLimits`
 */
export function parseModelPart(
  where: string,
  tally: { objects: number; placements: number },
  onParsed: (part: ModelPart) => void,
): TextSink {
  const objects = new Map<string, PlacedObject>()
  const items: Component[] = []
  let [unit, depth, attributes, triangles] = [1, 0, 0, 0]
  let object: PlacedObject | undefined
  const parser = new SaxesParser()
  const malformed = (what: string): InputError =>
    new InputError('3mf-malformed', what, `${where}, line ${parser.line}`, 'Export the model again.')
  const tooMany = (what: string): InputError =>
    new InputError('3mf-too-large', `The file has too many ${what}.`, `${where}, line ${parser.line}`, 'Export fewer objects.')
  const componentOf = (given: Record<string, string>): Component => {
    if (++tally.placements > readingLimits.placements) throw tooMany('items and components')
    const path = Object.entries(given).find(([key]) => key.endsWith(':path'))?.[1] ?? ''
    return { id: given.objectid ?? '', path, matrix: matrixOf(given.transform, malformed) }
  }

  const numberOf = (name: string, told: Record<string, string>, key: string): number => {
    const value = Number(told[key])
    if (told[key] === undefined || !Number.isFinite(value)) throw malformed(`<${name}> needs a number in "${key}".`)
    return value
  }
  const indexOf = (name: string, told: Record<string, string>, key: string): number => {
    const value = numberOf(name, told, key)
    if (!Number.isInteger(value) || value < 0 || value >= 2 ** 32) throw malformed(`<${name}> needs a whole number in "${key}".`)
    return value
  }

  parser.on('opentagstart', () => {
    attributes = 0
    if (++depth > DEEPEST_ELEMENT) throw malformed('Its elements stand too deep in one another.')
  })
  parser.on('attribute', () => {
    if (++attributes > MOST_ATTRIBUTES) throw malformed('An element has too many attributes.')
  })
  parser.on('closetag', () => {
    depth--
  })
  parser.on('opentag', ({ name, attributes: given }) => {
    const told = given as Record<string, string>
    switch (name.slice(name.indexOf(':') + 1)) {
      case 'model':
        unit = UNITS[told.unit ?? 'millimeter'] ?? 1
        break
      case 'object':
        if (++tally.objects > readingLimits.objects) throw tooMany('objects')
        object = { vertices: Growing.ofDoubles(), triangles: Growing.ofIndices(), components: [] }
        objects.set(told.id ?? '', object)
        break
      case 'vertex':
        for (const key of COORDINATES) object?.vertices.push(numberOf(name, told, key))
        break
      case 'triangle':
        if (++triangles > readingLimits.triangles) throw tooManyTriangles(where)
        for (const key of CORNERS) object?.triangles.push(indexOf(name, told, key))
        break
      case 'component':
        object?.components.push(componentOf(told))
        break
      case 'item':
        items.push(componentOf(told))
        break
    }
  })
  const guarded = (work: () => void): void => {
    try {
      work()
    } catch (error) {
      if (error instanceof InputError) throw error
      throw malformed(`The model is not well-formed XML (${(error as Error).message}).`)
    }
  }
  return {
    write: (text) => guarded(() => parser.write(text)),
    end: () =>
      guarded(() => {
        parser.close()
        onParsed({ unit, objects, items })
      }),
  }
}

function matrixOf(text: string | undefined, malformed: (what: string) => InputError): Matrix {
  if (text === undefined) return IDENTITY
  const values = text.trim().split(/\s+/).map(Number)
  if (values.length !== 12 || !values.every(Number.isFinite)) throw malformed('A transform needs twelve numbers.')
  return values
}
