import { describe, expect, it } from 'vitest'
import { medians } from '../../constants/constants'
import type { Mesh } from '../../mesh/mesh'
import { place } from '../../mesh/place'
import type { SettingValues } from '../../profile/settings'
import { layOut } from '../../testing/layOut'
import { timeOf } from '../../testing/paths'
import { settingsOf, setupOf } from '../../testing/setups'
import { blockMesh, joined, moved } from '../../testing/solids'
import { laidVolume } from '../../toolpath/laidVolume'
import { code, ToolpathBuilder } from '../../toolpath/toolpath'
import { usualGrip } from './grip'
import { infillModulusInPlane, infillModulusUpright } from './infillModulus'
import { findObliqueSections, obliqueFigures, offAxisStrength } from './oblique'
import type { LoadKind } from './sectionLoads'
import { findSections, type Sections } from './sections'
import { figuresAlong, type LoadFigure, sectionsByAxis, strengthFigures } from './strengthFigures'

const shear = medians.strength.shear
const strength = { inLayer: 50, modulus: 3000, bondFactor: 0.6, basis: 'assumed' as const }
const bulk = { material: { strength }, shear }
/** Loads along an axis of a material of 50 MPa. */
const loadsOf = (sections: Sections, of: Partial<typeof strength> = {}): Record<LoadKind, LoadFigure> => {
  const own = { ...strength, ...of }
  return figuresAlong(sections, { strengthAt: () => own.inLayer, inLayer: own.inLayer, shear }, { material: { strength: own } }, usualGrip)
}

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
      out.layTo(20, y, code.topBottom, 0.08, 0.4)
    }
    const bar = findSections(out.finish(), 'x', settingsOf())
    out.moveTo(0, 30)
    out.layTo(0.1, 30, code.topBottom, 0.08, 0.4)
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
    const { pull, bend } = loadsOf(x)
    expect(pull.loadN / (50 * 100)).toBeCloseTo(1, 1)
    // Held over the first tenth, loaded at nine tenths: the arm is 0.8 of the length.
    expect(bend.loadN / ((50 * (10 ** 3 / 6)) / 80)).toBeCloseTo(1, 1)
    expect(bend.weakestAtMm).toBeLessThan(-38)
  })

  it('held at the other end are those of the part turned round', async () => {
    const wedge = joined(moved(blockMesh(30, 14, 6), -15, 0, 0), moved(blockMesh(30, 7, 6), 15, 0, 0))
    const strengths = async (mesh: Mesh) => {
      const { path, settings } = await layOut(mesh, { infillDensity: 100 })
      return strengthFigures(sectionsByAxis(path, settings), { material: setupOf().material, shear })
    }
    const own = await strengths(wedge)
    const turned = await strengths(place(wedge, { scale: 1, rotateDeg: [0, 0, 180] }))
    expect(own.bendHighX.loadN / turned.bendX.loadN).toBeCloseTo(1, 1)
    expect(own.bendX.loadN).toBeGreaterThan(1.2 * own.bendHighX.loadN)
    expect(own.bendHighX.weakestAtMm).toBeGreaterThan(20)
  })

  it('on three points are 4·σ·W/L, and stiff by 48·E·I/L³ (any handbook)', async () => {
    const { x } = await sectionsOf(blockMesh(100, 10, 10), { infillDensity: 100 })
    const [span, W, I] = [80, 10 ** 3 / 6, 10 ** 4 / 12]
    const { threePoint, bend } = loadsOf(x)
    expect(threePoint.loadN / ((4 * 50 * W) / span)).toBeCloseTo(1, 1)
    expect(Math.abs(threePoint.weakestAtMm)).toBeLessThan(1)
    expect(threePoint.stiffnessNmm / ((48 * 3000 * I) / span ** 3)).toBeCloseTo(1, 1)
    expect(bend.stiffnessNmm / ((3 * 3000 * I) / span ** 3)).toBeCloseTo(1, 1)
  })

  it('of a solid block are as stiff as its material within 2 %: E·A/L', async () => {
    const { path, settings } = await sectionsOf(blockMesh(50, 20, 20), { infillDensity: 100 })
    const { crushX } = strengthFigures(sectionsByAxis(path, settings), bulk)
    expect(Math.abs(crushX.stiffnessNmm / ((3000 * 400) / 40) - 1)).toBeLessThan(0.02)
  })

  it('pressed together crush when stout, and buckle at π²·E·I/L² when slender (Euler)', async () => {
    const { x: stout } = await sectionsOf(blockMesh(30, 20, 20), { infillDensity: 100 })
    expect(loadsOf(stout).crush).toMatchObject({ by: 'strength' })
    expect(loadsOf(stout).crush.loadN / (50 * 400)).toBeCloseTo(1, 1)
    const { x: slender } = await sectionsOf(blockMesh(150, 4, 4), { infillDensity: 100 })
    const { by, loadN } = loadsOf(slender).crush
    expect(by).toBe('buckling')
    expect(loadN / ((Math.PI ** 2 * 3000 * (4 ** 4 / 12)) / 120 ** 2)).toBeCloseTo(1, 1)
  })

  it('pay more for walls than for infill, and top-propping infill adds none (CP-K1, CP-K3, common practice)', async () => {
    const bar = blockMesh(80, 14, 10)
    const of = async (values: SettingValues) => {
      const laid = await layOut(bar, { wallCount: 2, infillDensity: 15, topLayers: 3, bottomLayers: 3, ...values })
      const { bendX } = strengthFigures(sectionsByAxis(laid.path, laid.settings), { material: setupOf().material, shear })
      return { load: bendX.loadN, mm3: laidVolume(laid.path).total, time: timeOf(laid) }
    }
    const base = await of({})
    const wall = await of({ wallCount: 3 })
    const denser = await of({ infillDensity: 25 })
    const gain = (more: typeof base) => (more.load - base.load) / (more.mm3 - base.mm3)
    expect(gain(wall)).toBeGreaterThan(gain(denser))
    const grid = await of({ infillPattern: 'grid' })
    const propping = await of({ infillPattern: 'topPropping' })
    const none = await of({ infillDensity: 0 })
    expect(propping.mm3).toBeLessThan(grid.mm3)
    expect(propping.load / none.load).toBeLessThan(1.03)
  })

  it('across the layers are lower by the bond factor', async () => {
    const { path, settings } = await sectionsOf(blockMesh(20, 20, 20), { infillDensity: 100 })
    const { pullX, pullZ } = strengthFigures(sectionsByAxis(path, settings), bulk)
    expect(pullZ.loadN / pullX.loadN).toBeCloseTo(0.6, 1)
    expect(pullZ.basis).toBe('assumed')
  })

  it('never fall when a wall is added', async () => {
    const load = async (wallCount: number) =>
      loadsOf((await sectionsOf(blockMesh(60, 12, 8), { wallCount, infillDensity: 15 })).x).bend.loadN
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

describe('loads in any direction', () => {
  const alongX = { azimuthDeg: 0, elevationDeg: 0 }
  const alongY = { azimuthDeg: 90, elevationDeg: 0 }
  const alongZ = { azimuthDeg: 0, elevationDeg: 90 }
  it('are those of the axis when they lie along one', async () => {
    const wedge = joined(moved(blockMesh(30, 14.3, 30), -15, 0, 0), moved(blockMesh(30, 7.3, 30), 15, 0, 0))
    const { path, settings } = await layOut(wedge, { infillDensity: 100 })
    const bonds = new Float64Array(path.layerStart.length - 1).fill(0.6)
    const axes = strengthFigures(sectionsByAxis(path, settings), { ...bulk, bonds })
    const along = (direction: typeof alongX) =>
      obliqueFigures(findObliqueSections(path, direction, settings), direction, { ...bulk, bonds })
    const pairs = [
      ['X', along(alongX)],
      ['Y', along(alongY)],
    ] as const
    for (const [name, own] of pairs) {
      for (const kind of ['pull', 'bend', 'bendHigh', 'crush'] as const) {
        expect(own[kind].unfit).toBe(axes[`${kind}${name}`].unfit)
        if (!own[kind].unfit) expect(Math.abs(own[kind].loadN / axes[`${kind}${name}`].loadN - 1)).toBeLessThan(0.07)
      }
    }
    // Upright, slabs of a few layers stand for each layer of its own.
    const up = along(alongZ)
    expect(Math.abs(up.pull.loadN / axes.pullZ.loadN - 1)).toBeLessThan(0.07)
    expect(Math.abs(up.bend.loadN / axes.bendZ.loadN - 1)).toBeLessThan(0.1)
  })

  it('keep the laid volume and cut a solid block at 45° to its own slanted section', async () => {
    const { path, settings } = await layOut(blockMesh(30, 30, 30), { infillDensity: 100 })
    const cut = findObliqueSections(path, { azimuthDeg: 45, elevationDeg: 0 }, settings)
    const step = cut.at[1]! - cut.at[0]!
    const volume = laidVolume(path).total
    expect(cut.area.reduce((sum, area) => sum + area * step, 0) / volume).toBeCloseTo(1, 6)
    // Through the middle along a diagonal the section is the other diagonal times the height.
    const middle = Math.floor(cut.at.length / 2)
    expect(cut.area[middle]! / (30 * Math.SQRT2 * 30)).toBeCloseTo(1, 1)
    expect(cut.reach[0][middle]! / (15 * Math.SQRT2)).toBeCloseTo(1, 1)
  })

  it('meet layers at an angle: Tsai–Hill (Jones 1999, from memory)', () => {
    for (const angle of [0, 0.3, 0.8, Math.PI / 2]) expect(offAxisStrength(angle, 50, 1, shear)).toBeCloseTo(50, 9)
    expect(offAxisStrength(0, 50, 0.5, shear)).toBeCloseTo(50, 9)
    expect(offAxisStrength(Math.PI / 2, 50, 0.5, shear)).toBeCloseTo(25, 9)
    // At 45° the formula comes down to 2/√(1/S² + 1/Z²).
    const [Z, S] = [25, 25 / Math.sqrt(3)]
    expect(offAxisStrength(Math.PI / 4, 50, 0.5, shear)).toBeCloseTo(2 / Math.sqrt(1 / S ** 2 + 1 / Z ** 2), 9)
    expect(offAxisStrength(Math.PI / 2, 50, 0, shear)).toBe(0)
  })

  it('find the worst bond that a section meets, and only where layers are pulled apart', async () => {
    const { path, settings } = await layOut(blockMesh(20, 20, 20), { infillDensity: 100 })
    const sound = new Float64Array(path.layerStart.length - 1).fill(0.8)
    const flawed = sound.map((bond, layer) => (layer === 50 ? 0.2 : bond))
    const pull = (elevationDeg: number, bonds: Float64Array) => {
      const direction = { azimuthDeg: 0, elevationDeg }
      return obliqueFigures(findObliqueSections(path, direction, settings), direction, { ...bulk, bonds }).pull.loadN
    }
    expect(pull(0, flawed)).toBe(pull(0, sound))
    expect(pull(90, flawed) / pull(90, sound)).toBeCloseTo(0.25, 2)
    expect(pull(60, flawed)).toBeLessThan(pull(60, sound))
  })
})
