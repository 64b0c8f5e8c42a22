import { describe, expect, it } from 'vitest'
import { medians } from '../../constants/constants'
import { layOut } from '../../testing/layOut'
import { blockMesh } from '../../testing/solids'
import { amplified, deflections, type LayerSection, layerSections, type Standing, sideForce, swayFigures, swayOf } from './sway'

describe('a standing part under a side force', () => {
  it('has the sections of its solid: b·h and the smaller of b·h³/12 (any handbook)', async () => {
    const { path } = await layOut(blockMesh(12, 8, 10), { infillDensity: 100 })
    const sections = layerSections(path)
    const middle = sections[Math.floor(sections.length / 2)]!
    expect(middle.area / (12 * 8)).toBeCloseTo(1, 1)
    expect(middle.least / ((12 * 8 ** 3) / 12)).toBeCloseTo(1, 1)
  })

  it('finds the smaller principal moment of a part that stands turned', async () => {
    const { Manifold } = await (await import('../../testing/solids')).solids
    const turned = (await import('../../testing/solids')).meshOf(Manifold.cube([20, 4, 4], true).rotate([0, 0, 30]).translate([0, 0, 2]))
    const sections = layerSections((await layOut(turned, { infillDensity: 100 })).path)
    expect(sections[8]!.least / ((20 * 4 ** 3) / 12)).toBeCloseTo(1, 0)
    expect(sections[8]!.least / ((20 * 4 ** 3) / 12)).toBeGreaterThan(0.9)
  })

  it('gives way by F·L³/(3·E·I) at its top (Euler–Bernoulli)', () => {
    const [b, h, length, modulus, force] = [8, 6, 120, 3000, 2]
    const least = (b * h ** 3) / 12
    const sections = Array.from({ length: 600 }, (_, i) => ({ z: (i + 1) * 0.2, thickness: 0.2, area: b * h, least }))
    expect(deflections(sections, modulus, force)[599]! / ((force * length ** 3) / (3 * modulus * least))).toBeCloseTo(1, 6)
  })

  it('gives way by the sum of both parts when it is stepped (by unit load)', () => {
    const [I1, I2, L1, L2, E, F] = [400, 50, 30, 20, 2000, 1]
    const sections = Array.from({ length: 500 }, (_, i) => {
      const z = (i + 1) * 0.1
      return { z, thickness: 0.1, area: 1, least: z <= L1 + 1e-9 ? I1 : I2 }
    })
    const L = L1 + L2
    const expected = (F / E) * ((L ** 3 - L2 ** 3) / (3 * I1) + L2 ** 3 / (3 * I2))
    expect(deflections(sections, E, F)[499]! / expected).toBeCloseTo(1, 4)
  })

  it('steadies as it gets wider, never as it gets taller', () => {
    const top = (height: number, least: number) =>
      deflections(
        Array.from({ length: height * 5 }, (_, i) => ({ z: (i + 1) / 5, thickness: 0.2, area: 1, least })),
        3000,
        0.5,
      ).at(-1)!
    for (const height of [20, 50, 100]) {
      expect(top(height + 5, 100)).toBeGreaterThan(top(height, 100))
      expect(top(height, 200)).toBeLessThan(top(height, 100))
    }
  })
})

describe('what people do about a part that sways (CP-K6, common practice)', () => {
  /** A rod of 4 × 4 mm, drawn as two loops a layer. */
  const rod = (height: number): LayerSection[] =>
    Array.from({ length: height * 5 }, (_, i) => ({ z: (i + 1) / 5, thickness: 0.2, area: 16, least: 4 ** 4 / 12, laid: 28, strokes: 8 }))
  const on: Standing = {
    modulus: 3000,
    density: 1.24,
    lineWidth: 0.4,
    lift: 'never',
    together: 1,
    brim: 0,
    printer: { table: 'ordinary', kinematics: 'crossBelt' },
    acceleration: 2000,
  }
  const of = (change: Partial<Standing> = {}, timeS = 1, margin = 2, height = 120) =>
    swayFigures(
      rod(height),
      swayOf(rod(height), () => ({ timeS, margin }), { ...on, ...change }, medians.sway),
      { ...on, ...change },
      medians.sway,
    )

  it('slower is steadier, and slow enough settles it', () => {
    let before = Infinity
    for (const timeS of [0.3, 0.5, 1, 2, 5, 12]) {
      expect(of({}, timeS).mostMm).toBeLessThan(before)
      before = of({}, timeS).mostMm
    }
    expect(of({}, 1, 2, 60).slowAboveZMm).toBeGreaterThan(0)
    expect(of({}, 20, 2, 60).slowAboveZMm).toBeUndefined()
  })

  it('lift, a steady table, a layer that has set, and a still bed each help', () => {
    const plain = of().mostMm
    expect(of({ lift: 'overPrinted' }).mostMm).toBeLessThan(0.8 * plain)
    expect(of({ printer: { table: 'shaky', kinematics: 'crossBelt' } }).mostMm).toBeGreaterThan(1.2 * plain)
    expect(of({ printer: { table: 'steady', kinematics: 'crossBelt' } }).mostMm).toBeLessThan(0.85 * plain)
    expect(of({}, 1, 0.5).mostMm / plain).toBeCloseTo(2, 6)
    const moving = (acceleration: number) => of({ printer: { table: 'ordinary', kinematics: 'movingBed' }, acceleration }).mostMm
    expect(moving(8000)).toBeGreaterThan(moving(800))
  })

  it('is told that it will not stand where it gives way by a line, and not that it sways by 25 mm', () => {
    const { falls } = of({ brim: 8 }, 0.5, 1, 180)
    expect(falls?.by).toBe('sway')
    expect(falls!.aboveZMm).toBeLessThan(180)
  })

  it('a foot that is too small for the push comes off, and a brim holds it', () => {
    // Stiff, so that it does not sway.
    const stiff = { modulus: 3e6 }
    expect(of(stiff, 0.5).falls?.by).toBe('foot')
    expect(of({ ...stiff, brim: 8 }, 0.5).falls).toBeUndefined()
  })

  it('rocks at its own frequency: 1/(2ζ√(1 − ζ²)) at most, 0.56·√(EI/ρAL⁴) Hz (any handbook)', () => {
    expect(amplified(0, 50, 0.1)).toBe(1)
    expect(amplified(500, 50, 0.1)).toBeCloseTo(1 / (0.2 * Math.sqrt(0.99)), 6)
    expect(amplified(25, 50, 0.1)).toBeCloseTo(1 / Math.hypot(0.75, 0.1), 6)
  })

  it('force follows speed by the power that is assumed', () => {
    expect(sideForce(100, on, medians.sway) / sideForce(50, on, medians.sway)).toBeCloseTo(2 ** medians.sway.pace, 9)
  })
})
