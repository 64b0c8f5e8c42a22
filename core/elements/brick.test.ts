import { describe, expect, it } from 'vitest'
import { seeded } from '../units/seeded'
import { runToEnd } from '../units/steps'
import { brickStiffness } from './brick'
import { isotropic, orthotropic } from './elasticity'
import { meshOf } from './mesh'
import { readyWork } from './ready'
import { cellsOf } from './testing/blocks'

const layered = orthotropic({ modulus: [2400, 2100, 1700], poisson: 0.35, shear: [600, 650, 800] })
const size = [0.9, 0.7, 0.4] as const

/** Where a corner of a brick stands. */
const corner = (n: number): number[] => [0, 1, 2].map((axis) => ((n >> axis) & 1) * size[axis]!)
/** Movements of all corners, from where each stands. */
const moves = (of: (at: number[]) => number[]): Float64Array => Float64Array.from(Array.from({ length: 8 }, (_, n) => of(corner(n))).flat())
const times = (k: Float64Array, u: Float64Array): number[] =>
  Array.from({ length: 24 }, (_, i) => u.reduce((sum, one, j) => sum + k[24 * i + j]! * one, 0))

describe('a brick', () => {
  const k = brickStiffness(size, layered)

  it('is symmetric, and resists no rigid movement', () => {
    for (let i = 0; i < 24; i++) for (let j = 0; j < i; j++) expect(k[24 * i + j]).toBeCloseTo(k[24 * j + i]!, 8)
    const rigid = [
      () => [1, 0, 0],
      () => [0, 1, 0],
      () => [0, 0, 1],
      ([, y = 0, z = 0]: number[]) => [0, -z, y],
      ([x = 0, , z = 0]: number[]) => [z, 0, -x],
      ([x = 0, y = 0]: number[]) => [-y, x, 0],
    ]
    for (const how of rigid) for (const force of times(k, moves(how))) expect(Math.abs(force)).toBeLessThan(1e-9)
  })

  it('under each even strain has the stress of its material, to the last digits (patch test)', () => {
    const strains = [
      ([x = 0]: number[]) => [x, 0, 0],
      ([, y = 0]: number[]) => [0, y, 0],
      ([, , z = 0]: number[]) => [0, 0, z],
      ([, , z = 0]: number[]) => [0, z, 0],
      ([, , z = 0]: number[]) => [z, 0, 0],
      ([, y = 0]: number[]) => [y, 0, 0],
    ]
    const volume = size[0] * size[1] * size[2]
    for (const [i, how] of strains.entries())
      for (const [j, other] of strains.entries()) {
        const energy = times(k, moves(how)).reduce((sum, force, n) => sum + force * moves(other)[n]!, 0)
        expect(energy / volume).toBeCloseTo(layered[6 * i + j]!, 6)
      }
  })

  it('bends as a beam does: pure bending costs E·I/L per angle, where corners alone would be far too stiff', () => {
    // Poisson's ratio none, so that a beam of one brick is a beam. u = −κ·x·z, w = κ·x²/2 with corners alone.
    const e = 2000
    const own = brickStiffness([10, 1, 1], isotropic(e, 0))
    const u = Float64Array.from(Array.from({ length: 8 }, (_, n) => [((n & 1) - 0.5) * -((n >> 2) - 0.5), 0, 0]).flat())
    // Half the angle at each end is 1/2: both together turn by one, and the moment is E·I/L = 2000/12/10.
    const energy = times(own, u).reduce((sum, force, n) => sum + force * u[n]!, 0)
    expect(energy).toBeCloseTo((e * (1 / 12)) / 10, 6)
  })
})

describe('cells as springs', () => {
  it('give the forces of their stiffness, whatever moves, of several cells and shares', () => {
    const cells = {
      ...cellsOf([3, 2, 2], size),
      share: new Float32Array(12).map((_, i) => 0.25 + i / 16),
      kind: Uint8Array.from({ length: 12 }, (_, i) => i % 2),
    }
    const mesh = meshOf(cells)
    const stiff = [brickStiffness(size, layered), brickStiffness(size, isotropic(900, 0.3))]
    const random = seeded(3)
    const moved = new Float64Array(3 * mesh.nodeCount).map(() => random() - 0.5)
    const plain = new Float64Array(moved.length)
    for (let c = 0; c < 12; c++)
      for (let i = 0; i < 24; i++)
        for (let j = 0; j < 24; j++)
          plain[3 * mesh.nodes[8 * c + Math.floor(i / 3)]! + (i % 3)]! +=
            cells.share[c]! * stiff[cells.kind[c]!]![24 * i + j]! * moved[3 * mesh.nodes[8 * c + Math.floor(j / 3)]! + (j % 3)]!
    for (const isPlain of [false, true]) {
      const {
        kernel,
        cells: places,
        nodes,
        double,
        single,
      } = runToEnd(readyWork(mesh, [layered, isotropic(900, 0.3)], new Uint8Array(3 * mesh.nodeCount), isPlain))
      const [doubles, singles] = [new Float64Array(kernel.buffer), new Float32Array(kernel.buffer)]
      for (let n = 0; n < nodes; n++) doubles.set(moved.subarray(3 * n, 3 * n + 3), double.p / 8 + 4 * n)
      kernel.toSingle(nodes, double.p, single.x)
      // What was worked in before is still there.
      doubles.fill(0, double.q / 8, double.q / 8 + 4 * nodes)
      kernel.springsDouble(places, double.p, double.q)
      kernel.springs(places, single.x, single.r)
      for (let n = 0; n < nodes; n++)
        for (let i = 0; i < 3; i++) {
          expect(doubles[double.q / 8 + 4 * n + i]).toBeCloseTo(plain[3 * n + i]!, 7)
          expect(Math.abs(singles[single.r / 4 + 4 * n + i]! - plain[3 * n + i]!)).toBeLessThan(1e-3)
        }
    }
  })
})
