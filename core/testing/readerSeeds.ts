import { strToU8 } from 'fflate'
import { readProfileFile, writeProfileFile } from '../formats/profileFile'
import { readPart } from '../formats/readPart'
import { write3mf } from '../formats/write3mf'
import { writeStl } from '../formats/writeStl'
import { ProgramTimer } from '../program/timeProgram'
import { starterPrinters } from '../shelf/starter'
import { blockMesh } from './solids'

/** A small good file, and what reads files of its kind: gives something that a stored row could be made of, or refuses. */
export interface ReaderSeed {
  readonly kind: string
  readonly bytes: Uint8Array
  readonly read: (bytes: Uint8Array) => unknown
}

const block = blockMesh(8, 6, 4)

function asciiStl(): string {
  const corner = (v: number): string => `      vertex ${[0, 1, 2].map((axis) => block.positions[3 * v + axis]).join(' ')}\n`
  let text = 'solid block\n'
  for (let t = 0; t < block.triangles.length; t += 3)
    text += `  facet normal 0 0 0\n    outer loop\n${[0, 1, 2].map((k) => corner(block.triangles[t + k]!)).join('')}    endloop\n  endfacet\n`
  return `${text}endsolid block\n`
}

function obj(): string {
  const { positions, triangles } = block
  const vertices = Array.from({ length: positions.length / 3 }, (_, v) => `v ${positions.subarray(3 * v, 3 * v + 3).join(' ')}`)
  const faces = Array.from(
    { length: triangles.length / 3 },
    (_, t) => `f ${[...triangles.subarray(3 * t, 3 * t + 3)].map((v) => `${v + 1}/1`).join(' ')}`,
  )
  return [...vertices, ...faces, ''].join('\n')
}

const program = `; @ corner-speed 8\nM104 S200\nG28\nG90\nM83\nG1 X10 Y10 Z0.2 F6000\n; @ layer 1\n; @ feature outer wall\n${[...Array(12).keys()].map((i) => `G1 X${10 + i} Y${20 - i} E0.4 F2400`).join('\n')}\nG2 X30 Y20 I5 J0 E1\nG4 P50\nM106 S120\nG1 Z0.4\n`

const model = (fileName: string) => (bytes: Uint8Array) => readPart(bytes, fileName, 'key').report

export const readerSeeds: readonly ReaderSeed[] = [
  { kind: 'binary STL', bytes: writeStl(block), read: model('block.stl') },
  { kind: 'ASCII STL', bytes: strToU8(asciiStl()), read: model('block.stl') },
  { kind: 'OBJ', bytes: strToU8(obj()), read: model('block.obj') },
  { kind: '3MF', bytes: write3mf(block, 'block'), read: model('block.3mf') },
  {
    kind: 'G-code',
    bytes: strToU8(program),
    read(bytes) {
      const timer = new ProgramTimer(starterPrinters[1]!)
      timer.push(bytes)
      const { timeS, filament, layers } = timer.finish()
      return { timeS, filament, layers: layers.map(({ timeS }) => timeS) }
    },
  },
  {
    kind: 'profile',
    bytes: strToU8(writeProfileFile({ name: 'everyday', settings: { layerHeight: 0.2, wallCount: 3 }, overrides: [] })),
    read: (bytes) => readProfileFile(new TextDecoder().decode(bytes), 'everyday.json'),
  },
]
