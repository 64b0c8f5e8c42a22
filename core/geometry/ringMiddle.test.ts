import { describe, expect, it } from 'vitest'
import { layOut } from '../testing/layOut'
import { meshOf, solids } from '../testing/solids'
import { code } from '../toolpath/toolpath'
import { ContoursBuilder } from './contours'
import { middleLines } from './medialAxis'
import { Rims } from './rims'
import { ringMiddles } from './ringMiddle'

const round = (r: number, x = 0, corners = 96): number[] =>
  Array.from({ length: corners }, (_, i) => (2 * Math.PI * i) / corners).flatMap((a) => [x + r * Math.cos(a), r * Math.sin(a)])
const backwards = (xy: number[]): number[] => xy.map((_, i) => xy[xy.length - 2 - 2 * Math.floor(i / 2) + (i % 2)]!)
const rimsOf = (...rims: number[][]): Rims => {
  const out = new ContoursBuilder()
  for (const rim of rims) out.addPolygon(rim)
  out.endGroup()
  return new Rims().read(out.finish(), 0)
}

describe('the middle of a ring', () => {
  it('lies half-way between its rims, and is as wide as they are apart', () => {
    const [line, ...others] = ringMiddles(rimsOf(round(10), backwards(round(9.4))), 0.2, 1)!
    expect(others).toEqual([])
    expect(line!.closed).toBe(true)
    for (let i = 0; i < line!.width.length; i++) {
      expect(Math.hypot(line!.xy[2 * i]!, line!.xy[2 * i + 1]!)).toBeCloseTo(9.7, 1)
      expect(line!.width[i]).toBeCloseTo(0.6, 1)
    }
  })

  it('is what the Voronoi diagram finds, in length and width', () => {
    const [outer, hole] = [round(12, 0, 40), backwards(round(11.2, 0.15, 40))]
    const length = ({ xy }: { xy: number[] }) =>
      xy.reduce(
        (sum, _, i) =>
          i % 2 === 1
            ? sum
            : sum + Math.hypot(xy[i]! - xy[(i + xy.length - 2) % xy.length]!, xy[i + 1]! - xy[(i + xy.length - 1) % xy.length]!),
        0,
      )
    const mean = ({ width }: { width: number[] }) => width.reduce((sum, w) => sum + w, 0) / width.length
    const [quick] = ringMiddles(rimsOf(outer, hole), 0.2, 1.2)!
    const [slow] = middleLines([outer, hole], 0.2, 1.2)
    expect(Math.abs(length(quick!) / length(slow!) - 1)).toBeLessThan(0.03)
    // The diagram's samples stand apart, so its widths are rough.
    expect(Math.abs(mean(quick!) / mean(slow!) - 1)).toBeLessThan(0.08)
  })

  it('is not told where there is no ring, or it is too wide or too narrow somewhere', () => {
    expect(ringMiddles(rimsOf(round(10)), 0.2, 1)).toBeUndefined()
    expect(ringMiddles(rimsOf(round(10), backwards(round(8))), 0.2, 1)).toBeUndefined()
    expect(ringMiddles(rimsOf(round(10), backwards(round(9.4, 0.5))), 0.2, 1)).toBeUndefined()
    expect(ringMiddles(rimsOf(round(10), backwards(round(3, -5)), backwards(round(3, 5))), 0.2, 20)).toBeUndefined()
  })

  it('fills a thin-walled tube as well as a diagram would', async () => {
    const { Manifold } = await solids
    for (const thickness of [1.1, 1.3, 1.55]) {
      const tube = meshOf(Manifold.cylinder(2, 14, 14, 64).subtract(Manifold.cylinder(2, 14 - thickness, 14 - thickness, 64)))
      const { path, regions } = await layOut(tube, { wallCount: 3 })
      expect([regions.thin, ...regions.wallParts].flatMap(({ closed }) => [...closed]).length).toBeGreaterThan(0)
      const [from, to] = [path.layerStart[4]!, path.layerStart[5]!]
      let laid = 0
      for (let m = from; m < to; m++)
        if (path.feature[m]! >= code.outerWall)
          laid += (path.area[m]! / 0.2) * Math.hypot(path.x[m + 1]! - path.x[m]!, path.y[m + 1]! - path.y[m]!)
      const area = 32 * Math.sin((2 * Math.PI) / 64) * (14 ** 2 - (14 - thickness) ** 2)
      expect(laid / area, `${thickness} mm`).toBeGreaterThan(0.98)
      expect(laid / area, `${thickness} mm`).toBeLessThan(1.02)
    }
  })
})
