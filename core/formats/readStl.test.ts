import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { measureVolume } from '../mesh/measure'
import { weld } from '../mesh/weld'
import { blockMesh, soupOf } from '../testing/solids'
import { InputError } from '../units/errors'
import { readStl } from './readStl'
import { writeStl } from './writeStl'

// Good and broken files come from the MIT-licensed package stl-models.
const folder = dirname(createRequire(import.meta.url).resolve('stl-models/package.json'))
const model = (name: string): Uint8Array => readFileSync(join(folder, name))
const text = (content: string): Uint8Array => new TextEncoder().encode(content)

/** A block whose last coordinate is this. */
function binaryWith(value: number): Uint8Array {
  const bytes = writeStl(blockMesh(1, 1, 1))
  new DataView(bytes.buffer).setFloat32(bytes.length - 6, value, true)
  return bytes
}

function refusal(bytes: Uint8Array, name = 'part.stl'): InputError {
  try {
    readStl(bytes, name)
  } catch (error) {
    if (error instanceof InputError) return error
    throw error
  }
  throw new Error('was read without complaint')
}

describe('reading STL files', () => {
  it('gives the same triangles from the binary and the ASCII form of a model', () => {
    for (const [binary, ascii] of [
      ['polytopes/tetrahedron.bin.stl', 'polytopes/tetrahedron.ascii.stl'],
      ['objects/gearwheel.bin.stl', 'objects/gearwheel.ascii.stl'],
    ] as const) {
      const a = readStl(model(binary)).corners
      const b = readStl(model(ascii)).corners
      expect(b.length).toBe(a.length)
      expect(Math.max(...a.map((value, i) => Math.abs(value - b[i]!)))).toBeLessThan(1e-4)
    }
  })

  it('reads back what was written, to the precision of the format', () => {
    const block = blockMesh(20, 30, 10)
    const read = readStl(writeStl(block, 'solid block'))
    expect(Float64Array.from(read.corners)).toEqual(soupOf(block))
  })

  it('finds the volume of the unit cube that other software wrote', () => {
    expect(Math.abs(measureVolume(weld(readStl(model('polytopes/unitCube.binary.stl')).corners)))).toBeCloseTo(1, 6)
  })

  it('reads a binary file whose header begins with "solid"', () => {
    expect(readStl(writeStl(blockMesh(1, 1, 1), 'solid made elsewhere')).corners.length).toBe(12 * 9)
  })

  it('goes on without the closing line and with wrong normals, and says what was odd', () => {
    expect(readStl(model('broken/missingEndsolid.ascii.stl')).notes.join()).toMatch(/endsolid/)
    expect(readStl(model('broken/wrongNormals.ascii.stl')).corners.length).toBeGreaterThan(0)
    expect(readStl(model('broken/notANumberNormal.ascii.stl')).corners.length).toBeGreaterThan(0)
  })

  it.each([
    ['an empty file', new Uint8Array(0), 'stl-empty'],
    ['an STL of no triangle', model('misc/faceless.ascii.stl'), 'stl-no-triangles'],
    ['a binary STL of no triangle', writeStl({ positions: new Float64Array(0), triangles: new Uint32Array(0) }), 'stl-no-triangles'],
    ['a text that is no STL', text('Dear printer,\nplease print a hook.\n'), 'stl-not-stl'],
    ['a binary file cut short', writeStl(blockMesh(1, 1, 1)).slice(0, 300), 'stl-truncated'],
    ['a binary file with "solid" in its header, cut short', writeStl(blockMesh(1, 1, 1), 'solid x').slice(0, 300), 'stl-truncated'],
    ['a file that ends inside its header', writeStl(blockMesh(1, 1, 1)).slice(0, 40), 'stl-truncated'],
    ['a binary file with a coordinate that is infinite', binaryWith(Infinity), 'stl-not-a-number'],
    ['a binary file with a coordinate that is no number', binaryWith(Number.NaN), 'stl-not-a-number'],
    ['a facet of two corners', model('broken/twoVertices.ascii.stl'), 'stl-bad-facet'],
    ['a facet of four corners', model('broken/fourVertices.ascii.stl'), 'stl-bad-facet'],
    ['a text file cut short', text('solid x\nfacet normal 0 0 1\nouter loop\nvertex 0 0 0\nvertex 1 0 0\n'), 'stl-truncated'],
    [
      'a coordinate that is no number',
      text('solid x\nfacet normal 0 0 1\nouter loop\nvertex 0 0 0\nvertex 1 nan 0\nvertex 0 1 0\nendloop\nendfacet\nendsolid'),
      'stl-not-a-number',
    ],
  ])('refuses %s', (_what, bytes, code) => {
    const error = refusal(bytes)
    expect(error.code).toBe(code)
    expect(error.where).toContain('part.stl')
    expect(error.remedy).not.toBe('')
  })

  it('names the triangle with a coordinate that is no number, in a binary file too', () => {
    const bytes = writeStl(blockMesh(1, 1, 1))
    new DataView(bytes.buffer).setFloat32(84 + 4 * 50 + 12, Number.NaN, true)
    expect(refusal(bytes).where).toBe('part.stl, triangle 5')
  })

  it('names the line of a facet that cannot be read', () => {
    expect(refusal(text('solid x\nfacet normal 0 0 1\nouter loop\nvertex 0 0\nvertex 1 0 0\n')).where).toBe('part.stl, line 4')
  })
})
