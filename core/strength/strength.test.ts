import { describe, expect, it } from 'vitest'
import type { Mesh } from '../mesh/mesh'
import type { SettingValues } from '../profile/settings'
import { layOut } from '../testing/layOut'
import { settingsOf } from '../testing/setups'
import { blockMesh } from '../testing/solids'
import { code, ToolpathBuilder } from '../toolpath/toolpath'
import { infillModulusInPlane, infillModulusUpright } from './infillModulus'
import { findSections } from './sections'
import { bendLoad, pullLoad, sectionsByAxis, strengthFigures } from './strengthFigures'

async function sectionsOf(mesh: Mesh, values: SettingValues) {
  const { settings, path } = await layOut(mesh, values)
  return {
    path,
    settings,
    x: findSections(path, 'x', settings),
    y: findSections(path, 'y', settings),
    z: findSections(path, 'z', settings),
  }
}

const middle = (values: Float64Array): number => values[Math.floor(values.length / 2)]!

describe('sections of what is really laid', () => {
  it('of a solid bar are b·h and b·h³/12 (any handbook)', async () => {
    const { x, z } = await sectionsOf(blockMesh(60, 12, 8), { infillDensity: 100 })
    expect(middle(x.area) / (12 * 8)).toBeCloseTo(1, 1)
    expect(middle(x.second[0]) / ((8 * 12 ** 3) / 12)).toBeCloseTo(1, 1)
    expect(middle(x.second[1]) / ((12 * 8 ** 3) / 12)).toBeCloseTo(1, 1)
    expect(middle(x.reach[0])).toBeCloseTo(6, 1)
    expect(middle(z.area) / (60 * 12)).toBeCloseTo(1, 1)
  })

  it('of a hollow box are BH − bh and (B·H³ − b·h³)/12 within 2 % (any handbook)', async () => {
    const hollow = await sectionsOf(blockMesh(80, 20, 12), { infillDensity: 0, wallCount: 3, topLayers: 6, bottomLayers: 6 })
    const [B, H, b, h] = [20, 12, 20 - 2 * 1.2, 12 - 2 * 1.2]
    expect(Math.abs(middle(hollow.x.area) / (B * H - b * h) - 1)).toBeLessThan(0.02)
    expect(Math.abs(middle(hollow.x.second[1]) / ((B * H ** 3 - b * h ** 3) / 12) - 1)).toBeLessThan(0.02)
    expect(Math.abs(middle(hollow.x.second[0]) / ((H * B ** 3 - h * b ** 3) / 12) - 1)).toBeLessThan(0.02)
  })

  it('do not take a speck of another body, which just begins there, for their farthest fibre', async () => {
    const out = new ToolpathBuilder()
    out.startAt(-20, -4, 0.2)
    out.startLayer()
    for (let y = -3.8; y < 4; y += 0.4) {
      out.moveTo(-20, y)
      out.layTo(20, y, code.skin, 0.08, 0.4)
    }
    const bar = findSections(out.finish(), 'x', settingsOf())
    out.moveTo(0, 30)
    out.layTo(0.1, 30, code.skin, 0.08, 0.4)
    const withSpeck = findSections(out.finish(), 'x', settingsOf())
    expect(Math.max(...bar.reach[0])).toBeCloseTo(4, 6)
    for (const reach of withSpeck.reach[0]) expect(Math.abs(reach / 4 - 1)).toBeLessThan(0.06)
  })

  it('keep the laid volume, whatever the axis', async () => {
    const { path, x, y, z } = await sectionsOf(blockMesh(30, 20, 10), { infillDensity: 0 })
    const volume = (s: typeof x, step: number) => s.area.reduce((sum, area) => sum + area * step, 0)
    const along = (s: typeof x) => s.at[1]! - s.at[0]!
    expect(volume(x, along(x))).toBeCloseTo(volume(z, 0.2), 3)
    expect(volume(y, along(y))).toBeCloseTo(volume(z, 0.2), 3)
    expect(path.feature.length).toBeGreaterThan(0)
  })
})

describe('loads', () => {
  it('of a solid bar are σ·A in pull and σ·W/arm as a cantilever (Euler–Bernoulli)', async () => {
    const { x } = await sectionsOf(blockMesh(100, 10, 10), { infillDensity: 100 })
    expect(pullLoad(x, () => 50).loadN / (50 * 100)).toBeCloseTo(1, 1)
    // Held over the first tenth, loaded at nine tenths: the arm is 0.8 of the length.
    expect(bendLoad(x, () => 50).loadN / ((50 * (10 ** 3 / 6)) / 80)).toBeCloseTo(1, 1)
    expect(bendLoad(x, () => 50).weakestAtMm).toBeLessThan(-38)
  })

  it('across the layers are lower by the bond factor', async () => {
    const { path, settings } = await sectionsOf(blockMesh(20, 20, 20), { infillDensity: 100 })
    const strength = { inLayer: 50, modulus: 3000, bondFactor: 0.6, basis: 'assumed' as const }
    const { pullX, pullZ } = strengthFigures(sectionsByAxis(path, settings), { strength })
    expect(pullZ.loadN / pullX.loadN).toBeCloseTo(0.6, 1)
    expect(pullZ.basis).toBe('assumed')
  })

  it('never fall when a wall is added', async () => {
    const load = async (wallCount: number) =>
      bendLoad((await sectionsOf(blockMesh(60, 12, 8), { wallCount, infillDensity: 15 })).x, () => 50).loadN
    const loads = [await load(1), await load(2), await load(3), await load(5)]
    for (let i = 1; i < loads.length; i++) expect(loads[i]!).toBeGreaterThan(loads[i - 1]!)
  })
})

describe('stiffness of infill', () => {
  it('is half the density along the walls of square cells (Gibson & Ashby 1997, from memory)', () => {
    for (const density of [0.05, 0.1, 0.2]) expect(infillModulusInPlane(density, 0, 'grid') / (density / 2)).toBeCloseTo(1, 2)
  })

  it('is the density along the normal of a prism', () => expect(infillModulusUpright(0.2, 'grid')).toBeCloseTo(0.2, 3))

  it('is poor across the cells (CP-K2, common practice), lower for lines that only touch, and solid at full density', () => {
    expect(infillModulusInPlane(0.2, Math.PI / 4, 'grid')).toBeLessThan(0.1 * infillModulusInPlane(0.2, 0, 'grid'))
    expect(infillModulusUpright(0.2, 'lines')).toBeLessThan(infillModulusUpright(0.2, 'grid'))
    for (const angle of [0, 0.4, Math.PI / 4]) expect(infillModulusInPlane(1, angle, 'grid')).toBe(1)
    expect(infillModulusUpright(1, 'lines')).toBe(1)
  })
})
