import { describe, expect, it } from 'vitest'
import { medians } from '../../constants/constants'
import { ContoursBuilder } from '../../geometry/contours'
import type { Layers } from '../../slicing/layers'
import { supportSway } from './supportSway'

const SIDE_FORCE = medians.sway.sideForce
const push = { modulus: 2000, force: SIDE_FORCE, brim: 0, adhesion: medians.sway.adhesion }

/** Round bodies stacked up: per layer their middles and radii. */
function stacked(layers: readonly (readonly (readonly [x: number, y: number, r: number])[])[]) {
  const out = new ContoursBuilder()
  for (const bodies of layers) {
    for (const [x, y, r] of bodies) {
      const corners = Array.from({ length: 48 }, (_, i) => (2 * Math.PI * i) / 48)
      out.addPolygon(corners.flatMap((a) => [x + r * Math.cos(a), y + r * Math.sin(a)]))
    }
    out.endGroup()
  }
  const top = Float64Array.from(layers, (_, i) => (i + 1) * 0.2)
  return { body: out.finish(), layers: { top, height: top.map(() => 0.2) } as unknown as Layers }
}
const column = (height: number, r: number) => stacked(Array.from({ length: height * 5 }, () => [[0, 0, r] as const]))

describe('a lone support under the nozzle', () => {
  it('gives way by F·L³/(3·E·I) at its top, I = π·r⁴/4 of a full round (any handbook)', () => {
    const { body, layers } = column(60, 3)
    const { mostMm, atZMm } = supportSway(body, layers, () => 1, push)
    expect(mostMm / ((SIDE_FORCE * 60 ** 3) / (3 * 2000 * ((Math.PI * 3 ** 4) / 4)))).toBeCloseTo(1, 1)
    expect(atZMm).toBeCloseTo(60, 9)
  })

  it('stands steadier on a wider trunk (CP-P1, common practice), and less so the sparser it is', () => {
    const most = (r: number, share = 1) => {
      const { body, layers } = column(60, r)
      return supportSway(body, layers, () => share, push).mostMm
    }
    // 15 to 35 mm at the base.
    expect(most(17.5)).toBeLessThan(most(7.5) / 20)
    expect(most(7.5, 0.1) / most(7.5)).toBeCloseTo(10, 6)
  })

  it('comes off the bed when the push is too much for its foot, and not with a brim round it (CP-P1, common practice)', () => {
    const { body, layers } = column(120, 3)
    const of = (brim: number, share = 0.03) => supportSway(body, layers, () => share, { ...push, brim }).looseAboveZMm
    // A round foot bears σ·π·r³/4 (any handbook), a sparse one its share.
    expect(of(0)!).toBeCloseTo((0.03 * push.adhesion * Math.PI * 27) / 4 / SIDE_FORCE, 0)
    expect(of(0.5)!).toBeGreaterThan(1.3 * of(0)!)
    expect(of(5)).toBeUndefined()
  })

  it('is judged by itself where several stand side by side, and begins anew on the part', () => {
    const two = stacked(
      Array.from(
        { length: 200 },
        (_, i) =>
          (i < 100
            ? [[0, 0, 5]]
            : [
                [0, 0, 5],
                [30, 0, 1],
              ]) as [number, number, number][],
      ),
    )
    const { mostMm } = supportSway(two.body, two.layers, () => 1, push)
    // The thin one is 20 mm high, though it ends 40 mm over the bed: measured from where it begins.
    const alone = (SIDE_FORCE * 20 ** 3) / (3 * 2000 * (Math.PI / 4))
    expect(mostMm / alone).toBeCloseTo(1, 1)
  })
})
