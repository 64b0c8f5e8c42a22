import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { isotropic, type Orthotropic, orthotropic } from './elasticity'
import { cellsOf, type Loaded, loaded, placeOf } from './testing/blocks'

type Three = readonly [number, number, number]

const all = [true, true, true] as const
const none = [false, false, false] as const

/** Order in which the other solver wants the corners of a brick. */
const cornerOrder = [0, 1, 3, 2, 4, 5, 7, 6]

/**
 * Work of the forces on the same mesh by Debian's general-purpose solver (package calculix-ccx), whose bricks C3D8I have incompatible modes too.
 *
 * @param elastic its words for the material
 */
function outsideWork({ mesh, forces, ready }: Loaded, elastic: string): number {
  const folder = mkdtempSync(join(tmpdir(), 'outside-'))
  try {
    const node = (n: number): string => `${n + 1},${placeOf(mesh, n).join(',')}`
    const element = (c: number): string => `${c + 1},${cornerOrder.map((k) => mesh.nodes[8 * c + k]! + 1).join(',')}`
    const count = (of: number, say: (i: number) => string): string => Array.from({ length: of }, (_, i) => say(i)).join('\n')
    const input = [
      '*NODE, NSET=ALL',
      count(mesh.nodeCount, node),
      '*ELEMENT, TYPE=C3D8I, ELSET=SOLID',
      count(mesh.share.length, element),
      `*MATERIAL, NAME=PLASTIC\n*ELASTIC${elastic}`,
      '*SOLID SECTION, ELSET=SOLID, MATERIAL=PLASTIC',
      '*BOUNDARY',
      Array.from(ready.held, (d) => `${Math.floor(d / 4) + 1},${(d % 4) + 1},${(d % 4) + 1}`).join('\n'),
      '*STEP\n*STATIC\n*CLOAD',
      Array.from(forces, (force, d) => (force === 0 ? '' : `${Math.floor(d / 3) + 1},${(d % 3) + 1},${force}\n`))
        .join('')
        .trim(),
      '*NODE PRINT, NSET=ALL\nU\n*END STEP\n',
    ]
    writeFileSync(join(folder, 'part.inp'), input.join('\n'))
    const { status, stdout } = spawnSync('ccx', ['part'], { cwd: folder, encoding: 'utf8' })
    if (status !== 0) throw new Error(stdout)
    let work = 0
    for (const line of readFileSync(join(folder, 'part.dat'), 'utf8').split('\n')) {
      const [n, ...moved] = line.trim().split(/\s+/).map(Number)
      if (moved.length !== 3 || !Number.isInteger(n)) continue
      for (const [i, own] of moved.entries()) work += own * forces[3 * (n! - 1) + i]!
    }
    return work
  } finally {
    rmSync(folder, { recursive: true, force: true })
  }
}

describe('the same bricks by a general-purpose solver', () => {
  // An angle with a hole, held at its foot and loaded at its tip, so that it bends and twists.
  const cells = cellsOf([9, 4, 8], [0.9, 0.7, 0.4], (x, y, z) => (x < 2.7 || z < 1.3) && !(x > 5 && x < 6 && y > 0.7 && y < 2))
  const angle = (elasticity: Parameters<typeof loaded>[1]): Loaded =>
    loaded(
      cells,
      elasticity,
      ([, , z]: Three) => (z > 3.1 ? all : none),
      ([x, y, z]: Three) => (x > 8 && y < 0.1 && z < 0.1 ? [0.3, -1, 2] : [0, 0, 0]),
      1e-9,
    )

  it('give way as much, of one stiffness in all directions', () => {
    const own = angle(isotropic(2400, 0.35))
    expect(own.work / outsideWork(own, '\n2400.,0.35')).toBeCloseTo(1, 6)
  })

  it('give way as much, of lines that are stiffer along themselves', () => {
    const of: Orthotropic = { modulus: [2400, 1700, 2000], poisson: 0.35, shear: [600, 650, 800] }
    const own = angle(orthotropic(of))
    const [ex, ey, ez] = of.modulus
    const ratio = (a: number, b: number): number => of.poisson * Math.sqrt(a / b)
    const words = `, TYPE=ENGINEERING CONSTANTS\n${[ex, ey, ez, ratio(ex, ey), ratio(ex, ez), ratio(ey, ez), of.shear[2], of.shear[1]].join(',')}\n${of.shear[0]}`
    expect(own.work / outsideWork(own, words)).toBeCloseTo(1, 6)
  })
})
