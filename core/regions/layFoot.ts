import { type Contours, ContoursBuilder } from '../geometry/contours'
import type { PolygonKernel, Region } from '../geometry/polygon'

export interface FootSettings {
  readonly lineWidth: number
  readonly firstLayerWidth: number
  readonly skirtLines: number
  readonly skirtGap: number
  readonly brim: BrimSide
  readonly brimWidth: number
  readonly supportBrim: BrimSide
}

export type BrimSide = 'none' | 'outer' | 'inner' | 'both'

/**
 * Loops on the bed around the first layer: a brim that touches it, outside, inside its holes or both, and a skirt around
 * everything. One group of closed centre lines, mm, from the outermost in.
 *
 * @param first outline of the part on the bed
 * @param support what supports stand on
 */
export function layFoot(first: Contours, support: Contours, settings: FootSettings, kernel: PolygonKernel): Contours {
  const { skirtLines, skirtGap, brim, brimWidth, supportBrim } = settings
  const width = settings.firstLayerWidth > 0 ? settings.firstLayerWidth : settings.lineWidth
  const out = new ContoursBuilder()
  kernel.run((ops) => {
    const part = ops.read(first, 0)
    const props = ops.read(support, 0)
    if (ops.isEmpty(part)) return
    const everything = ops.isEmpty(props) ? part : ops.unite(ops.gather([part, props]))
    const loops = Math.max(1, Math.round(brimWidth / width))
    /** Only the outer rims of a region, holes filled. */
    const filled = (region: Region): Region => ops.positive(region)
    const rings: Region[] = []
    const around = (body: Region, sides: BrimSide, keepOff: Region): void => {
      if (sides === 'none' || ops.isEmpty(body)) return
      const whole = filled(body)
      const holes = ops.subtract(whole, body)
      for (let k = loops - 1; k >= 0; k--) {
        const by = (k + 0.5) * width
        const outer = (sides === 'outer' || sides === 'both') && ops.subtract(ops.swell(whole, by), keepOff)
        const inner = (sides === 'inner' || sides === 'both') && !ops.isEmpty(holes) && ops.subtract(ops.offset(holes, -by), keepOff)
        if (outer) rings.push(outer)
        if (inner) rings.push(inner)
      }
    }
    // The brim of one body must not run through another.
    around(part, brim, ops.isEmpty(props) ? ops.empty() : ops.swell(props, width / 2))
    around(props, supportBrim, ops.swell(part, width / 2))
    const reach = brim === 'outer' || brim === 'both' ? loops * width : 0
    const standsOn = filled(ops.swell(everything, reach))
    for (let k = skirtLines - 1; k >= 0; k--) ops.write(filled(ops.swell(standsOn, skirtGap + (k + 0.5) * width)), out)
    for (const ring of rings) ops.write(ring, out)
  })
  out.endGroup()
  return out.finish()
}
