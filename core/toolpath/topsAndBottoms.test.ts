import { describe, expect, it } from 'vitest'
import { layOut } from '../testing/layOut'
import { movesOf, timeOf, total } from '../testing/paths'
import { blockMesh, meshOf, solids } from '../testing/solids'
import { laidVolume } from './laidVolume'
import { code } from './toolpath'

describe('tops and bottoms', () => {
  it('follow the outline when concentric, and fill as much', async () => {
    const { Manifold } = await solids
    const disc = meshOf(Manifold.cylinder(0.8, 12, 12, 96))
    const lines = await layOut(disc, { wallCount: 2 })
    const rings = await layOut(disc, { wallCount: 2, topBottomPattern: 'concentric' })
    expect(laidVolume(rings.path).total / laidVolume(lines.path).total).toBeCloseTo(1, 1)
    for (const m of movesOf(rings.path, code.topBottom)) {
      const [from, to] = [Math.hypot(rings.path.x[m]!, rings.path.y[m]!), Math.hypot(rings.path.x[m + 1]!, rings.path.y[m + 1]!)]
      expect(Math.abs(from - to)).toBeLessThan(0.2)
    }
  })

  it('joined back and forth travel less than separate lines, for the same plastic', async () => {
    const joinedUp = await layOut(blockMesh(20, 20, 1.6), { topBottomPattern: 'backAndForth' })
    const separate = await layOut(blockMesh(20, 20, 1.6), { topBottomPattern: 'separate' })
    expect(total(joinedUp.path, code.travel)).toBeLessThan(0.5 * total(separate.path, code.travel))
    expect(laidVolume(joinedUp.path).total / laidVolume(separate.path).total).toBeCloseTo(1, 2)
  })

  it('are ironed on tops alone, at a cost in time that does not grow with height (CP-S4, common practice)', async () => {
    const extra = async (height: number) =>
      timeOf(await layOut(blockMesh(20, 20, height), { ironing: 'on' })) -
      timeOf(await layOut(blockMesh(20, 20, height), { ironing: 'off' }))
    const { path } = await layOut(blockMesh(20, 20, 3), { ironing: 'on' })
    for (const m of movesOf(path, code.ironing)) expect(path.z[m]).toBeCloseTo(3, 6)
    expect(await extra(3)).toBeGreaterThan(20)
    expect((await extra(6)) / (await extra(3))).toBeCloseTo(1, 1)
  })
})
