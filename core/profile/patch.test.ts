import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { toBeltFrame } from '../mesh/tiltedBelt'
import { coverageOf } from '../testing/coverage'
import { testKernel } from '../testing/kernel'
import { layOut } from '../testing/layOut'
import { lengthOf, movesOf } from '../testing/paths'
import { blockMesh } from '../testing/solids'
import { code } from '../toolpath/toolpath'
import { cornersOf, isIn, onLevelLayer, onTiltedLayer } from './patch'

const mm = (least: number, most: number) => fc.double({ min: least, max: most, noNaN: true })
const box = fc
  .tuple(mm(-40, 40), mm(-40, 40), mm(1, 60), mm(1, 60), mm(-180, 180))
  .map(([x, y, width, depth, turn]) => ({ minX: x - width / 2, maxX: x + width / 2, minY: y - depth / 2, maxY: y + depth / 2, turn }))

/** How far a point lies inside of a box, mm: turned back about the box's middle; negative outside. */
function depthIn(
  { minX, maxX, minY, maxY, turn }: { minX: number; maxX: number; minY: number; maxY: number; turn: number },
  x: number,
  y: number,
) {
  const [cos, sin] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)]
  const [fromX, fromY] = [x - (minX + maxX) / 2, y - (minY + maxY) / 2]
  const [u, v] = [fromX * cos + fromY * sin, fromY * cos - fromX * sin]
  return Math.min((maxX - minX) / 2 - Math.abs(u), (maxY - minY) / 2 - Math.abs(v))
}

describe('a box on the part', () => {
  it('holds what it holds when it is turned back, on a level bed', () => {
    fc.assert(
      fc.property(box, mm(-60, 60), mm(-60, 60), (own, x, y) => {
        const depth = depthIn(own, x, y)
        fc.pre(Math.abs(depth) > 1e-9)
        const override = { name: 'here', fromZ: 0, box: own, values: {} }
        expect(isIn({ of: 0, override, sides: onLevelLayer(override) }, x, y)).toBe(depth > 0)
      }),
    )
  })

  it('holds the same of the part in the layers of a tilted belt, at every angle', () => {
    fc.assert(
      fc.property(box, mm(20, 70), mm(-60, 60), mm(-60, 60), mm(0, 30), (own, angle, x, y, height) => {
        const override = { name: 'here', fromZ: 5, toZ: 20, box: own, values: {} }
        const depth = Math.min(depthIn(own, x, y), height - 5, 20 - height)
        fc.pre(Math.abs(depth) > 1e-6)
        const { belt } = toBeltFrame(blockMesh(20, 60, 30), angle)
        const [sin, cos] = [Math.sin((angle * Math.PI) / 180), Math.cos((angle * Math.PI) / 180)]
        const n = y * sin + height * cos
        const patch = { of: 0, override, sides: onTiltedLayer(override, n - belt.start / belt.slope, belt) }
        expect(isIn(patch, -x, height * sin - y * cos)).toBe(depth > 0)
      }),
    )
  })

  it('has four corners that span its own width and depth, and none where a belt’s layer misses it', () => {
    fc.assert(
      fc.property(box, (own) => {
        const override = { name: 'here', fromZ: 0, box: own, values: {} }
        const corners = cornersOf({ sides: onLevelLayer(override) })
        let twice = 0
        for (let i = 0; i < corners.length; i += 2) {
          const next = (i + 2) % corners.length
          twice += corners[i]! * corners[next + 1]! - corners[next]! * corners[i + 1]!
        }
        expect(corners).toHaveLength(8)
        expect(twice / 2).toBeCloseTo((own.maxX - own.minX) * (own.maxY - own.minY), 6)
      }),
    )
    const override = { name: 'here', fromZ: 5, toZ: 5.5, box: { minX: 0, maxX: 5, minY: 100, maxY: 105 }, values: {} }
    const { belt } = toBeltFrame(blockMesh(20, 60, 30), 45)
    expect(cornersOf({ sides: onTiltedLayer(override, 3, belt) })).toEqual([])
  })

  it('that is turned has its own density and walls to its slanted rim, and what is laid covers the part', async () => {
    const turned = { minX: -5, maxX: 5, minY: -30, maxY: 30, turn: 30 }
    const values = { topLayers: 0, bottomLayers: 0, infillDensity: 20, infillPattern: 'lines' } as const
    const { path } = await layOut(blockMesh(40, 40, 2), values, [{ name: 'dense', fromZ: 0, box: turned, values: { infillDensity: 80 } }])
    const laid = (isInside: boolean) =>
      movesOf(path, code.infill)
        .filter((m) => depthIn(turned, (path.x[m]! + path.x[m + 1]!) / 2, (path.y[m]! + path.y[m + 1]!) / 2) > 0 === isInside)
        .reduce((sum, m) => sum + lengthOf(path, m), 0)
    // A strip of 10 mm across a square of 38.4 mm, leaning by 30°: 10 · 38.4 / cos 30°.
    const strip = (10 * 38.4) / Math.cos(Math.PI / 6)
    expect(laid(true) / strip / (laid(false) / (38.4 * 38.4 - strip))).toBeCloseTo(4, 0)
    const solid = await layOut(blockMesh(40, 40, 2), { ...values, infillDensity: 100 }, [
      { name: 'more walls', fromZ: 0, box: turned, values: { wallCount: 5 } },
    ])
    const { part, laid: area, outside } = coverageOf(solid, 5, await testKernel)
    expect(area / part).toBeGreaterThan(0.98)
    expect(area / part).toBeLessThan(1.02)
    expect(outside).toBeLessThan(0.01)
  })
})
