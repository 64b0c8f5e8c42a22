import { describe, expect, it } from 'vitest'
import { runToEnd } from '../../units/steps'
import type { LoadKind } from '../strength/sectionLoads'
import { caseAlong } from './casesAlong'
import { elasticities, Judge } from './limits'
import { solvedLoadWork } from './solvedLoad'
import { bar, plastic } from './testing/bars'
import { bearableVoxel, extentOf, middleOf, voxelsOf } from './voxels'
import type { Region } from './where'

const grip = { heldTo: 0.1, loadedFrom: 0.9 }
const solved = (path: ReturnType<typeof bar>, axis: 'x' | 'y' | 'z', kind: LoadKind, voxelMm = 0.9) =>
  runToEnd(solvedLoadWork(voxelsOf(path, voxelMm), plastic, caseAlong(extentOf(path), axis, kind, grip)))

describe('lines laid into cells', () => {
  const path = bar([20, 6, 4], (layer) => (layer % 2 === 0 ? 'x' : 'y'))

  it('keep their volume, fill a solid, and know which way they run', () => {
    const cells = voxelsOf(path, 0.9)
    const own = cells.size[0] * cells.size[1] * cells.size[2]
    const volume = cells.share.reduce((sum, share) => sum + share * own, 0)
    expect(volume / (20 * 6 * 4)).toBeGreaterThan(0.95)
    expect(volume / (20 * 6 * 4)).toBeLessThan(1.0001)
    for (const [c, cos2] of cells.cos2.entries()) {
      expect(cos2).toBeGreaterThan(0.2)
      expect(cos2).toBeLessThan(0.8)
      expect(Math.abs(cells.sinCos[c]!)).toBeLessThan(1e-6)
    }
    expect(
      new Set(
        voxelsOf(
          bar([20, 6, 4], () => 'x'),
          0.9,
        ).kind,
      ),
    ).toEqual(new Set([4]))
    expect(
      new Set(
        voxelsOf(
          bar([20, 6, 4], () => 'y'),
          0.9,
        ).kind,
      ),
    ).toEqual(new Set([0]))
  })

  it('lie on a grid whose planes are the bed and the outermost lines', () => {
    const { low, high } = extentOf(path)
    expect(low[2]).toBeCloseTo(0, 6)
    expect(high[2]).toBeCloseTo(4, 6)
    const cells = voxelsOf(path, 0.9)
    for (const axis of [0, 1, 2] as const) {
      expect(cells.origin[axis]).toBeCloseTo(low[axis], 9)
      expect(cells.origin[axis] + cells.counts[axis] * cells.size[axis]).toBeCloseTo(high[axis], 9)
    }
    expect(middleOf(cells, 0)[2]).toBeCloseTo(cells.size[2] / 2, 6)
  })

  it('are laid into wider cells where there would be too many', () => {
    expect(bearableVoxel(path, 0.9, 1e6)).toBe(0.9)
    const wide = bearableVoxel(path, 0.1, 500)
    expect(wide).toBeGreaterThan(0.9)
    expect(voxelsOf(path, wide).at.length).toBeLessThanOrEqual(500)
  })
})

/** Held and loaded ends keep what they grip from growing thinner, which adds stress beside them: on bars this stout it costs up to a fifth. */
const GRIPPED = 0.8

describe('a bar of lines, solved', () => {
  const [length, wide, high] = [60, 6, 6]
  const along = bar([length, wide, high], () => 'x')

  it('pulled along its lines bears its section times their strength; across them what lines bear across', () => {
    const area = wide * high
    expect(solved(along, 'x', 'pull').failureN / (area * 50)).toBeGreaterThan(GRIPPED)
    expect(solved(along, 'x', 'pull').failureN / (area * 50)).toBeLessThan(1.05)
    const across = solved(
      bar([length, wide, high], () => 'y'),
      'x',
      'pull',
    )
    expect(across.failureN / (area * 50 * 0.7)).toBeGreaterThan(GRIPPED)
    expect(across.failureN / (area * 50 * 0.7)).toBeLessThan(1.05)
    expect(across.by).toBe('lines')
  })

  it('standing, its layers part at their bond', () => {
    const { failureN, by } = solved(
      bar([6, 6, 40], () => 'x'),
      'z',
      'pull',
    )
    expect(by).toBe('layers')
    expect(failureN / (36 * 50 * 0.5)).toBeGreaterThan(GRIPPED)
    expect(failureN / (36 * 50 * 0.5)).toBeLessThan(1.05)
  })

  it('bent fails where F·arm = σ·I/c says (a handful of it is over a little more), and moves by F·L³/3EI', () => {
    const { failureN, stiffnessNmm, at } = solved(along, 'x', 'bend', 0.6)
    // Held up to a tenth and loaded from nine: the arm to the middle of the load, the moment where nothing is left out.
    const arm = 0.95 * length - at[0]
    const beam = (50 * (wide * high ** 2)) / 6 / arm
    expect(failureN / beam).toBeGreaterThan(GRIPPED)
    expect(failureN / beam).toBeLessThan(1.1)
    const free = 0.85 * length
    const stiff = (3 * 2400 * ((wide * high ** 3) / 12)) / free ** 3
    expect(stiffnessNmm / stiff).toBeGreaterThan(0.9)
    expect(stiffnessNmm / stiff).toBeLessThan(1.05)
  })

  it('held high is the same the other way round', () => {
    expect(solved(along, 'x', 'bendHigh').failureN / solved(along, 'x', 'bend').failureN).toBeCloseTo(1, 2)
  })

  it('pressed together, slender, buckles as a column that is clamped at one end and hinged at the other: 2.05·π²·E·I/L²', () => {
    const slender = bar([80, 3.2, 3.2], () => 'x')
    const { failureN, by } = solved(slender, 'x', 'crush', 0.8)
    expect(by).toBe('buckling')
    const wanted = (2.05 * Math.PI ** 2 * plastic.modulus * (3.2 ** 4 / 12)) / (0.8 * 80) ** 2
    expect(failureN / wanted).toBeGreaterThan(0.85)
    expect(failureN / wanted).toBeLessThan(1.1)
    // A stout one is crushed.
    expect(
      solved(
        bar([20, 6, 6], () => 'x'),
        'x',
        'crush',
        1,
      ).by,
    ).toBe('lines')
  })

  it('on three supports fails and moves as F·L/4 and F·L³/48EI say', () => {
    const long = bar([60, 6, 6], () => 'x')
    const [span, second] = [0.8 * 60, 6 ** 4 / 12]
    const { failureN, stiffnessNmm } = solved(long, 'x', 'threePoint', 1)
    const wanted = (4 * plastic.inLayer * second) / 3 / span
    // Nothing is judged beside the press, where it is bent most.
    expect(failureN / wanted).toBeGreaterThan(1)
    expect(failureN / wanted).toBeLessThan(1.5)
    expect(stiffnessNmm / ((48 * plastic.modulus * second) / span ** 3)).toBeGreaterThan(0.8)
    expect(stiffnessNmm / ((48 * plastic.modulus * second) / span ** 3)).toBeLessThan(1.1)
  })

  it('on a grid half as wide hardly changes', () => {
    const [coarse, fine] = [solved(along, 'x', 'bend', 1), solved(along, 'x', 'bend', 0.5)]
    expect(Math.abs(coarse.failureN / fine.failureN - 1)).toBeLessThan(0.08)
    expect(Math.abs(coarse.stiffnessNmm / fine.stiffnessNmm - 1)).toBeLessThan(0.04)
    expect([fine.low < fine.failureN, fine.failureN < fine.high]).toEqual([true, true])
  })

  it('standing and turned about its own axis bears the same within a twentieth, whatever the grid cuts', () => {
    const of = (turnDeg: number) =>
      solved(
        bar([8, 8, 36], (layer) => (layer % 2 === 0 ? 'x' : 'y'), turnDeg),
        'z',
        'bend',
        0.6,
      )
    const plain = of(0)
    for (const turnDeg of [17, 30, 45]) {
      const turned = of(turnDeg)
      expect(Math.abs(turned.failureN / plain.failureN - 1)).toBeLessThan(0.05)
      expect(Math.abs(turned.stiffnessNmm / plain.stiffnessNmm - 1)).toBeLessThan(0.05)
    }
  })

  it('refuses in a sentence what is held nowhere, loaded nowhere, or nowhere judged', () => {
    const cells = voxelsOf(along, 0.9)
    const box = (low: number, high: number): Region[] => [{ kind: 'box', low: [low, -9, -9], high: [high, 99, 99] }]
    const of = (hold: Region[], load: Region[]) => () =>
      runToEnd(
        solvedLoadWork(cells, plastic, {
          holds: [{ where: hold, along: [true, true, true] }],
          loads: [[{ where: load, force: [1, 0, 0] }]],
        }),
      )
    expect(of(box(500, 600), box(50, 60))).toThrow(/Nothing of the part is held/)
    expect(of(box(0, 5), box(500, 600))).toThrow(/is loaded/)
    expect(of(box(-1, 30), box(30, 61))).toThrow(/beside where it is held/)
  })
})

describe('what plastic bears', () => {
  const judge = new Judge(plastic)

  it('is the material’s strength along lines, a share across them, the bond between layers, and nothing more when layers are pressed', () => {
    judge.turnTo(1, 0, 1)
    expect(judge.ratio(50, 0, 0, 0, 0, 0)).toBeCloseTo(1, 9)
    expect(judge.ratio(0, 35, 0, 0, 0, 0)).toBeCloseTo(1, 9)
    expect(judge.ratio(0, 0, 25, 0, 0, 0)).toBeCloseTo(1, 9)
    expect(judge.layers).toBeGreaterThan(judge.lines)
    expect(judge.ratio(0, 0, -50, 0, 0, 0)).toBeCloseTo(1, 9)
    // Lines along y.
    judge.turnTo(0, 0, 1)
    expect(judge.ratio(35, 0, 0, 0, 0, 0)).toBeCloseTo(1, 9)
  })

  it('turns with the lines: at 45° along them as along x', () => {
    judge.turnTo(0.5, 0.5, 1)
    // 50 MPa along the diagonal are 25, 25 and 25 of shear.
    expect(judge.ratio(25, 25, 0, 0, 0, 25)).toBeCloseTo(1, 9)
    expect(judge.ratio(17.5, 17.5, 0, 0, 0, -17.5)).toBeCloseTo(1, 9)
  })

  it('grows with the square of the load', () => {
    judge.turnTo(0.7, 0.1, 1)
    expect(judge.ratio(20, -10, 6, 4, -2, 8)).toBeCloseTo(4 * judge.ratio(10, -5, 3, 2, -1, 4), 9)
  })

  it('has stiffness along lines of the material’s own, and is positive whichever way they run', () => {
    for (const c of elasticities(plastic)) for (const i of [0, 7, 14, 21, 28, 35]) expect(c[i]).toBeGreaterThan(0)
    const [first, , , , last] = elasticities(plastic)
    expect(last![0]! / first![7]!).toBeCloseTo(1, 9)
  })
})
