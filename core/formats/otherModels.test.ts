import { strToU8, zipSync } from 'fflate'
import { describe, expect, it } from 'vitest'
import { blockMesh, meshOf, solids } from '../testing/solids'
import { InputError } from '../units/errors'
import { read3mf } from './read3mf'
import { readObj } from './readObj'
import { readPart } from './readPart'
import { write3mf } from './write3mf'

const code = (work: () => unknown): string => {
  try {
    work()
  } catch (error) {
    if (error instanceof InputError) return `${error.code} @ ${error.where}`
    throw error
  }
  return 'read'
}

const CUBE = `<mesh><vertices>${[0, 1].flatMap((z) => [0, 1].flatMap((y) => [0, 1].map((x) => `<vertex x="${x}" y="${y}" z="${z}"/>`))).join('')}</vertices><triangles>${[
  [0, 2, 3],
  [0, 3, 1],
  [4, 5, 7],
  [4, 7, 6],
  [0, 1, 5],
  [0, 5, 4],
  [2, 6, 7],
  [2, 7, 3],
  [0, 4, 6],
  [0, 6, 2],
  [1, 3, 7],
  [1, 7, 5],
]
  .map(([a, b, c]) => `<triangle v1="${a}" v2="${b}" v3="${c}"/>`)
  .join('')}</triangles></mesh>`
const archive = (model: string, more: Record<string, Uint8Array> = {}) => zipSync({ '3D/3dmodel.model': strToU8(model), ...more })
const model = (unit: string, objects: string, build: string) =>
  `<?xml version="1.0"?><model unit="${unit}" xmlns="http://schemas.microsoft.com/3dmanufacturing/core/2015/02"><resources>${objects}</resources><build>${build}</build></model>`

describe('3MF', () => {
  it('comes back as it was written, with the volume that an independent kernel gives the body', async () => {
    const { Manifold } = await solids
    const body = Manifold.cylinder(8, 6, 3, 40).subtract(Manifold.cube([4, 4, 30], true))
    const { report } = readPart(write3mf(meshOf(body), 'a <b> & "c"'), 'x.3mf', 'key')
    expect(report.volumeMm3).toBeCloseTo(body.volume(), 1)
    expect(report.watertight).toBe(true)
    expect(report.triangles).toBe(body.numTri())
  })

  it.each([
    ['millimeter', 1],
    ['centimeter', 1000],
    ['inch', 25.4 ** 3],
    ['micron', 1e-9],
  ])('is read in %s (3MF Core 1.3, §3.4)', (unit, volume) => {
    const corners = read3mf(archive(model(unit, `<object id="1">${CUBE}</object>`, '<item objectid="1"/>'))).corners
    const size = Math.max(...corners)
    expect(size ** 3 / volume).toBeCloseTo(1, 6)
  })

  it('places components and items by their transforms, mirrored ones outside out', () => {
    const objects = `<object id="1">${CUBE}</object><object id="2"><components><component objectid="1" transform="2 0 0 0 2 0 0 0 2 10 0 0"/><component objectid="1" transform="-1 0 0 0 1 0 0 0 1 0 0 0"/></components></object>`
    const bytes = archive(model('millimeter', objects, '<item objectid="2" transform="1 0 0 0 1 0 0 0 1 0 0 5"/>'))
    const { report } = readPart(bytes, 'x.3mf', 'key')
    expect(report.volumeMm3).toBeCloseTo(8 + 1, 6)
    expect(report.sizeMm[0]).toBeCloseTo(13, 6)
    expect(report.shells).toBe(2)
  })

  it('is refused with what is wrong and where', () => {
    expect(code(() => read3mf(Uint8Array.of(0x50, 0x4b, 3, 4, 9, 9), 'cut.3mf'))).toMatch(/^archive-damaged @ cut\.3mf/)
    expect(code(() => read3mf(zipSync({ 'a.txt': strToU8('x') })))).toMatch(/^3mf-without-model/)
    expect(code(() => read3mf(archive('<model><oops')))).toMatch(/^3mf-malformed/)
    expect(code(() => read3mf(archive(model('millimeter', `<object id="1">${CUBE}</object>`, ''))))).toMatch(/^3mf-empty/)
    expect(
      code(() =>
        read3mf(archive(model('millimeter', `<object id="1">${CUBE.replace('x="1"', 'x="wide"')}</object>`, '<item objectid="1"/>'))),
      ),
    ).toMatch(/^3mf-malformed.*line/)
    expect(
      code(() =>
        read3mf(archive(model('millimeter', `<object id="1">${CUBE.replace('v1="0"', 'v1="99"')}</object>`, '<item objectid="1"/>'))),
      ),
    ).toMatch(/object 1, triangle/)
    const circle = '<object id="1"><components><component objectid="1"/></components></object>'
    expect(code(() => read3mf(archive(model('millimeter', circle, '<item objectid="1"/>'))))).toMatch(/^3mf-circle/)
  })
})

/** A prism 3 mm high with a concave floor of eight corners: a block of 10 × 10 mm with a notch of 4 × 6 mm. */
const notched = (between = ' '): string => {
  const floor = [0, 0, 10, 0, 10, 10, 7, 10, 7, 4, 3, 4, 3, 10, 0, 10]
  const corner = (i: number, z: number): string => `v ${[floor[2 * i], floor[2 * i + 1], z].join(between)}`
  const n = floor.length / 2
  const round = Array.from({ length: n }, (_, i) => i)
  return [
    ...round.map((i) => corner(i, 0)),
    ...round.map((i) => corner(i, 3)),
    `f ${round.map((i) => n - i).join(between)}`,
    `f ${round.map((i) => n + i + 1).join(between)}`,
    ...round.map((i) => `f ${[i + 1, ((i + 1) % n) + 1, n + ((i + 1) % n) + 1, n + i + 1].join(between)}`),
  ].join('\n')
}
const NOTCHED_VOLUME = 3 * (100 - 24)

describe('OBJ', () => {
  it('is read with concave faces that keep their shape, from whatever corner they are told', () => {
    const { report } = readPart(strToU8(notched()), 'notched.obj', 'key')
    expect(report.watertight).toBe(true)
    expect(report.volumeMm3).toBeCloseTo(NOTCHED_VOLUME, 6)
    expect(report.areaMm2).toBeCloseTo(2 * 76 + 3 * 52, 6)
  })

  it('is read with a byte-order mark, in UTF-16 of either order, and with lines that a backslash goes on with', () => {
    const text = notched()
    const pairs = (order: (unit: number) => readonly [number, number]): Uint8Array =>
      Uint8Array.from([...`\ufeff${text}`].flatMap((character) => order(character.charCodeAt(0))))
    for (const bytes of [
      Uint8Array.from([0xef, 0xbb, 0xbf, ...strToU8(text)]),
      pairs((unit) => [unit & 255, unit >> 8]),
      pairs((unit) => [unit >> 8, unit & 255]),
      strToU8(notched(' \\\n ')),
      strToU8(notched(' \\\r\n')),
    ])
      expect(readPart(bytes, 'notched.obj', 'key').report.volumeMm3).toBeCloseTo(NOTCHED_VOLUME, 6)
  })

  it('counts lines that are tied together, so that a fault is found where it stands', () => {
    expect(code(() => readObj(strToU8('v 0 \\\n 0 0\nv 1 0\n'), 'x.obj'))).toBe('obj-malformed @ x.obj, line 3')
  })

  it('is read with its polygons fanned out, whatever follows the slashes', () => {
    const { positions } = blockMesh(4, 3, 2)
    const faces = ['4 3 2 1', '5 6 7 8', '1 2 6 5', '2 3 7 6', '3 4 8 7', '4 1 5 8']
    const text = `# a block\no block\n${Array.from({ length: 8 }, (_, v) => `v ${positions.subarray(3 * v, 3 * v + 3).join(' ')}`).join('\n')}\n${faces
      .map(
        (face) =>
          `f ${face
            .split(' ')
            .map((i) => `${i}/1/2`)
            .join(' ')}`,
      )
      .join('\r\n')}\n`
    const { report } = readPart(strToU8(text), 'block.obj', 'key')
    expect(report.volumeMm3).toBeCloseTo(24, 9)
    expect(report.watertight).toBe(true)
    expect(readObj(strToU8('v 0 0 0\nv 1 0 0\nv 0 1 0\nf -3 -2 -1')).corners).toHaveLength(9)
  })

  it('is refused with the line that is wrong', () => {
    expect(code(() => readObj(strToU8('v 0 0\n'), 'a.obj'))).toBe('obj-malformed @ a.obj, line 1')
    expect(code(() => readObj(strToU8('v 0 0 0\nf 1 2 9\n'), 'a.obj'))).toBe('obj-malformed @ a.obj, line 2')
    expect(code(() => readObj(strToU8('# nothing'), 'a.obj'))).toBe('obj-empty @ a.obj')
  })
})

describe('STL in words', () => {
  it('may begin with a byte-order mark', () => {
    const triangles = [
      [0, 0, 0, 0, 1, 0, 1, 0, 0],
      [0, 0, 0, 1, 0, 0, 0, 0, 1],
      [0, 0, 0, 0, 0, 1, 0, 1, 0],
      [1, 0, 0, 0, 1, 0, 0, 0, 1],
    ]
    const facets = triangles.map(
      (t) =>
        `facet normal 0 0 0\nouter loop\n${[0, 3, 6].map((k) => `vertex ${t.slice(k, k + 3).join(' ')}`).join('\n')}\nendloop\nendfacet`,
    )
    const text = `solid a\n${facets.join('\n')}\nendsolid a\n`
    expect(readPart(Uint8Array.from([0xef, 0xbb, 0xbf, ...strToU8(text)]), 'a.stl', 'key').report.volumeMm3).toBeCloseTo(1 / 6, 9)
  })
})
