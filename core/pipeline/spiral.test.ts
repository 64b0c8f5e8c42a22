import { demoParts } from '@sable/demo/scenario'
import { describe, expect, it } from 'vitest'
import { figures } from '../figures/figures'
import type { Mesh } from '../mesh/mesh'
import { asModelled } from '../mesh/place'
import { noPurpose } from '../physics/strength/purpose'
import type { SettingValues } from '../profile/settings'
import { vesselFigures } from '../regions/vesselFigures'
import type { Setup } from '../setup/resolve'
import { starterMaterials, starterNozzles, starterPrinters } from '../shelf/starter'
import { testKernel } from '../testing/kernel'
import { layOut } from '../testing/layOut'
import { setupOf } from '../testing/setups'
import { blockMesh, joined, meshOf, moved, partOf, solids } from '../testing/solids'
import { runToEnd } from '../units/steps'
import { layDown } from './layDown'
import { type Prediction, predict } from './predict'
import { solvedForPurpose } from './solvedWork'

const pot = async (height = 24): Promise<Mesh> => meshOf((await solids).Manifold.cylinder(height, 20, 20, 96))
const spiral: SettingValues = { spiralWall: 'on', bottomLayers: 3 }
async function foretold(mesh: Mesh, values: SettingValues, setup: Setup = setupOf()): Promise<Prediction> {
  return predict(partOf('vessel', mesh), asModelled, setup, values, { kernel: await testKernel })
}

describe('a spiral wall, foretold', () => {
  it.each(starterPrinters.filter(({ kinematics }) => kinematics !== 'tiltedBelt'))('on $name has every figure', async (printer) => {
    const nozzle = starterNozzles.find(({ key }) => key === 'bore-0.4')!
    const material = starterMaterials.find(({ key }) => key === 'pla')!
    const p = await foretold(await pot(), spiral, { printer, nozzle, material })
    for (const { id, value } of figures) expect(Number.isFinite(value(p, noPurpose)), id).toBe(true)
    expect(p.timeByFeatureS.infill).toBe(0)
    expect(p.timeByFeatureS.innerWall).toBeGreaterThanOrEqual(0)
  })

  it('takes far less time and plastic than walls and infill, and lays as much as its wall and bottom are', async () => {
    const mesh = await pot()
    const [one, full] = [await foretold(mesh, { ...spiral, lineWidth: 0.8 }), await foretold(mesh, { lineWidth: 0.8 })]
    expect(one.timeS).toBeLessThan(0.6 * full.timeS)
    // Bottom of 0.6 mm, a wall of 0.8 × 23.4 mm round a circle of 39.2 mm across.
    const volume = Math.PI * 400 * 0.6 + Math.PI * 39.2 * 0.8 * 23.4
    const laid = (one.filament.massG / setupOf().material.density) * 1000
    expect(laid / volume).toBeGreaterThan(0.95)
    expect(laid / volume).toBeLessThan(1.06)
  })

  it('has a smoother face than the same walls with their seams, and bears less the thinner it is', async () => {
    const mesh = await pot(14)
    const plain = await foretold(mesh, { wallCount: 1, infillDensity: 0, topLayers: 0, bottomLayers: 3 })
    const one = await foretold(mesh, spiral)
    expect(one.seamMm).toBeLessThan(plain.seamMm / 20)
    const crushed = { ...noPurpose, load: { ...noPurpose.load, kind: 'crush' as const, axis: 'z' as const } }
    const bears = async (lineWidth: number): Promise<number> => {
      const part = partOf('vessel', mesh)
      const options = { kernel: await testKernel }
      const values = { ...spiral, lineWidth, bottomLayers: 2 }
      const laid = layDown(part, asModelled, setupOf(), values, options)
      const prediction = predict(part, asModelled, setupOf(), values, options)
      return runToEnd(solvedForPurpose({ part, placement: asModelled, laid, prediction, setup: setupOf() }, crushed)).solved.failureN
    }
    expect(await bears(0.8)).toBeGreaterThan(1.4 * (await bears(0.4)))
  })

  it('is knocked by no travel, for there is none: lifting changes nothing of its sway', async () => {
    const rod = blockMesh(6, 6, 50)
    const push = async (values: SettingValues): Promise<number> => (await foretold(rod, values)).sway.worst.forceN
    expect(await push({ ...spiral, lift: 'never' })).toBe(await push({ ...spiral, lift: 'always' }))
    expect(await push({ lift: 'never' })).toBeGreaterThan(1.2 * (await push({ lift: 'always' })))
  })

  it('of the demo’s finial is read by its checks, or refused with where and why', async () => {
    for (const { key, make } of demoParts) {
      const outcome = await foretold(make(), { ...spiral, supports: 'off' }).then(
        (p) => p.checks.map(({ id }) => id),
        (error: Error) => error.message,
      )
      if (typeof outcome === 'string') expect(outcome, key).toMatch(/no vessel for a spiral wall: at z [\d.]+ mm/)
    }
  })

  it('is refused on a tilted belt and for copies that are printed together', async () => {
    const belt = starterPrinters.find(({ kinematics }) => kinematics === 'tiltedBelt')!
    await expect(foretold(await pot(), spiral, { ...setupOf(), printer: belt })).rejects.toThrow(/tilted belt/)
    await expect(foretold(await pot(8), { ...spiral, copies: 2 })).rejects.toThrow(/one line/)
    const apart = await foretold(await pot(8), { ...spiral, copies: 2, copyOrder: 'oneAtATime', copyGap: 40 })
    const alone = await foretold(await pot(8), spiral)
    expect(apart.filament.massG / alone.filament.massG).toBeCloseTo(2, 1)
  })
})

describe('a vessel', () => {
  const of = async (mesh: Mesh) => {
    const { layers, settings } = await layOut(mesh, { bottomLayers: 3 })
    return vesselFigures(layers, settings)
  }

  it('is one body all the way up; hollow, its wall is as thick as it was modelled', async () => {
    const { Manifold } = await solids
    expect(await of(await pot())).toMatchObject({ isVessel: true, open: { areaMm2: 0 } })
    const cup = meshOf(Manifold.cylinder(20, 15, 15, 96).subtract(Manifold.cylinder(20, 13.8, 13.8, 96).translate([0, 0, 0.6])))
    const { isVessel, wallMm } = await of(cup)
    expect(isVessel).toBe(true)
    expect(wallMm).toBeCloseTo(1.2, 1)
    const towers = joined(blockMesh(20, 20, 2), moved(blockMesh(6, 20, 8), -7, 0, 2), moved(blockMesh(6, 20, 8), 7, 0, 2))
    expect((await of(towers)).isVessel).toBe(false)
  })

  it('with a shoulder has a face that stays open, and with a slope leans in', async () => {
    const { Manifold } = await solids
    const shoulder = await of(joined(blockMesh(30, 30, 10), moved(blockMesh(20, 20, 10), 0, 0, 10)))
    expect(shoulder.open.areaMm2).toBeCloseTo(900 - 400, 0)
    expect(shoulder.open.atZMm).toBeCloseTo(10, 6)
    // 10 mm in over 20 mm: half a layer a turn.
    const cone = await of(meshOf(Manifold.cylinder(20, 20, 10, 160)))
    expect(cone.open.areaMm2).toBe(0)
    expect(cone.leansIn.mm).toBeCloseTo(0.1, 1)
  })
})
