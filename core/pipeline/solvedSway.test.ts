import { beforeAll, describe, expect, it } from 'vitest'
import type { Mesh } from '../mesh/mesh'
import { asModelled } from '../mesh/place'
import type { SettingValues } from '../profile/settings'
import { testKernel } from '../testing/kernel'
import { setupOf } from '../testing/setups'
import { blockMesh, meshOf, partOf, solids } from '../testing/solids'
import { runToEnd } from '../units/steps'
import { layDown } from './layDown'
import { predict } from './predict'
import { type SolvedSway, solvedSwayWork } from './solvedSway'

let kernel: Awaited<typeof testKernel>
let Manifold: Awaited<typeof solids>['Manifold']
beforeAll(async () => {
  kernel = await testKernel
  ;({ Manifold } = await solids)
})
const solid: SettingValues = { infillDensity: 100, supports: 'off' }
function swayOf(mesh: Mesh, values: SettingValues): SolvedSway & { readonly beamMm: number; readonly supportMm: number } {
  const part = partOf('standing', mesh)
  const setup = setupOf()
  const laid = layDown(part, asModelled, setup, values, { kernel })
  const prediction = predict(part, asModelled, setup, values, { kernel })
  return {
    ...runToEnd(solvedSwayWork(laid, prediction, setup)),
    beamMm: prediction.sway.mostMm,
    supportMm: prediction.supportSway.mostMm,
  }
}
const { modulus } = setupOf().material.strength
/** Upright a part is less stiff than along its lines: halfway to what lines bear across themselves, seven tenths. */
const UPRIGHT = 0.85

describe('a standing part, solved', () => {
  it('that is a solid post gives way as its beam does, F·L³/3EI (Euler–Bernoulli), and by the stiffness that it has upright', () => {
    const { part, beamMm } = swayOf(blockMesh(6, 6, 80), solid)
    const beam = 80 ** 3 / (3 * modulus * (6 ** 4 / 12))
    expect(part!.bodies).toBe(1)
    expect(part!.atZMm).toBeGreaterThan(70)
    // Lines do not fill a post to its edges.
    expect((part!.mmPerN * UPRIGHT) / beam).toBeGreaterThan(0.9)
    expect((part!.mmPerN * UPRIGHT) / beam).toBeLessThan(1.25)
    expect(part!.mm / beamMm).toBeCloseTo(part!.overBeam, 9)
  })

  it('that is two pins on a plate gives way as one pin does: the nozzle pushes one at a time', () => {
    const pins = Manifold.cube([40, 10, 2], false).add(
      Manifold.compose([Manifold.cube([4, 4, 40], false).translate([3, 3, 2]), Manifold.cube([4, 4, 40], false).translate([33, 3, 2])]),
    )
    const { part, beamMm } = swayOf(meshOf(pins), solid)
    const alone = 40 ** 3 / (3 * modulus * (4 ** 4 / 12))
    expect(part!.bodies).toBe(2)
    expect((part!.mmPerN * UPRIGHT) / alone).toBeGreaterThan(0.9)
    expect((part!.mmPerN * UPRIGHT) / alone).toBeLessThan(1.5)
    // Across both the sections of the two together look far stiffer than either.
    expect(part!.overBeam).toBeGreaterThan(1.8)
    expect(part!.mm).toBeGreaterThan(beamMm)
  })

  it('that leans gives way by what its shaft is, not by how its level cuts are', () => {
    const upright = swayOf(meshOf(Manifold.cube([6, 6, 60], true)), solid).part!
    const leaning = swayOf(
      meshOf(Manifold.cube([6, 6, 72], true).rotate([0, 30, 0]).trimByPlane([0, 0, 1], -28).trimByPlane([0, 0, -1], -28)),
      solid,
    ).part!
    expect(leaning.bodies).toBe(1)
    // About as long a shaft; across its lean it bends as an upright one does.
    expect(leaning.mmPerN / upright.mmPerN).toBeGreaterThan(0.7)
    expect(leaning.mmPerN / upright.mmPerN).toBeLessThan(1.6)
  })

  it('that is hollow sways more than a full one, and one that is steady is not solved', () => {
    const full = swayOf(blockMesh(10, 10, 120), solid).part!
    const sparse = swayOf(blockMesh(10, 10, 120), { infillDensity: 5, wallCount: 1, supports: 'off' }).part!
    expect(sparse.mmPerN).toBeGreaterThan(1.2 * full.mmPerN)
    expect(swayOf(blockMesh(20, 20, 20), solid)).not.toHaveProperty('part')
    expect(swayOf(blockMesh(20, 20, 20), solid)).not.toHaveProperty('support')
  })
})

describe('a support, solved', () => {
  it('gives way about as its beam says where it stands alone, and not at all where there is none', () => {
    // A lid far up on a thick post: what carries it stands free.
    const lid = Manifold.cube([12, 12, 90], false).add(Manifold.cube([20, 6, 4], false).translate([0, 3, 86]))
    const { support, supportMm } = swayOf(meshOf(lid), { supports: 'plain', supportDensity: 15 })
    console.log(supportMm, support)
    expect(support!.atZMm).toBeGreaterThan(40)
    expect(support!.mm / supportMm).toBeCloseTo(support!.overBeam, 9)
    expect(support!.overBeam).toBeGreaterThan(0.2)
    expect(support!.overBeam).toBeLessThan(20)
  })
})
