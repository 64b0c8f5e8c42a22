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
