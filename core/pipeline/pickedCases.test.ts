import { beforeAll, describe, expect, it } from 'vitest'
import type { Part } from '../mesh/part'
import { type Placement, place } from '../mesh/place'
import type { PickedCase } from '../physics/strength/pickedCases'
import { noPurpose, type Purpose } from '../physics/strength/purpose'
import { testKernel } from '../testing/kernel'
import { setupOf } from '../testing/setups'
import { blockMesh, partOf } from '../testing/solids'
import { runToEnd } from '../units/steps'
import { layDown } from './layDown'
import { caseOf, drawnCase, faceOf, ownDirection, ownPoint } from './pickedCases'
import { predict } from './predict'
import { notSolved, type SolvedPurpose, solvedForPurpose, solvedKey } from './solvedWork'

const part = partOf('picked', blockMesh(40, 8, 6))
const asModelled: Placement = { scale: 1, rotateDeg: [0, 0, 0] }
/** Held at its end at −x, pressed down on its end at +x. */
const pressed: PickedCase = {
  id: 'a',
  name: 'Pressed',
  holds: [{ face: { at: [-20, 0, 3], withinDeg: 20 }, slides: false }],
  loads: [{ face: { at: [20, 0, 3], withinDeg: 20 }, action: 'force', amount: 20, along: [0, 0, -1] }],
}
const purpose = (...cases: PickedCase[]): Purpose => ({ ...noPurpose, cases })
let kernel: Awaited<typeof testKernel>
beforeAll(async () => {
  kernel = await testKernel
})
function solved(of: Purpose, placement = asModelled, own: Part = part): SolvedPurpose {
  const setup = setupOf()
  const choice = { kernel }
  const laid = layDown(own, placement, setup, {}, choice)
  const prediction = predict(own, placement, setup, {}, choice)
  return runToEnd(solvedForPurpose({ part: own, placement, laid, prediction, setup }, of)).solved
}

describe('a case that is picked face by face', () => {
  it('acts on the faces that it names, the way that it says, however the part lies', () => {
    for (const placement of [asModelled, { scale: 2, rotateDeg: [90, 0, 30] } as Placement]) {
      const { holds, loads } = drawnCase(pressed, part, place(part.mesh, placement), placement)
      // Both ends, as far from each other as the part is long.
      const off = [0, 1, 2].map((k) => loads[0]!.middle[k]! - holds[0]!.middle[k]!)
      expect(Math.hypot(...off)).toBeCloseTo(40 * placement.scale, 4)
      expect(ownDirection(loads[0]!.way, placement).map((one) => Math.round(1e6 * one) / 1e6 + 0)).toEqual([0, 0, -1])
      // A point of the part as it lies leads back to the same face.
      const at = faceOf(part, place(part.mesh, placement), loads[0]!.middle)
      expect(at[0]).toBeCloseTo(20, 6)
    }
  })

  it('of a mass, a moment and a pressure comes to newtons, newton millimetres and megapascals', () => {
    const of = (load: Partial<PickedCase['loads'][number]>) =>
      caseOf({ ...pressed, loads: [{ ...pressed.loads[0]!, ...load }] }, part, place(part.mesh, asModelled), asModelled, 1.24).loads[0][0]!
    expect(of({ action: 'mass', amount: 2 }).force![2]).toBeCloseTo(-19.6133, 4)
    expect(of({ action: 'moment', amount: 1.5 }).moment![2]).toBeCloseTo(-1500, 6)
    expect(of({ action: 'pressure', amount: 0.3 })).toMatchObject({ pressure: 0.3 })
    // Into the face, where no way is said.
    const { along: _, ...into } = pressed.loads[0]!
    expect(caseOf({ ...pressed, loads: [into] }, part, place(part.mesh, asModelled), asModelled, 1.24).loads[0][0]!.force![0]).toBeCloseTo(
      -20,
      6,
    )
  })

  it('is solved: the worst of several is told by its name, and the weaker plane is the flatter one', () => {
    const aside: PickedCase = { ...pressed, id: 'b', name: 'Aside', loads: [{ ...pressed.loads[0]!, along: [0, 1, 0] }] }
    const both = solved(purpose(aside, pressed))
    expect(both.name).toBe('Pressed')
    expect(both.failureN).toBeCloseTo(20 * both.factor, 6)
    expect(both.of).toBe(solvedKey(purpose(aside, pressed)))
    expect(solved(purpose(aside)).failureN).toBeGreaterThan(both.failureN)
  })

  it('may be held and loaded at whole ends, which stay ends of the part however it lies', () => {
    const ends: PickedCase = {
      ...pressed,
      holds: [{ face: { outwards: [-1, 0, 0], share: 0.1 }, slides: false }],
      loads: [{ face: { outwards: [1, 0, 0], share: 0.1 }, action: 'force', amount: 20, along: [0, 0, -1] }],
    }
    const flat = solved(purpose(ends))
    // As the load along the axis has it, of the weaker of two directions.
    const along = solved({ ...noPurpose, load: { ...noPurpose.load, kind: 'bend', axis: 'x' } })
    expect(Math.abs(flat.failureN / along.failureN - 1)).toBeLessThan(0.1)
    const { holds } = drawnCase(ends, part, place(part.mesh, { scale: 1, rotateDeg: [0, 0, 90] }), { scale: 1, rotateDeg: [0, 0, 90] })
    expect(holds[0]!.middle[1]).toBeCloseTo(-20, 6)
    expect(holds[0]!.way[1]).toBeCloseTo(1, 6)
  })

  it('may be held and loaded in a box that goes along with the part', () => {
    const boxed: PickedCase = {
      ...pressed,
      holds: [{ face: { middle: [-18, 0, 3], sides: [4, 20, 20] }, slides: false }],
      loads: [{ face: { middle: [18, 0, 3], sides: [4, 20, 20] }, action: 'force', amount: 20, along: [0, 0, -1] }],
    }
    const ends: PickedCase = {
      ...pressed,
      holds: [{ face: { outwards: [-1, 0, 0], share: 0.1 }, slides: false }],
      loads: [{ face: { outwards: [1, 0, 0], share: 0.1 }, action: 'force', amount: 20, along: [0, 0, -1] }],
    }
    const [inBox, atEnds] = [boxed, ends].map((one) => solved(purpose(one)))
    expect(inBox!.failureN / atEnds!.failureN).toBeCloseTo(1, 6)
    const turned: Placement = { scale: 1, rotateDeg: [0, 0, 90] }
    expect(Math.abs(solved(purpose(boxed), turned).failureN / inBox!.failureN - 1)).toBeLessThan(0.05)
    const { holds } = drawnCase(boxed, part, place(part.mesh, { ...turned, scale: 2 }), { ...turned, scale: 2 })
    expect(holds[0]!.middle.map((mm) => Math.round(mm) + 0)).toEqual([0, -36, 6])
    expect(() => solved(purpose({ ...boxed, loads: [{ ...boxed.loads[0]!, action: 'pressure' }] }))).toThrow(/acts on a box/)
  })

  it('finds a point of the part as it lies again in its own coordinates', () => {
    const placement: Placement = { scale: 1.5, rotateDeg: [20, 40, 70] }
    const placed = place(part.mesh, placement)
    const corner = 5
    const own = ownPoint(part, placed, [...placed.positions.subarray(3 * corner, 3 * corner + 3)] as never, placement)
    for (let k = 0; k < 3; k++) expect(own[k]).toBeCloseTo(part.mesh.positions[3 * corner + k]!, 9)
  })

  it('of its own weight alone is whole, and fails under as many times gravity as it bears newtons a newton', () => {
    const heavy: PickedCase = { ...pressed, loads: [], weight: { times: 1, along: [0, 0, -1] } }
    const found = solved(purpose(heavy))
    expect(found.of).not.toBe(solvedKey(noPurpose))
    const grams = (40 * 8 * 6 * 1.24) / 1000
    // Sparse within, so lighter than solid.
    expect(found.failureN / found.factor).toBeLessThan((grams / 1000) * 9.81)
    expect(found.failureN / found.factor).toBeGreaterThan(0.4 * (grams / 1000) * 9.81)
    expect(solved(purpose({ ...heavy, weight: { times: 50, along: [0, 0, -1] } })).factor * 50).toBeCloseTo(found.factor, 3)
  })

  it('that is not picked to its end says nothing: the load along the axis is solved', () => {
    const begun = { ...pressed, loads: [] }
    expect(solvedKey(purpose(begun))).toBe(solvedKey(noPurpose))
    expect(notSolved({ ...purpose(begun), load: { ...noPurpose.load, axis: 'free' } })).toMatch(/point at the faces/)
    expect(notSolved({ ...purpose(pressed), load: { ...noPurpose.load, axis: 'free' } })).toBeUndefined()
  })

  it('is refused in a sentence where a face that slides faces no axis', () => {
    const sliding = { ...pressed, holds: [{ ...pressed.holds[0]!, slides: true }] }
    const turned: Placement = { scale: 1, rotateDeg: [0, 0, 45] }
    expect(() => caseOf(sliding, part, place(part.mesh, turned), turned, 1.24)).toThrow(/faces none of X, Y and Z/)
    expect(caseOf(sliding, part, place(part.mesh, asModelled), asModelled, 1.24).holds[0]!.along).toEqual([true, false, false])
    expect(() => caseOf({ ...pressed, holds: [] }, part, part.mesh, asModelled, 1.24)).toThrow(/not held anywhere/)
  })

  it('along whichever axis is weakest leaves out one that it is too short for, and is refused where it is so for all', () => {
    const flat = partOf('flat', blockMesh(24, 18, 5))
    const weakest = solved(noPurpose, asModelled, flat)
    expect(weakest.axis).toMatch(/^[xy]$/)
    expect(weakest.failureN).toBeGreaterThan(0)
    expect(() => solved(noPurpose, asModelled, partOf('tiny', blockMesh(5, 5, 5)))).toThrow(/beside where it is held or loaded/)
  })

  it('bears about the same however the part is turned about the upright axis', () => {
    const [plain, turned] = [0, 30].map((deg) => solved(purpose(pressed), { scale: 1, rotateDeg: [0, 0, deg] }))
    expect(Math.abs(turned!.failureN / plain!.failureN - 1)).toBeLessThan(0.12)
    expect(Math.abs(turned!.stiffnessNmm / plain!.stiffnessNmm - 1)).toBeLessThan(0.12)
  })
})
