import { describe, expect, it } from 'vitest'
import { layOut } from '../../testing/layOut'
import { blockMesh } from '../../testing/solids'
import { deflections, layerSections } from './sway'

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
