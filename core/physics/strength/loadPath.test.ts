import { beforeAll, describe, expect, it } from 'vitest'
import { groupArea } from '../../geometry/contours'
import type { Mesh } from '../../mesh/mesh'
import { type LaidOut, layOut } from '../../testing/layOut'
import { demo } from '../../testing/paths'
import { blockMesh, joined, meshOf, moved, solids } from '../../testing/solids'
import { usualGrip } from './grip'
import { loadPathAlong, loadPathByAxis } from './loadPathByAxis'
import { findObliqueSections } from './oblique'
import { findSections } from './sections'
import { layRows, outlinesOf } from './stretches'

/** A block of this size with its low corner here, mm. */
const box = (x: number, y: number, z: number, width: number, depth: number, height: number): Mesh =>
  moved(blockMesh(width, depth, height), x + width / 2, y + depth / 2, z)

const values = { wallCount: 3, infillDensity: 100 }
/** Area of the section nearest to a place along an axis, mm²; of everything, or of what bears. */
function areaAt({ path, settings, layers }: LaidOut, axis: 'x' | 'y' | 'z', at: number, loadPath = true): number {
  const { at: places, area } = findSections(
    path,
    axis,
    settings,
    undefined,
    loadPath ? loadPathByAxis(outlinesOf(layers), usualGrip)[axis] : undefined,
  )
  const nearest = places.reduce((best, place, i) => (Math.abs(place - at) < Math.abs(places[best]! - at) ? i : best), 0)
  return area[nearest]!
}

describe('limbs that lead nowhere', () => {
  /** A foot with a shank that goes on to the far end and a peg beside it that ends half-way. */
  const foot = box(0, 0, 0, 24, 6, 4)
  const shank = box(18, 0, 0, 6, 40, 4)
  let pegged: LaidOut
  let plain: LaidOut
  beforeAll(async () => {
    ;[pegged, plain] = await Promise.all([layOut(joined(foot, shank, box(0, 0, 0, 6, 22, 4)), values), layOut(joined(foot, shank), values)])
  })

  it('bear nothing: the section beside a peg is the shank’s alone', () => {
    expect(areaAt(pegged, 'y', 14, false)).toBeGreaterThan(1.8 * areaAt(plain, 'y', 14))
    expect(areaAt(pegged, 'y', 14) / areaAt(plain, 'y', 14)).toBeCloseTo(1, 1)
    expect(areaAt(pegged, 'y', 32)).toBeCloseTo(areaAt(plain, 'y', 32), 1)
  })

  it('are the same for a direction that is given by its angle', () => {
    const { path, settings, layers } = pegged
    const along = findSections(path, 'y', settings, undefined, loadPathByAxis(outlinesOf(layers), usualGrip).y)
    const angled = findObliqueSections(
      path,
      { azimuthDeg: 90, elevationDeg: 0 },
      settings,
      loadPathAlong(outlinesOf(layers), { azimuthDeg: 90, elevationDeg: 0 }, usualGrip),
    )
    for (const [i, area] of along.area.entries()) expect(Math.abs(angled.area[i]! - area)).toBeLessThan(0.05 * area + 0.5)
  })

  it('are whatever does not lead on: along x the shank itself', () => {
    expect(areaAt(pegged, 'x', 12)).toBeCloseTo(areaAt(plain, 'x', 12), 0)
    expect(areaAt(pegged, 'x', 20.5, false)).toBeGreaterThan(5 * areaAt(pegged, 'x', 12))
  })

  it('bear nothing along z either, where sections are layers', async () => {
    const plate = box(0, 0, 0, 24, 12, 3)
    const post = box(18, 3, 0, 6, 6, 24)
    const [pegged, plain] = await Promise.all([
      layOut(joined(plate, post, box(1, 3, 0, 6, 6, 12)), values),
      layOut(joined(plate, post), values),
    ])
    expect(areaAt(pegged, 'z', 8, false)).toBeGreaterThan(1.8 * areaAt(plain, 'z', 8))
    expect(areaAt(pegged, 'z', 8) / areaAt(plain, 'z', 8)).toBeCloseTo(1, 1)
  })
})

describe('limbs that lead on', () => {
  it('bear together: both legs of a frame', async () => {
    const frame = joined(box(0, 0, 0, 24, 5, 4), box(0, 0, 0, 5, 40, 4), box(19, 0, 0, 5, 40, 4), box(0, 35, 0, 24, 5, 4))
    const laid = await layOut(frame, values)
    expect(loadPathByAxis(outlinesOf(laid.layers), usualGrip).y).toBeDefined()
    expect(areaAt(laid, 'y', 20)).toBeCloseTo(areaAt(laid, 'y', 20, false), 6)
  })

  it('bear in a thin wall that widens: no part of a funnel is taken for a limb of its own', async () => {
    const { Manifold } = await solids
    const funnel = Manifold.cylinder(24, 10, 24, 96).subtract(Manifold.cylinder(24, 9.1, 23.1, 96))
    const { path, settings, layers } = await layOut(meshOf(funnel), { wallCount: 2, infillDensity: 0 })
    const loadPath = loadPathByAxis(outlinesOf(layers), usualGrip)
    for (const axis of ['x', 'y', 'z'] as const) {
      const [all, bearing] = [findSections(path, axis, settings), findSections(path, axis, settings, undefined, loadPath[axis])]
      const [first, last] = [Math.ceil(0.15 * all.at.length), Math.floor(0.85 * all.at.length)]
      for (let i = first; i < last; i++) expect(bearing.area[i]! / all.area[i]!).toBeGreaterThan(0.95)
    }
  })

  it('all bear where the part turns back on itself and no limb goes all the way', async () => {
    const turn = joined(
      box(0, 0, 0, 5, 30, 4),
      box(0, 25, 0, 15, 5, 4),
      box(10, 10, 0, 5, 20, 4),
      box(10, 10, 0, 15, 5, 4),
      box(20, 10, 0, 5, 30, 4),
    )
    const laid = await layOut(turn, values)
    expect(loadPathByAxis(outlinesOf(laid.layers), usualGrip).y?.loadPath.reaches).toBe(false)
    expect(areaAt(laid, 'y', 20)).toBeCloseTo(areaAt(laid, 'y', 20, false), 6)
  })
})

describe('a hook', () => {
  it('is judged by its shank: beside its tip no section stands out, along any direction', async () => {
    const { path, settings, layers } = await layOut(demo('carry-hook'))
    const outlines = outlinesOf(layers)
    for (const { at, area, reach } of [
      findSections(path, 'y', settings, undefined, loadPathByAxis(outlines, usualGrip).y),
      findObliqueSections(
        path,
        { azimuthDeg: 90, elevationDeg: 35 },
        settings,
        loadPathAlong(outlines, { azimuthDeg: 90, elevationDeg: 35 }, usualGrip),
      ),
    ]) {
      // Above the bend the shank stands alone: 10 mm wide, with the tip some 30 mm beside it.
      const above = [...at.keys()].filter((i) => i > 0.3 * at.length && i < 0.6 * at.length)
      expect(above.length).toBeGreaterThan(15)
      const areas = above.map((i) => area[i]!)
      expect(Math.max(...areas) / Math.min(...areas)).toBeLessThan(1.1)
      for (const i of above) expect(Math.max(reach[0][i]!, reach[2][i]!)).toBeLessThan(6.5)
    }
  })
})

describe('rows through a part', () => {
  it('are as long as its layers are large: length times the way between rows is the area (midpoint rule)', async () => {
    const { layers } = await layOut(demo('battery-tray'))
    const outlines = outlinesOf(layers)
    const [turn, step] = [0.7, 0.25]
    const along = [Math.cos(turn), Math.sin(turn), 0] as const
    const rows = 900
    const table = layRows(outlines, along, [-Math.sin(turn), Math.cos(turn)], (-rows / 2 + 0.5) * step, step, rows)
    for (const layer of [0, 10, 40]) {
      let length = 0
      for (let row = 0; row < rows; row++)
        for (let i = table.start[row * table.layers + layer]!; i < table.start[row * table.layers + layer + 1]!; i++)
          length += table.high[i]! - table.low[i]!
      expect((length * step) / groupArea(layers.outlines, layer)).toBeCloseTo(1, 2)
    }
  })
})
