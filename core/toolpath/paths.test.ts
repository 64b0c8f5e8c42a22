import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { ContoursBuilder, groupArea } from '../geometry/contours'
import { fillLines } from '../geometry/fillLines'
import type { Mesh } from '../mesh/mesh'
import { chainLines } from '../patterns/chainLines'
import type { SettingValues } from '../profile/settings'
import { layerSvg } from '../testing/layerSvg'
import { layOut } from '../testing/layOut'
import { blockMesh, joined, meshOf, moved, solids } from '../testing/solids'
import { laidVolume } from './laidVolume'
import { code, moveCount, type Toolpath } from './toolpath'

const pathsOf = async (mesh: Mesh, values: SettingValues): Promise<Toolpath> => (await layOut(mesh, values)).path

const count = (path: Toolpath, feature: number): number => path.feature.filter((f) => f === feature).length

const radial = fc.array(fc.double({ min: 3, max: 12, noNaN: true }), { minLength: 3, maxLength: 24 })

function starContours(radii: readonly number[]) {
  const builder = new ContoursBuilder()
  builder.addPolygon(
    radii.flatMap((r, i) => [r * Math.cos((2 * Math.PI * i) / radii.length), r * Math.sin((2 * Math.PI * i) / radii.length)]),
  )
  builder.endGroup()
  return builder.finish()
}

describe('filling with lines', () => {
  it('lays length × spacing equal to the area, for any polygon and angle', () => {
    fc.assert(
      fc.property(radial, fc.double({ min: 0, max: Math.PI, noNaN: true }), (radii, angle) => {
        const contours = starContours(radii)
        const lines = fillLines(contours, 0, 0.05, angle, 0)
        let length = 0
        for (let i = 0; i < lines.count; i++) length += lines.end[i]! - lines.start[i]!
        expect(length * 0.05).toBeCloseTo(groupArea(contours, 0), 0)
      }),
      { seed: 1 },
    )
  })

  it('puts every line into exactly one chain, each line beside the one before', () => {
    fc.assert(
      fc.property(radial, (radii) => {
        const lines = fillLines(starContours(radii), 0, 0.4, 0.7, 0.2)
        const chains = chainLines(lines)
        expect(chains.flat().sort((a, b) => a - b)).toEqual([...Array(lines.count).keys()])
        for (const chain of chains) {
          for (let i = 1; i < chain.length; i++) {
            expect(lines.row[chain[i]!]! - lines.row[chain[i - 1]!]!).toBe(1)
            expect(lines.start[chain[i]!]!).toBeLessThanOrEqual(lines.end[chain[i - 1]!]!)
            expect(lines.end[chain[i]!]!).toBeGreaterThanOrEqual(lines.start[chain[i - 1]!]!)
          }
        }
      }),
      { seed: 2 },
    )
  })
})

describe('laying paths', () => {
  it('fills a 20 mm cube at 100 % with its own volume within 3 %, and far less at 0 %', async () => {
    const { total: full } = laidVolume(
      await pathsOf(blockMesh(20, 20, 20), { infillDensity: 100, wallCount: 3, topLayers: 4, bottomLayers: 4 }),
    )
    expect(Math.abs(full - 8000) / 8000).toBeLessThan(0.03)
    const { total: hollow } = laidVolume(
      await pathsOf(blockMesh(20, 20, 20), { infillDensity: 0, wallCount: 3, topLayers: 4, bottomLayers: 4 }),
    )
    expect(hollow).toBeLessThan(0.4 * 8000)
  })

  it.each(['lines', 'grid'] as const)('lays the share of solid that is asked, as %s, within 5 %', async (infillPattern) => {
    for (const infillDensity of [10, 25, 50]) {
      const path = await pathsOf(blockMesh(60, 60, 10), { infillDensity, infillPattern, wallCount: 1, topLayers: 0, bottomLayers: 0 })
      let infill = 0
      for (let m = 0; m < moveCount(path); m++) {
        if (path.feature[m] === code.infill) infill += path.area[m]! * Math.hypot(path.x[m + 1]! - path.x[m]!, path.y[m + 1]! - path.y[m]!)
      }
      expect(Math.abs(infill / (59.2 * 59.2 * 10) / (infillDensity / 100) - 1)).toBeLessThan(0.05)
    }
  })

  it('keeps every laid line inside the part', async () => {
    const { Manifold } = await solids
    const body = Manifold.cylinder(6, 12, 7, 48).subtract(Manifold.cube([6, 30, 20], true))
    const path = await pathsOf(meshOf(body), { infillDensity: 30 })
    for (let m = 0; m < moveCount(path); m++) {
      if (path.area[m] === 0) continue
      const z = path.z[m]! - 0.1
      const reach = 12 - (5 * z) / 6 + 0.01
      for (const i of [m, m + 1]) {
        expect(Math.hypot(path.x[i]!, path.y[i]!)).toBeLessThan(reach)
        expect(Math.abs(path.x[i]!)).toBeGreaterThan(3)
      }
    }
  })

  it('is one unbroken chain that only moves up between layers', async () => {
    const { path, layers } = await layOut(blockMesh(12, 12, 4))
    expect(path.layerStart.length - 1).toBe(layers.top.length)
    for (let m = 0; m < moveCount(path); m++) {
      const rises = path.z[m + 1] !== path.z[m]
      expect(rises).toBe(path.layerStart.subarray(0, -1).includes(m))
    }
  })

  it('lays the outer wall after the walls inside it', async () => {
    const path = await pathsOf(blockMesh(12, 12, 1), { wallCount: 3 })
    const order = [...path.feature.subarray(path.layerStart[2], path.layerStart[3])]
    expect(order.lastIndexOf(code.innerWall)).toBeLessThan(order.indexOf(code.outerWall))
    expect(count(path, code.innerWall)).toBe(2 * count(path, code.outerWall))
  })

  it('retracts between two bodies but not within one, and not on ways shorter than the threshold', async () => {
    const one = await pathsOf(blockMesh(12, 12, 2), { infillDensity: 0 })
    expect(count(one, code.retract)).toBe(0)
    const two = joined(moved(blockMesh(8, 8, 2), -8, 0, 0), moved(blockMesh(8, 8, 2), 8, 0, 0))
    const apart = await pathsOf(two, { infillDensity: 0 })
    expect(count(apart, code.retract)).toBeGreaterThanOrEqual(10)
    expect(count(apart, code.pushBack)).toBe(count(apart, code.retract))
    expect(count(await pathsOf(two, { infillDensity: 0, retractMinTravel: 100 }), code.retract)).toBe(0)
  })

  it('finishes one body of a layer before it goes to the next', async () => {
    const two = joined(moved(blockMesh(8, 8, 1), -8, 0, 0), moved(blockMesh(8, 8, 1), 8, 0, 0))
    const path = await pathsOf(two, {})
    for (let layer = 0; layer < path.layerStart.length - 1; layer++) {
      let changes = 0
      let side = 0
      for (let m = path.layerStart[layer]!; m < path.layerStart[layer + 1]!; m++) {
        if (path.area[m] === 0) continue
        const now = Math.sign(path.x[m + 1]!)
        if (side !== 0 && now !== side) changes++
        side = now
      }
      expect(changes).toBe(1)
    }
  })
})

describe('the picture of a layer', () => {
  it('shows its outline, what it was divided into, and every line that is laid', async () => {
    const laid = await layOut(blockMesh(20, 12, 3), { infillDensity: 20 })
    const svg = layerSvg(laid, 6)
    const [from, to] = [laid.path.layerStart[6]!, laid.path.layerStart[7]!]
    expect(svg.match(/<line /g)).toHaveLength(to - from)
    expect(svg).toMatch(/^<svg [^>]*viewBox="-12 -8 24 16"/)
    expect(svg).not.toMatch(/NaN|undefined|Infinity/)
  })
})
