import { describe, expect, it } from 'vitest'
import { isotropic } from './elasticity'
import { POINTS, stressTeller } from './stress'
import { cellsOf, type Loaded, loaded, placeOf } from './testing/blocks'

const all = [true, true, true] as const
const none = [false, false, false] as const
const nothing = [0, 0, 0] as const

/** Cells with the share of sixteen points each that are in a shape, one cell thick. */
function sheet(counts: readonly [number, number], step: number, isIn: (x: number, y: number) => boolean) {
  const points = [-0.375, -0.125, 0.125, 0.375].map((own) => own * step)
  const shareAt = (x: number, y: number): number =>
    points.reduce((sum, dx) => sum + points.filter((dy) => isIn(x + dx, y + dy)).length, 0) / 16
  const cells = cellsOf([...counts, 1], [step, step, 1], (x, y) => shareAt(x, y) >= 0.02)
  const share = cells.share.map((_, i) => {
    const own = cells.at[i]!
    return shareAt(((own % counts[0]) + 0.5) * step, (Math.floor(own / counts[0]) + 0.5) * step)
  })
  return { ...cells, share }
}

describe('published problems', () => {
  it('a square bar twists as Saint-Venant’s does: T·L / 0.1406·G·a⁴ (Timoshenko & Goodier, Theory of Elasticity, table of §109; from memory)', () => {
    const [length, side, count] = [40, 8, 8]
    const [e, poisson] = [2000, 0.3]
    const own = loaded(
      cellsOf([length, count, count], [1, side / count, side / count]),
      isotropic(e, poisson),
      ([x]) => (x === 0 ? all : none),
      // Shear that grows with the distance from the axis, on the far end.
      ([x, y, z]) => (x === length ? [0, -(z - side / 2), y - side / 2] : nothing),
      1e-6,
    )
    const moment = momentOf(own, side / 2, side / 2)
    const wanted = (moment * length) / (0.1406 * (e / (2 * (1 + poisson))) * side ** 4)
    // Both ends, where it cannot warp and where it is turned, are stiffer than the bar between them.
    expect(own.work / moment / wanted).toBeGreaterThan(0.95)
    expect(own.work / moment / wanted).toBeLessThan(1.03)
  })

  it('MacNeal & Harder’s slender beam, twisted (1985; 0.03208 from memory), on a grid that shows its section', () => {
    const own = loaded(
      cellsOf([60, 8, 4], [0.1, 0.025, 0.025]),
      isotropic(1e7, 0.3),
      ([x]) => (x === 0 ? all : none),
      ([x, y, z]) => (x > 5.99 ? [0, -(z - 0.05), y - 0.1] : nothing),
      1e-6,
    )
    const moment = momentOf(own, 0.1, 0.05)
    // Its own six bricks cannot show how the section warps; held at its end it is a little stiffer than Saint-Venant’s bar, 0.03406.
    expect(Math.abs(own.work / moment ** 2 / 0.03208 - 1)).toBeLessThan(0.04)
  })

  it('Cook’s skew membrane: its corner rises by 23.9 (Cook 1974; from memory), its slopes cut by the grid', () => {
    const step = 1
    const top = (x: number): number => 44 + (16 * x) / 48
    const bottom = (x: number): number => (44 * x) / 48
    const cells = sheet([48, 60], step, (x, y) => y >= bottom(x) && y <= top(x))
    const own = loaded(
      cells,
      isotropic(1, 1 / 3),
      ([x]) => (x === 0 ? all : none),
      ([x, y]) => (x === 48 && y >= 44 ? [0, (y === 44 || y === 60 ? 0.5 : 1) / 16 / 2, 0] : nothing),
      1e-6,
    )
    expect(Math.abs(own.work / 23.9 - 1)).toBeLessThan(0.01)
  })

  it('a hole of a fifth of a strip’s width: 3.14 times the mean stress beside it (Howland 1930; from memory), whose grid nears it from below', () => {
    const [wide, long, hole] = [20, 50, 4]
    const peakAt = (step: number): number => {
      const cells = sheet([long / step, wide / step], step, (x, y) => Math.hypot(x - long / 2, y - wide / 2) >= hole / 2)
      const material = isotropic(2000, 0.3)
      const own = loaded(
        cells,
        material,
        ([x, y, z]) => (x === 0 ? [true, y === wide / 2 && z === 0, z === 0 && y === 0] : none),
        ([x, y]) => (x === long ? [(y === 0 || y === wide ? 0.5 : 1) / (wide / step) / 2, 0, 0] : nothing),
        1e-5,
      )
      const tell = stressTeller(own.mesh, [material])
      const out = new Float64Array(6 * POINTS)
      let most = 0
      for (const [cell, share] of cells.share.entries()) {
        if (share < 0.5) continue
        tell(own.moved, cell, out)
        for (let p = 0; p < POINTS; p++) most = Math.max(most, out[6 * p]!)
      }
      return most * wide
    }
    const [coarse, fine] = [peakAt(0.25), peakAt(0.125)]
    expect(Math.abs(fine / 3.14 - 1)).toBeLessThan(0.06)
    expect(Math.abs(coarse - 3.14)).toBeGreaterThan(Math.abs(fine - 3.14))
  })
})

/** About the middle of a section across x. */
function momentOf({ mesh, forces }: Loaded, middleY: number, middleZ: number): number {
  let sum = 0
  for (let n = 0; n < mesh.nodeCount; n++) {
    const [, y, z] = placeOf(mesh, n)
    sum += forces[3 * n + 2]! * (y - middleY) - forces[3 * n + 1]! * (z - middleZ)
  }
  return sum
}
