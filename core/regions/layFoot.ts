import { type Contours, ContoursBuilder } from '../geometry/contours'
import type { PolygonKernel, Region } from '../geometry/polygon'
import { bodiesOf, regionOf } from '../geometry/polygonsOf'
import type { Scopes } from '../profile/overrides'
import type { Settings } from '../profile/settings'
import type { Layers } from '../slicing/layers'
import { scopeAt } from '../slicing/zones'

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
 * A body that stands in a place with a brim of its own has that one; it runs through no other body.
 *
 * @param support what supports stand on
 */
export function layFoot(layers: Layers, support: Contours, scopes: Scopes, kernel: PolygonKernel): Contours {
  const settings: FootSettings = scopes.settings
  const { skirtLines, skirtGap, supportBrim } = settings
  const width = settings.firstLayerWidth > 0 ? settings.firstLayerWidth : settings.lineWidth
  const out = new ContoursBuilder()
  kernel.run((ops) => {
    const part = ops.read(layers.outlines, 0)
    const props = ops.read(support, 0)
    if (ops.isEmpty(part)) return
    const everything = ops.isEmpty(props) ? part : ops.unite(ops.gather([part, props]))
    const loopsOf = ({ brimWidth }: Pick<FootSettings, 'brimWidth'>): number => Math.max(1, Math.round(brimWidth / width))
    /** Only the outer rims of a region, holes filled. */
    const filled = (region: Region): Region => ops.positive(region)
    const rings: Region[] = []
    const around = (body: Region, sides: BrimSide, loops: number, keepOff: Region): void => {
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
    const keepOffProps = ops.isEmpty(props) ? ops.empty() : ops.swell(props, width / 2)
    const groups = byBrim(layers, scopes)
    for (const [own, bodies] of groups) {
      const others = [...groups].flatMap(([one, rest]) => (one === own ? [] : rest))
      const keepOff =
        others.length === 0
          ? keepOffProps
          : ops.gather([keepOffProps, ops.swell(ops.gather(others.map((body) => regionOf(ops, body))), width / 2)])
      around(groups.size === 1 ? part : ops.gather(bodies.map((body) => regionOf(ops, body))), own.brim, loopsOf(own), keepOff)
    }
    around(props, supportBrim, loopsOf(settings), ops.swell(part, width / 2))
    const reach = Math.max(...[...groups.keys()].map((own) => (own.brim === 'outer' || own.brim === 'both' ? loopsOf(own) * width : 0)))
    const standsOn = filled(ops.swell(everything, reach))
    for (let k = skirtLines - 1; k >= 0; k--) ops.write(filled(ops.swell(standsOn, skirtGap + (k + 0.5) * width)), out)
    for (const ring of rings) ops.write(ring, out)
  })
  out.endGroup()
  return out.finish()
}

type Brim = Pick<Settings, 'brim' | 'brimWidth'>

/** Bodies on the bed by the brim of the place where each of them begins. */
function byBrim(layers: Layers, scopes: Scopes): Map<Brim, Float64Array[][]> {
  const known = new Map<string, Brim>()
  const groups = new Map<Brim, Float64Array[][]>()
  for (const body of bodiesOf(layers.outlines, 0)) {
    const [rim] = body as [Float64Array, ...Float64Array[]]
    const { brim, brimWidth } = scopes.settingsOf(scopeAt(layers, 0, rim[0]!, rim[1]!, scopes))
    const key = `${brim} ${brimWidth}`
    const own = known.get(key) ?? { brim, brimWidth }
    known.set(key, own)
    groups.set(own, [...(groups.get(own) ?? []), body])
  }
  return groups
}
