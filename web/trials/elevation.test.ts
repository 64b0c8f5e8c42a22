import { blockMesh, joined, moved } from '@sable/core/testing/solids'
import { describe, expect, it } from 'vitest'
import { elevationOf } from './elevation'

const area = (xy: readonly number[]): number => Math.abs((xy[2]! - xy[0]!) * (xy[5]! - xy[1]!) - (xy[4]! - xy[0]!) * (xy[3]! - xy[1]!)) / 2

describe('a thing that is drawn', () => {
  it('is to scale: a block of 30 × 20 × 10 is 30 by 10 from the front, and 30 by 20 from above', () => {
    const block = blockMesh(30, 20, 10)
    for (const [looked, height] of [
      ['front', 10],
      ['above', 20],
    ] as const) {
      const { box, sheets } = elevationOf(block, looked)
      expect(box.right - box.left).toBeCloseTo(30)
      expect(box.top - box.bottom).toBeCloseTo(height)
      expect(sheets.flat().reduce((sum, { xy }) => sum + area(xy), 0)).toBeCloseTo(30 * height)
    }
  })

  it('shows edges where its surface turns, and none within a face', () => {
    const faces = elevationOf(blockMesh(30, 20, 10), 'front').sheets.flat()
    expect(faces).toHaveLength(2)
    // Two triangles share the diagonal, which is no edge.
    for (const { edges } of faces) expect(edges.filter((isEdge) => isEdge)).toHaveLength(2)
  })

  it('paints what is in front over what is behind', () => {
    const { sheets } = elevationOf(joined(moved(blockMesh(10, 4, 5), 0, -20, 0), blockMesh(30, 4, 10)), 'front')
    const widest = (sheet: (typeof sheets)[number]): number => Math.max(...sheet.flatMap(({ xy }) => [xy[0], xy[2], xy[4]]))
    expect(widest(sheets[0]!)).toBeCloseTo(15)
    expect(widest(sheets.at(-1)!)).toBeCloseTo(5)
  })
})
