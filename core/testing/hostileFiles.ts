import { strToU8, zipSync } from 'fflate'
import { seeded } from '../units/seeded'

/** A file made to do harm, or as damaged programs and copies make it. */
export interface HostileFile {
  readonly what: string
  readonly fileName: string
  readonly make: () => Uint8Array
  /** It takes many seconds to make or to read: only the bench of attacks does. */
  readonly isLong?: true
}

const MEGABYTE = 2 ** 20

/** A binary STL; nine coordinates a triangle. */
export function binaryStl(count: number, coordinates: (triangle: number, out: Float32Array) => void): Uint8Array {
  const bytes = new Uint8Array(84 + 50 * count)
  const view = new DataView(bytes.buffer)
  view.setUint32(80, count, true)
  const nine = new Float32Array(9)
  for (let t = 0; t < count; t++) {
    coordinates(t, nine)
    for (let k = 0; k < 9; k++) view.setFloat32(84 + 50 * t + 12 + 4 * k, nine[k]!, true)
  }
  return bytes
}

/** Triangles of a binary STL of as many megabytes. */
const trianglesIn = (megabytes: number): number => Math.floor((megabytes * MEGABYTE - 84) / 50)

export const archiveOf = (model: string | Uint8Array, more: Record<string, Uint8Array> = {}): Uint8Array =>
  zipSync({ '3D/3dmodel.model': typeof model === 'string' ? strToU8(model) : model, ...more }, { level: 1 })

export const modelXml = (objects: string, build: string): string =>
  `<?xml version="1.0"?><model unit="millimeter" xmlns="http://schemas.microsoft.com/3dmanufacturing/core/2015/02"><resources>${objects}</resources><build>${build}</build></model>`

const tetrahedron = (last: string): string =>
  `<mesh><vertices><vertex x="0" y="0" z="0"/><vertex x="9" y="0" z="0"/><vertex x="0" y="9" z="0"/><vertex x="0" y="0" z="9"/></vertices><triangles><triangle v1="0" v2="2" v3="1"/><triangle v1="0" v2="1" v3="3"/><triangle v1="1" v2="2" v3="3"/><triangle v1="2" v2="0" v3="${last}"/></triangles></mesh>`

/** Objects of which each places the one before it twice. */
function doubling(levels: number, innermost: string): Uint8Array {
  const inner = `<object id="0">${innermost}</object>`
  const outer = Array.from(
    { length: levels },
    (_, i) => `<object id="${i + 1}"><components><component objectid="${i}"/><component objectid="${i}"/></components></object>`,
  )
  return archiveOf(modelXml([inner, ...outer].join(''), `<item objectid="${levels}"/>`))
}

/** An archive that claims another size for its unpacked file than it has, in its directory and before the file itself. */
function claiming(bytes: Uint8Array, size: number): Uint8Array {
  const changed = bytes.slice()
  const view = new DataView(changed.buffer)
  for (let at = 0; at + 4 <= changed.length; at++) {
    const signature = view.getUint32(at, true)
    if (signature === 0x04034b50) view.setUint32(at + 22, size, true)
    if (signature === 0x02014b50) view.setUint32(at + 24, size, true)
  }
  return changed
}

const repeated = (text: string, bytes: number): Uint8Array => {
  const out = new Uint8Array(bytes)
  const piece = strToU8(text)
  out.set(piece.subarray(0, bytes))
  for (let filled = piece.length; filled < bytes; filled *= 2) out.copyWithin(filled, 0, Math.min(filled, bytes - filled))
  return out
}

const joined = (...pieces: Uint8Array[]): Uint8Array => {
  const out = new Uint8Array(pieces.reduce((sum, { length }) => sum + length, 0))
  let at = 0
  for (const piece of pieces) {
    out.set(piece, at)
    at += piece.length
  }
  return out
}

/** Small files that give figures without meaning, unless they are refused. */
export const smallHostileModels: readonly HostileFile[] = [
  { what: 'one triangle, all zero', fileName: 'zero.stl', make: () => binaryStl(1, (_, out) => out.fill(0)) },
  {
    what: 'coordinates of 1e100',
    fileName: 'far.obj',
    make: () => strToU8('v 1e100 0 0\nv 0 1e100 0\nv 0 0 1e100\nv 0 0 0\nf 1 2 3\nf 1 4 2\nf 2 4 3\nf 3 4 1\n'),
  },
  {
    what: 'a zero transform',
    fileName: 'zero.3mf',
    make: () =>
      archiveOf(modelXml(`<object id="1">${tetrahedron('3')}</object>`, '<item objectid="1" transform="0 0 0 0 0 0 0 0 0 0 0 0"/>')),
  },
  {
    what: 'a vertex index that is no whole number',
    fileName: 'fraction.3mf',
    make: () => archiveOf(modelXml(`<object id="1">${tetrahedron('1.5')}</object>`, '<item objectid="1"/>')),
  },
  {
    what: 'a transform of eleven numbers',
    fileName: 'eleven.3mf',
    make: () =>
      archiveOf(modelXml(`<object id="1">${tetrahedron('3')}</object>`, '<item objectid="1" transform="1 0 0 0 1 0 0 0 1 0 0"/>')),
  },
  {
    what: 'coordinates of 1e103 in text',
    fileName: 'far.stl',
    make: () =>
      strToU8(
        'solid x\nfacet normal 0 0 1\nouter loop\nvertex 1e103 0 0\nvertex 0 1e103 0\nvertex 0 0 1e103\nendloop\nendfacet\nendsolid x\n',
      ),
  },
  { what: 'a face that names vertex 1e9', fileName: 'face.obj', make: () => strToU8('v 0 0 0\nv 1 0 0\nv 0 1 1\nf 1 2 1e9\n') },
  { what: 'a triangle without height', fileName: 'flat.obj', make: () => strToU8('v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 3\n') },
  { what: 'three corners on a line', fileName: 'line.obj', make: () => strToU8('v 0 0 0\nv 1 1 1\nv 2 2 2\nf 1 2 3\n') },
  {
    what: 'components that double at 22 levels',
    fileName: 'double.3mf',
    make: () => doubling(22, tetrahedron('3')),
  },
  {
    what: 'components that double at 31 levels, without a triangle',
    fileName: 'empty.3mf',
    make: () => doubling(31, '<mesh><vertices/><triangles/></mesh>'),
  },
  {
    what: 'a component that contains itself',
    fileName: 'circle.3mf',
    make: () => archiveOf(modelXml('<object id="1"><components><component objectid="1"/></components></object>', '<item objectid="1"/>')),
  },
]

/** Files that cost memory or time out of all proportion, unless what they hold is counted. */
export const largeHostileModels: readonly HostileFile[] = [
  {
    what: 'an archive that claims 100 bytes and holds 200 megabytes',
    isLong: true,
    fileName: 'bomb.3mf',
    make: () => claiming(archiveOf(repeated(' ', 200 * MEGABYTE)), 100),
  },
  {
    what: 'zipped spaces within a model',
    fileName: 'spaces.3mf',
    make: () => archiveOf(joined(strToU8('<model>'), repeated(' ', 60 * MEGABYTE), strToU8('</model>'))),
  },
  {
    what: 'zipped elements in elements',
    fileName: 'deep.3mf',
    make: () => archiveOf(repeated('<a>', 30 * MEGABYTE)),
  },
  {
    what: 'an element with millions of attributes',
    fileName: 'attributes.3mf',
    make: () => archiveOf(joined(strToU8('<model '), repeated('a="" b="" ', 20 * MEGABYTE))),
  },
  {
    what: 'a million items that are not in the file',
    fileName: 'items.3mf',
    make: () => archiveOf(modelXml(`<object id="1">${tetrahedron('3')}</object>`, '<item objectid="7"/>'.repeat(1_000_000))),
  },
  {
    what: 'as many small triangles as fit unpacked',
    isLong: true,
    fileName: 'full.3mf',
    make: () =>
      archiveOf(
        joined(
          strToU8(
            '<model><resources><object id="1"><mesh><vertices><vertex x="0" y="0" z="0"/><vertex x="9" y="0" z="0"/><vertex x="0" y="9" z="9"/></vertices><triangles>',
          ),
          repeated('<triangle v1="0" v2="1" v3="2"/>', 32 * 1_900_000),
          strToU8('</triangles></mesh></object></resources><build><item objectid="1"/></build></model>'),
        ),
      ),
  },
  {
    what: 'one face of sixteen million corners',
    fileName: 'corners.obj',
    make: () => joined(strToU8('v 0 0 0\nv 1 0 0\nv 0 1 1\nf 1 2 3'), repeated(' 1', 32 * MEGABYTE)),
  },
  { what: '64 MB without a line end', fileName: 'line.obj', make: () => repeated('x', 64 * MEGABYTE) },
  {
    what: '64 MB of vertices without a line end',
    fileName: 'vertex.obj',
    make: () => joined(strToU8('v '), repeated('1 ', 64 * MEGABYTE - 2)),
  },
  { what: '64 MB of line ends', fileName: 'ends.obj', make: () => repeated('\n', 64 * MEGABYTE) },
  {
    what: '64 MB of faces',
    fileName: 'faces.obj',
    make: () => joined(strToU8('v 0 0 0\nv 1 0 0\nv 0 1 1\n'), repeated('f 1 2 3\n', 64 * MEGABYTE - 24)),
  },
  {
    what: '64 MB of random triangles',
    isLong: true,
    fileName: 'random.stl',
    make: () => {
      const random = seeded(1)
      return binaryStl(trianglesIn(64), (_, out) => {
        for (let k = 0; k < 9; k++) out[k] = 100 * random()
      })
    },
  },
  {
    what: '64 MB of random triangles between few corners',
    fileName: 'tangle.stl',
    make: () => {
      const random = seeded(2)
      return binaryStl(trianglesIn(64), (_, out) => {
        for (let k = 0; k < 9; k++) out[k] = Math.floor(40 * random())
      })
    },
  },
  {
    what: 'a fan about one corner',
    fileName: 'fan.stl',
    make: () =>
      binaryStl(trianglesIn(64), (t, out) => {
        const count = trianglesIn(64)
        const [a, b] = [(2 * Math.PI * t) / count, (2 * Math.PI * (t + 1)) / count]
        out.set([0, 0, 5, 50 * Math.cos(a), 50 * Math.sin(a), 0, 50 * Math.cos(b), 50 * Math.sin(b), 0])
      }),
  },
  {
    what: 'triangles about one edge',
    fileName: 'book.stl',
    make: () =>
      binaryStl(trianglesIn(64), (t, out) => {
        const a = (2 * Math.PI * t) / trianglesIn(64)
        out.set([0, 0, 0, 0, 0, 9, 50 * Math.cos(a), 50 * Math.sin(a), 4])
      }),
  },
  {
    what: 'the same triangle again and again',
    fileName: 'again.stl',
    make: () => binaryStl(trianglesIn(64), (_, out) => out.set([0, 0, 0, 1, 0, 0, 0, 1, 1])),
  },
  {
    what: 'bodies that are inside out, apart from one another',
    isLong: true,
    fileName: 'bodies.stl',
    make: () =>
      binaryStl(4 * Math.floor(trianglesIn(64) / 4), (t, out) => {
        const body = Math.floor(t / 4)
        const [x, y] = [2 * (body % 600), 2 * Math.floor(body / 600)]
        const corner = (k: number): number[] => [x + (k === 1 ? 1 : 0), y + (k === 2 ? 1 : 0), k === 3 ? 1 : 0]
        const faces = [
          [0, 1, 2],
          [0, 3, 1],
          [1, 3, 2],
          [2, 3, 0],
        ] as const
        out.set(faces[t % 4]!.flatMap(corner))
      }),
  },
  {
    what: '64 MB of the word vertex',
    fileName: 'words.stl',
    make: () => joined(strToU8('solid '), repeated('vertex 1 2 3\n', 64 * MEGABYTE - 6)),
  },
  {
    what: '64 MB of facets in text',
    fileName: 'facets.stl',
    make: () => joined(strToU8('solid '), repeated('facet vertex 1 2 3\nvertex 2 2 3\nvertex 1 5 9\nendfacet\n', 64 * MEGABYTE - 6)),
  },
  {
    what: 'a broken facet at the end of 64 MB of line ends',
    fileName: 'broken.stl',
    make: () => joined(strToU8('solid '), repeated('\n', 64 * MEGABYTE - 30), strToU8('facet endfacet')),
  },
]

/** Programs that are none, or that would take for ever. */
export const hostilePrograms: readonly HostileFile[] = [
  {
    what: 'arcs of 1e9 mm',
    fileName: 'arcs.gcode',
    make: () => repeated('G2 X1 Y1 I1000000000 J0 E1\n', 27 * 6000),
  },
  {
    what: '64 MB of full circles',
    fileName: 'circles.gcode',
    make: () => joined(strToU8('G1 F6000\n'), repeated('G2 I99 E1\n', 64 * MEGABYTE - 9)),
  },
  {
    what: 'five million layers',
    fileName: 'layers.gcode',
    make: () => joined(strToU8('G1 X1 E1 F600\n'), repeated(';layer\n', 7 * 5_000_000)),
  },
  { what: '64 MB without a line end', fileName: 'line.gcode', make: () => repeated('G1 X1 ', 64 * MEGABYTE) },
  { what: 'coordinates of 1e30', fileName: 'far.gcode', make: () => strToU8('G1 X1e3 Y99999999999999999999 E1 F600\n') },
]
