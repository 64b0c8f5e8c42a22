import { describe, expect, it } from 'vitest'
import { blockMesh, joined, meshOf, moved, solids, soupOf } from '../testing/solids'
import { measureVolume } from './measure'
import type { Mesh } from './mesh'
import { repair } from './repair'

const repaired = (mesh: Mesh) => repair({ corners: soupOf(mesh), notes: [] })

const without = (mesh: Mesh, ...triangles: number[]): Mesh => ({
  positions: mesh.positions,
  triangles: mesh.triangles.filter((_, i) => !triangles.includes(Math.floor(i / 3))),
})

function withTurned(mesh: Mesh, ...triangles: number[]): Mesh {
  const turned = mesh.triangles.slice()
  for (const t of triangles) [turned[3 * t + 1], turned[3 * t + 2]] = [turned[3 * t + 2]!, turned[3 * t + 1]!]
  return { positions: mesh.positions, triangles: turned }
}

describe('repairing a mesh', () => {
  it('has nothing to say about a sound one', () => {
    const { report } = repaired(blockMesh(10, 20, 30))
    expect(report).toMatchObject({ triangles: 12, watertight: true, shells: 1, openEdges: 0, notes: [] })
    expect(report.volumeMm3).toBeCloseTo(6000, 9)
    expect(report.areaMm2).toBeCloseTo(2200, 9)
  })

  it('turns triangles that face the wrong way', () => {
    const { mesh, report } = repaired(withTurned(blockMesh(10, 10, 10), 3, 7))
    expect(report.watertight).toBe(true)
    expect(measureVolume(mesh)).toBeCloseTo(1000, 9)
    expect(report.notes).toEqual([expect.stringContaining('2 triangles faced the wrong way')])
  })

  it('turns a body that is inside out, but leaves a hollow inside another body alone', () => {
    const all = Array.from({ length: 12 }, (_, i) => i)
    const inverted = withTurned(blockMesh(10, 10, 10), ...all)
    expect(repaired(inverted).report.volumeMm3).toBeCloseTo(1000, 9)
    const hollow = joined(blockMesh(20, 20, 20), moved(inverted, 0, 0, 5))
    const { report } = repaired(hollow)
    expect(report.volumeMm3).toBeCloseTo(8000 - 1000, 9)
    expect(report.notes).toEqual([])
  })

  describe('bodies that touch or lie in each other', () => {
    const all = Array.from({ length: 12 }, (_, i) => i)
    const box = (side: number, x = 0, z = 0) => moved(blockMesh(side, side, side), x, 0, z)
    const insideOut = (mesh: Mesh) => withTurned(mesh, ...all)
    const measured = (mesh: Mesh) => repaired(mesh).report

    it('become one where they share a face', () => {
      // Cut along different diagonals, the faces share their edges only; along the same one they are repeats that face each other.
      expect(measured(joined(box(10), box(10, 10))).volumeMm3).toBeCloseTo(2000, 9)
      const other = box(10, 10)
      const mirrored = { positions: other.positions.map((v, i) => (i % 3 === 1 ? -v : v)), triangles: insideOut(other).triangles }
      const report = measured(joined(box(10), mirrored))
      expect(report.volumeMm3).toBeCloseTo(2000, 9)
      expect(report).toMatchObject({ watertight: true, shells: 1, triangles: 20 })
      expect(measured(joined(insideOut(box(10)), insideOut(box(10, 10)))).volumeMm3).toBeCloseTo(2000, 9)
    })

    it('stay two where they share an edge', () => {
      const { volumeMm3, crowdedEdges } = measured(joined(box(10), moved(blockMesh(10, 10, 10), 10, 10, 0)))
      expect(volumeMm3).toBeCloseTo(2000, 9)
      expect(crowdedEdges).toBe(1)
    })

    it('are a hollow where they face each other, whichever way the file faces, and count once where they do not', () => {
      const [outer, inner] = [box(40), box(30, 0, 5)]
      const hollow = joined(outer, insideOut(inner))
      expect(measured(hollow).volumeMm3).toBeCloseTo(64_000 - 27_000, 6)
      expect(measured(joined(insideOut(outer), inner)).volumeMm3).toBeCloseTo(64_000 - 27_000, 6)
      expect(measured(joined(outer, inner)).volumeMm3).toBeCloseTo(64_000, 6)
      expect(measured(joined(insideOut(outer), insideOut(inner))).volumeMm3).toBeCloseTo(64_000, 6)
      // A ball in a box.
      expect(measured(joined(hollow, box(10, 0, 15))).volumeMm3).toBeCloseTo(64_000 - 27_000 + 1000, 6)
    })

    it('are told apart where only their boxes hold each other', async () => {
      const { Manifold } = await solids
      const ring = meshOf(Manifold.cylinder(10, 20, 20, 64).subtract(Manifold.cylinder(30, 15, 15, 64, true)))
      const within = insideOut(box(8, 0, 1))
      expect(measured(joined(ring, within)).volumeMm3).toBeCloseTo(measured(ring).volumeMm3 + 512, 6)
    })
  })

  it('closes a flat hole', () => {
    const { mesh, report } = repaired(without(blockMesh(10, 10, 10), 2, 3))
    expect(report.watertight).toBe(true)
    expect(measureVolume(mesh)).toBeCloseTo(1000, 9)
    expect(report.notes.join()).toMatch(/1 flat hole was closed/)
  })

  it('leaves a curved hole open and says where it is', async () => {
    const { Manifold } = await solids
    const sphere = meshOf(Manifold.sphere(10, 48))
    const atTop = [...Array(sphere.triangles.length / 3).keys()].filter((t) =>
      [0, 1, 2].every(
        (k) => sphere.positions[3 * sphere.triangles[3 * t + k]! + 2]! > 6 && sphere.positions[3 * sphere.triangles[3 * t + k]!]! > 1,
      ),
    )
    const { report } = repaired(without(sphere, ...atTop))
    expect(report.watertight).toBe(false)
    expect(report.openEdges).toBeGreaterThan(8)
    expect(report.notes.join()).toMatch(/open along .* edges \(between z = \d/)
  })

  it('joins corners that lie a hair apart', () => {
    const block = blockMesh(10, 10, 10)
    const corners = soupOf(block)
    corners[0] = corners[0]! + 0.00005
    const { report } = repair({ corners, notes: [] })
    expect(report.watertight).toBe(true)
    expect(report.notes.join()).toMatch(/a hair apart/)
  })

  it('leaves out triangles without area, repeats and loose specks', () => {
    const block = blockMesh(10, 10, 10)
    const odd = joined(block, { positions: Float64Array.of(50, 50, 50, 51, 50, 50, 50, 51, 50), triangles: Uint32Array.of(0, 1, 2) })
    const soup = soupOf(odd)
    const { report } = repair({ corners: Float64Array.from([...soup, ...soup.slice(0, 9), 1, 1, 1, 1, 1, 1, 2, 2, 2]), notes: [] })
    expect(report).toMatchObject({ triangles: 12, watertight: true })
    expect(report.notes).toHaveLength(3)
  })

  it('wonders about a part of a fraction of a millimetre', () => {
    expect(repaired(blockMesh(0.02, 0.03, 0.02)).report.notes.join()).toMatch(/metres or inches/)
  })
})
