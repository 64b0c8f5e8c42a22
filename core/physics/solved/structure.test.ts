import { describe, expect, it } from 'vitest'
import { runToEnd } from '../../units/steps'
import { solvedPicture } from './picture'
import { type SolvedLoad, solvedCasesWork, solvedLoadWork } from './solvedLoad'
import { type Case, type Hold, type Load, structuresWork } from './structure'
import { bar, plastic } from './testing/bars'
import { type Three, voxelsOf } from './voxels'
import type { Region } from './where'

const [LENGTH, SIDE] = [60, 6]
const voxels = voxelsOf(
  bar([LENGTH, SIDE, SIDE], () => 'x'),
  1,
)
const box = (from: number, to: number): Region => ({ kind: 'box', low: [from, -9, -9], high: [to, 99, 99] })
const fixed = [true, true, true] as const
/** Two facets, counter-clockwise from the side that they face. */
const patch = (a: Three, b: Three, c: Three, d: Three): Region => ({
  kind: 'patch',
  triangles: Float64Array.from([a, b, c, a, c, d].flat()),
})
const top = (from: number, to: number): Region => patch([from, 0, SIDE], [to, 0, SIDE], [to, SIDE, SIDE], [from, SIDE, SIDE])
const far: Region = patch([LENGTH, 0, 0], [LENGTH, SIDE, 0], [LENGTH, SIDE, SIDE], [LENGTH, 0, SIDE])
const held: readonly Hold[] = [{ where: [box(-1, 6)], along: fixed }]
const under = (load: Load, holds = held): Case => ({ holds, loads: [[load]] })
const solved = (one: Case): SolvedLoad => runToEnd(solvedLoadWork(voxels, plastic, one))

describe('what acts on a part', () => {
  it('is the same as a pressure on a patch and as the force that it comes to', () => {
    const pressed = solved(under({ where: [top(50, 60)], pressure: 0.1 }))
    const pushed = solved(under({ where: [top(50, 60)], force: [0, 0, -6] }))
    expect(pressed.failureN / pushed.failureN).toBeCloseTo(1, 2)
    expect(pressed.factor / pushed.factor).toBeCloseTo(1, 2)
    expect(pressed.stiffnessNmm / pushed.stiffnessNmm).toBeCloseTo(1, 2)
  })

  it('is a moment: a couple bends a bar evenly, σ = M·c/I, and has no force of its own', () => {
    const [second, modulus] = [SIDE ** 4 / 12, 300]
    const bent = solved(under({ where: [far], moment: [0, modulus, 0] }))
    expect(bent.failureN).toBeNaN()
    expect(bent.stiffnessNmm).toBeNaN()
    const stress = (modulus * SIDE) / 2 / second
    // A handful of it is over a little more than its outermost fibre is.
    expect((bent.factor * stress) / plastic.inLayer).toBeGreaterThan(1)
    expect((bent.factor * stress) / plastic.inLayer).toBeLessThan(1.25)
  })

  it('twists: a moment about the axis moves the far end round, and as much either way', () => {
    const [one, other] = [1, -1].map((sign) => solved(under({ where: [far], moment: [sign * 300, 0, 0] })))
    expect(one!.factor / other!.factor).toBeCloseTo(1, 2)
  })

  it('grows as it is told: twice the force is borne half as many times', () => {
    const [one, two] = [5, 10].map((newtons) => solved(under({ where: [box(54, 61)], force: [0, 0, newtons] })))
    expect(one!.factor / two!.factor).toBeCloseTo(2, 6)
    expect(one!.failureN / two!.failureN).toBeCloseTo(1, 6)
  })
})

describe('supports', () => {
  it('that slide let a bar stretch between them: pressed on its end it is shortened by F·L/EA over all its length', () => {
    const sides = [0, SIDE].map(
      (at): Hold => ({ where: [{ kind: 'plane', low: [-1, at, -1], high: [99, at, 99] }], along: [false, true, false] }),
    )
    const foot: Hold = { where: [{ kind: 'plane', low: [0, -1, -1], high: [0, 99, 99] }], along: fixed }
    const [structure] = runToEnd(structuresWork(voxels, plastic, [under({ where: [far], force: [-10, 0, 0] }, [foot, ...sides])]))
    const stiffnessNmm = 100 / structure!.forces[0]!.reduce((sum, force, d) => sum + force * structure!.moved[0]![d]!, 0)
    // It cannot widen one of its two ways, so that it is stiffer by 1 / (1 − ν²) at most.
    const plain = (plastic.modulus * SIDE ** 2) / LENGTH
    expect(stiffnessNmm / plain).toBeGreaterThan(1)
    expect(stiffnessNmm / plain).toBeLessThan(1.25)
  })

  it('that leave it free to slide away are refused', () => {
    const sliding: Hold = { where: [box(-1, 6)], along: [false, true, true] }
    expect(() => solved(under({ where: [far], force: [10, 0, 0] }, [sliding]))).toThrow(/slide away or turn/)
    // A hinge lets it turn.
    const hinge: Hold = { where: [{ kind: 'plane', low: [0, -1, 3], high: [0, 99, 3] }], along: fixed }
    expect(() => solved(under({ where: [far], force: [0, 0, 10] }, [hinge]))).toThrow(/slide away or turn/)
  })
})

it('several cases on one set-up say what each says alone', () => {
  const cases = [
    under({ where: [far], force: [10, 0, 0] }),
    under({ where: [far], force: [0, 0, 10] }),
    under({ where: [top(20, 30)], pressure: 0.2 }),
  ]
  const together = runToEnd(solvedCasesWork(voxels, plastic, cases)).map(({ load }) => load)
  expect(together).toEqual(cases.map(solved))
})

describe('the picture of a solved bar', () => {
  const one = under({ where: [far], force: [0, 0, 10] })
  const [found] = runToEnd(solvedCasesWork(voxels, plastic, [one]))
  const corners = Float32Array.from([
    ...(top(0, LENGTH) as { triangles: Float64Array }).triangles,
    // A fin that is not laid at all.
    ...[70, 0, 0, 71, 0, 0, 71, 1, 0],
  ])
  const { skin, cells, mostMm, failsMoved } = solvedPicture(found!, plastic, corners)

  it('moves as its stiffness says where it is loaded, and nowhere further', () => {
    const { failureN, stiffnessNmm } = found!.load
    expect(mostMm).toBeGreaterThan(failureN / stiffnessNmm)
    expect(mostMm).toBeLessThan((1.2 * failureN) / stiffnessNmm)
    let most = 0
    for (let i = 2; i < skin.moved.length; i += 3) most = Math.max(most, skin.moved[i]!)
    expect(most / mostMm).toBeGreaterThan(0.95)
    expect(most / mostMm).toBeLessThan(1.05)
    expect(Math.hypot(...failsMoved)).toBeLessThan(mostMm)
  })

  it('has facets no longer than some cells, and none where nothing is laid', () => {
    for (let f = 0; f < skin.lines.length; f++) {
      expect(skin.corners[9 * f]!).toBeLessThanOrEqual(LENGTH)
      const side = Math.hypot(skin.corners[9 * f + 3]! - skin.corners[9 * f]!, skin.corners[9 * f + 4]! - skin.corners[9 * f + 1]!)
      expect(side).toBeLessThanOrEqual(1.6 * Math.max(...cells.size) + 1e-6)
    }
  })

  it('shows about all of the limit somewhere beside the hold, and less and less towards the load', () => {
    const nearest = (x: number): number => {
      let most = 0
      for (let c = 0; c < cells.lines.length; c++) if (Math.abs(cells.middles[3 * c]! - x) < 0.6) most = Math.max(most, cells.lines[c]!)
      return most
    }
    expect(nearest(9)).toBeGreaterThan(0.9)
    expect(nearest(30)).toBeLessThan(nearest(20))
    expect(nearest(50)).toBeLessThan(0.4)
  })
})
