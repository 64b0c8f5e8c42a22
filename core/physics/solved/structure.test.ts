import { describe, expect, it } from 'vitest'
import { runToEnd } from '../../units/steps'
import { solvedPicture } from './picture'
import { SetUps } from './setUps'
import { type SolvedLoad, solvedCasesWork, solvedLoadWork } from './solvedLoad'
import { type Case, type Hold, type Load, NEAR_GRIP, structuresWork } from './structure'
import { bar, plastic } from './testing/bars'
import { type Three, voxelsOf } from './voxels'
import { Places, type Region } from './where'

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

describe('what is moved instead of pushed', () => {
  const sum = (forces: Float64Array, axis: number): number => forces.reduce((all, one, d) => (d % 3 === axis ? all + one : all), 0)
  const structureOf = (...loads: Load[]) => runToEnd(structuresWork(voxels, plastic, [{ holds: held, loads: [loads] }]))[0]!

  it('takes the force under which it moves so far on the mean, and fails under the same force', () => {
    const pushed = solved(under({ where: [far], force: [0, 0, 10] }))
    const slipped = solved(under({ where: [far], slip: [0, 0, 2] }))
    expect(slipped.failureN / pushed.failureN).toBeCloseTo(1, 3)
    expect(slipped.stiffnessNmm / pushed.stiffnessNmm).toBeCloseTo(1, 3)
    // Loads times the factor: it fails when it was moved so far, F·L³/3EI of what is free of it.
    const mm = (pushed.failureN * (LENGTH - 6) ** 3) / (3 * plastic.modulus * (SIDE ** 4 / 12))
    expect((2 * slipped.factor) / mm).toBeGreaterThan(0.93)
    expect((2 * slipped.factor) / mm).toBeLessThan(1.07)
  })

  it('two ways at once goes as far as either is told, beside a force that acts too', () => {
    const slips = [
      { where: [far], slip: [0, 0.7, 0] as Three },
      { where: [far], slip: [0, 0, -0.4] as Three },
    ]
    const alone = structureOf(...slips)
    const beside = structureOf({ where: [top(30, 40)], force: [0, 0, -25] }, ...slips)
    for (const { forces, moved } of [alone, beside]) {
      const probe = [1, 2].map((axis) => {
        const one = structureOf({ where: [far], force: [0, axis === 1 ? 1 : 0, axis === 2 ? 1 : 0] })
        return one.forces[0]!.reduce((all, force, d) => all + force * moved[0]![d]!, 0)
      })
      expect(probe[0]).toBeCloseTo(0.7, 4)
      expect(probe[1]).toBeCloseTo(-0.4, 4)
      expect(sum(forces[0]!, 1)).toBeGreaterThan(0)
    }
    // What presses it down already leaves less, or the other way, for the slip to do.
    expect(sum(beside.forces[0]!, 2) + 25).toBeGreaterThan(sum(alone.forces[0]!, 2))
  })
})

describe('its own weight', () => {
  // As heavy as a thousand times gravity makes it, so that it moves by more than dust.
  const onVolume = [0, 0, -1.24e-6 * 9806.65] as const

  it('is as much as all of it weighs, and bends a bar by q·L⁴/8EI', () => {
    const [structure] = runToEnd(structuresWork(voxels, plastic, [under({ where: [{ kind: 'whole' }], onVolume })]))
    const all = structure!.forces[0]!.reduce((sum, one) => sum + one, 0)
    // What lines of 0.4 mm lay above the whole of a cell of 1 mm is not counted.
    const share = all / (LENGTH * SIDE * SIDE * onVolume[2])
    expect(share).toBeGreaterThan(0.95)
    expect(share).toBeLessThan(1.001)
    let lowest = 0
    for (let d = 2; d < structure!.moved[0]!.length; d += 3) lowest = Math.min(lowest, structure!.moved[0]![d]!)
    const sag = (SIDE * SIDE * onVolume[2] * (LENGTH - 6) ** 4) / (8 * plastic.modulus * (SIDE ** 4 / 12))
    expect(lowest / sag).toBeGreaterThan(0.97)
    expect(lowest / sag).toBeLessThan(1.07)
  })

  it('grips a part nowhere: it is judged everywhere but where it is held', () => {
    const [structure] = runToEnd(structuresWork(voxels, plastic, [under({ where: [{ kind: 'whole' }], onVolume })]))
    const gripped = structure!.isGripped.reduce((sum, one) => sum + one, 0) / structure!.isGripped.length
    expect(gripped).toBeCloseTo((6 + NEAR_GRIP) / LENGTH, 1)
  })
})

describe('a box that is turned', () => {
  const places = new Places(voxels)
  const count = (region: Region): number => places.marked([region]).reduce((sum, one) => sum + one, 0)
  const turned = (deg: number): Region => {
    const [c, n] = [Math.cos((deg * Math.PI) / 180), Math.sin((deg * Math.PI) / 180)]
    return {
      kind: 'turnedBox',
      middle: [30, 3, 3],
      halves: [
        [10 * c, 10 * n, 0],
        [-2 * n, 2 * c, 0],
        [0, 0, 9],
      ],
    }
  }

  it('is the box itself where it is not, and reaches across the bar where it is', () => {
    expect(count(turned(0))).toBe(count({ kind: 'box', low: [20, 1, -6], high: [40, 5, 12] }))
    // A strip 4 mm wide across a bar of 6 × 6.
    expect(count(turned(90)) / (4 * 6 * 6)).toBeCloseTo(1, 6)
    expect(count(turned(30)) / (20 * 4 * 6)).toBeGreaterThan(0.5)
    expect(count(turned(30))).toBeLessThan(count(turned(0)))
  })

  it('is left out with what is near to it', () => {
    const near = places.near([turned(0)], 3).reduce((sum, one) => sum + one, 0)
    expect(near).toBe(26 * 6 * 6)
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

it('another load on what is set up already says what it says anew, and what is held otherwise is set up anew', () => {
  const cases = [[10, 0, 0] as const, [0, 0, 10] as const].map((force) => under({ where: [far], force }))
  const other = under({ where: [far], force: [0, 0, 10] }, [{ where: [box(-1, 12)], along: fixed }])
  const setUps = new SetUps()
  let ready: unknown
  for (const one of [...cases, other, cases[0]!]) {
    const [found] = runToEnd(solvedCasesWork(voxels, plastic, [one], setUps))
    expect(found!.load).toEqual(solved(one))
    const now = Reflect.get(setUps, 'last').ready
    expect(now === ready).toBe(one === cases[1])
    ready = now
  }
})

it('what is pressed is also sought for how it buckles: a slender bar does, a stout one breaks, and the bound of the stout one is far off', () => {
  const column = (mm: number, side: number) =>
    voxelsOf(
      bar([mm, side, side], () => 'x'),
      1,
    )
  const pressed = (mm: number): Case => ({
    holds: [{ where: [box(-1, 4)], along: fixed }],
    loads: [[{ where: [box(mm - 4, mm + 1)], force: [-10, 0, 0] }]],
    buckles: true,
  })
  const [slender, stout] = [
    [90, 4],
    [24, 10],
  ].map(([mm, side]) => runToEnd(solvedCasesWork(column(mm!, side!), plastic, [pressed(mm!)]))[0]!)
  expect(slender!.load.by).toBe('buckling')
  // Held at its foot, free at its top: π²·E·I/4L² (Euler), of what is free of it, and loaded over its last 4 mm.
  const euler = (Math.PI ** 2 * plastic.modulus * (4 ** 4 / 12)) / (4 * (90 - 6) ** 2)
  expect(slender!.load.failureN / euler).toBeGreaterThan(0.9)
  expect(slender!.load.failureN / euler).toBeLessThan(1.1)
  expect(stout!.load.by).not.toBe('buckling')
  expect(stout!.structure.buckling!.factor).toBeGreaterThan(2 * stout!.load.factor)
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
