import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { testKernel } from '../testing/kernel'
import { type Contours, ContoursBuilder, emptyContours, groupArea, groupCount, isSameGroup, polygonArea } from './contours'
import { oneGroup } from './oneGroup'
import type { Region } from './polygon'
import { bodiesOf } from './polygonsOf'
import { slidingIntersection } from './slidingIntersection'
import { stackGroups } from './stackGroups'
import { StrandsBuilder } from './strands'

const square = (x: number, y: number, side: number): number[] => [x, y, x + side, y, x + side, y + side, x, y + side]
const hole = (x: number, y: number, side: number): number[] => [x, y, x, y + side, x + side, y + side, x + side, y]
/** Groups of any polygons: what they enclose does not matter here. */
const groups = fc.array(
  fc.array(fc.array(fc.tuple(fc.float({ noNaN: true }), fc.float({ noNaN: true })), { minLength: 3, maxLength: 9 })),
  {
    maxLength: 6,
  },
)
const built = (of: readonly (readonly (readonly (readonly [number, number])[])[])[]): Contours => {
  const out = new ContoursBuilder()
  for (const polygons of of) {
    for (const points of polygons) out.addPolygon(points.flat())
    out.endGroup()
  }
  return out.finish()
}

describe('packed contours', () => {
  it('hold what was put into them, group by group', () => {
    fc.assert(
      fc.property(groups, (of) => {
        const contours = built(of)
        expect(groupCount(contours)).toBe(of.length)
        const read = of.map((_, g) =>
          Array.from({ length: contours.groupStart[g + 1]! - contours.groupStart[g]! }, (_, i) => {
            const p = contours.groupStart[g]! + i
            return [...contours.xy.subarray(2 * contours.polygonStart[p]!, 2 * contours.polygonStart[p + 1]!)]
          }),
        )
        expect(read).toEqual(of.map((polygons) => polygons.map((points) => points.flat())))
      }),
    )
  })

  it('are the same whether they are packed at once or one by one and stacked', () => {
    fc.assert(
      fc.property(groups, (of) => {
        const single = of.map((polygons) => built([polygons]))
        expect(stackGroups(single)).toEqual(built(of))
      }),
    )
  })

  it('repeat a group point for point, and know it again', () => {
    const out = new ContoursBuilder()
    out.addPolygon(square(0, 0, 10))
    out.addPolygon(hole(2, 2, 3))
    out.endGroup()
    out.repeatGroup()
    out.addPolygon(square(0, 0, 10))
    out.endGroup()
    const contours = out.finish()
    expect(isSameGroup(contours, 0, 1)).toBe(true)
    expect(isSameGroup(contours, 0, 2)).toBe(false)
    expect(groupArea(contours, 1)).toBe(91)
    expect(groupArea(contours, 2)).toBe(100)
  })

  it('have holes of negative area, and nothing where nothing is', () => {
    const out = new ContoursBuilder()
    out.addPolygon(hole(0, 0, 4))
    out.endGroup()
    expect(polygonArea(out.finish(), 0)).toBe(-16)
    expect(groupArea(emptyContours(3), 2)).toBe(0)
  })

  it('of several bodies come apart, each with its own holes, one within another too', () => {
    const out = new ContoursBuilder()
    // A ring, a body in its hole with a hole of its own, and a body beside.
    for (const rim of [square(0, 0, 20), hole(2, 2, 16), square(4, 4, 10), hole(6, 6, 2), square(30, 0, 5)]) out.addPolygon(rim)
    out.endGroup()
    const bodies = bodiesOf(out.finish(), 0)
    expect(bodies.map(([rim, ...holes]) => [[...rim!], holes.map((xy) => [...xy])])).toEqual([
      [square(30, 0, 5), []],
      [square(4, 4, 10), [hole(6, 6, 2)]],
      [square(0, 0, 20), [hole(2, 2, 16)]],
    ])
  })
})

describe('packed strands', () => {
  it('repeat a group with its widths, open or closed', () => {
    const out = new StrandsBuilder()
    out.add([0, 0, 1, 0, 1, 1], [0.3, 0.4, 0.5], true)
    out.add([5, 5, 6, 6], 0.2)
    out.endGroup()
    out.repeatGroup()
    const { xy, width, strandStart, groupStart, closed } = out.finish()
    expect([...groupStart]).toEqual([0, 2, 4])
    expect([...strandStart]).toEqual([0, 3, 5, 8, 10])
    expect([...closed]).toEqual([1, 0, 1, 0])
    expect([...xy.subarray(10)]).toEqual([...xy.subarray(0, 10)])
    expect([...width.subarray(5)]).toEqual([...width.subarray(0, 5)])
  })
})

describe('what neighbouring layers have in common', () => {
  it('is what intersecting each window by itself finds, whatever its width', async () => {
    const kernel = await testKernel
    const layer = fc.tuple(fc.integer({ min: 0, max: 6 }), fc.integer({ min: 0, max: 6 }), fc.integer({ min: 3, max: 12 }))
    fc.assert(
      fc.property(fc.array(layer, { minLength: 1, maxLength: 9 }), fc.integer({ min: 1, max: 5 }), (layers, width) => {
        kernel.run((ops) => {
          const regions = layers.map(([x, y, side]) => ops.polygon(square(x, y, side)))
          const found = slidingIntersection(ops, regions, width)
          for (let i = 0; i < regions.length; i++) {
            const window = regions.slice(i, i + width)
            const wanted: Region =
              window.length < width ? ops.empty() : window.reduce((common, region) => ops.intersect(common, region), window[0]!)
            expect(ops.area(found[i]!)).toBeCloseTo(ops.area(wanted), 6)
          }
        })
      }),
      { numRuns: 80 },
    )
  })
})

describe('the polygon kernel', () => {
  it('gives back what it was given, to a tenth of a micrometre', async () => {
    const kernel = await testKernel
    const contours = oneGroup(kernel, (ops) => ops.polygon([0.12345, -7.00004, 123.45678, 0, 60, 99.99996]))
    expect([...contours.xy].map((value) => Number(value.toFixed(4)))).toEqual([0.1235, -7, 123.4568, 0, 60, 100])
  })

  it('measures a rim, and how fast it shrinks under an inset: a square by 8 mm a millimetre, a hole grows as fast', async () => {
    const kernel = await testKernel
    kernel.run((ops) => {
      const { length, fall } = ops.measureRim(ops.polygon(square(0, 0, 10)))
      expect(length).toBeCloseTo(40, 9)
      expect(fall).toBeCloseTo(8, 9)
      expect(ops.measureRim(ops.offset(ops.polygon(square(0, 0, 10)), -1)).length).toBeCloseTo(length - fall, 3)
      const ring = ops.subtract(ops.polygon(square(0, 0, 20)), ops.polygon(square(5, 5, 10)))
      expect(ops.measureRim(ring).fall).toBeCloseTo(0, 9)
    })
  })

  it('grows round by the Minkowski sum with a disc: A + P·r + π·r² (Steiner’s formula)', async () => {
    const kernel = await testKernel
    kernel.run((ops) => {
      const [area, rim, r] = [100, 40, 2]
      const grown = ops.area(ops.swell(ops.polygon(square(0, 0, 10)), r))
      // Corners are rounded with chords that leave the arc by a hundredth of a millimetre at most.
      expect(Math.abs(grown - (area + rim * r + Math.PI * r * r))).toBeLessThan(2 * Math.PI * r * 0.01)
    })
  })

  it('never grows under an inset, though a sliver is turned over', async () => {
    const kernel = await testKernel
    kernel.run((ops) => {
      const turnedOver = [0, -2, 0, -1.9, 5, -1.9, 5, -2]
      const region = ops.gather([ops.polygon(square(0, 0, 10)), ops.polygon(turnedOver)])
      expect(ops.area(ops.offset(region, -1))).toBeCloseTo(64, 3)
    })
  })

  it('frees what it made even when the work throws', async () => {
    const kernel = await testKernel
    expect(() =>
      kernel.run((ops) => {
        ops.polygon(square(0, 0, 1))
        throw new Error('in the middle')
      }),
    ).toThrow('in the middle')
    expect(kernel.run((ops) => ops.area(ops.polygon(square(0, 0, 2))))).toBeCloseTo(4, 6)
  })
})
