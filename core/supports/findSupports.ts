import { type Contours, emptyContours } from '../geometry/contours'
import { oneGroup } from '../geometry/oneGroup'
import type { PolygonKernel, PolygonOps, Region } from '../geometry/polygon'
import { stackGroups } from '../geometry/stackGroups'
import { type Layers, layerCount } from '../slicing/layers'
import { growBranches } from './growBranches'
import type { SupportSettings, Supports } from './supports'

/** Spans up to this length, mm, are left to bridging; semi-empirical. */
const LONGEST_FREE_SPAN = 25

/** Finds what leans more than the support angle and builds what holds it. */
export function findSupports(
  layers: Layers,
  bridges: { readonly bridges: Contours; readonly bridgeSpan: Float32Array },
  settings: SupportSettings,
  kernel: PolygonKernel,
  onLayer: (done: number) => void = () => {},
): Supports {
  const count = layerCount(layers)
  const nothing = emptyContours(count)
  if (settings.supports === 'off') return { body: nothing, top: nothing, unheldMm2: 0 }
  const over = findOverhangs(layers, bridges, settings, kernel)
  return settings.supports === 'plain'
    ? buildColumns(layers, over, settings, kernel, onLayer)
    : growBranches(layers, over, settings, kernel, onLayer)
}

/** Per layer what hangs farther out than the angle allows, less what is bridged. */
function findOverhangs(
  layers: Layers,
  { bridges, bridgeSpan }: { readonly bridges: Contours; readonly bridgeSpan: Float32Array },
  { supportAngle, lineWidth }: SupportSettings,
  kernel: PolygonKernel,
): Contours[] {
  const slope = Math.tan((supportAngle * Math.PI) / 180)
  return Array.from({ length: layerCount(layers) }, (_, layer) =>
    oneGroup(kernel, (ops) => {
      if (layer === 0) return ops.empty()
      const reach = layers.height[layer]! * slope
      const own = ops.simplify(ops.read(layers.outlines, layer), lineWidth / 8)
      const borne = ops.offset(ops.simplify(ops.read(layers.outlines, layer - 1), lineWidth / 8), reach)
      const hanging = ops.isEmpty(borne) ? own : ops.subtract(own, borne)
      if (ops.isEmpty(hanging)) return hanging
      const spans: Region[] = []
      for (let p = bridges.groupStart[layer]!; p < bridges.groupStart[layer + 1]!; p++)
        if (bridgeSpan[p]! <= LONGEST_FREE_SPAN)
          spans.push(ops.polygon(bridges.xy.subarray(2 * bridges.polygonStart[p]!, 2 * bridges.polygonStart[p + 1]!)))
      // The walls around a bridge hang over the same air.
      return spans.length === 0 ? hanging : ops.subtract(hanging, ops.offset(ops.gather(spans), 4 * lineWidth))
    }),
  )
}

/** Columns straight down from every overhang, clear of the part. */
function buildColumns(
  layers: Layers,
  over: readonly Contours[],
  settings: SupportSettings,
  kernel: PolygonKernel,
  onLayer: (done: number) => void,
): Supports {
  const { lineWidth, supportGap, supportGapLayers, supportTopLayers, supportFrom } = settings
  const count = layerCount(layers)
  const columns: Contours[] = new Array(count)
  const tops: Contours[] = new Array(count)
  for (let layer = count - 1; layer >= 0; layer--) {
    columns[layer] = oneGroup(kernel, (ops) => {
      const wanted = [columns[layer + 1], over[layer + 1 + supportGapLayers]].filter((c) => c !== undefined).map((c) => ops.read(c, 0))
      const all = wanted.length > 1 ? ops.unite(ops.gather(wanted)) : wanted[0]
      if (!all || ops.isEmpty(all)) return ops.empty()
      const near = [layer, ...(layer > 0 && supportGapLayers > 0 ? [layer - 1] : [])].map((l) =>
        ops.swell(ops.simplify(ops.read(layers.outlines, l), lineWidth / 8), supportGap),
      )
      return ops.simplify(opened(ops, ops.subtract(all, ops.gather(near)), lineWidth), lineWidth / 8)
    })
    onLayer(count - layer)
  }
  let unheldMm2 = 0
  if (supportFrom === 'bed') {
    for (let layer = 1; layer < count; layer++) {
      columns[layer] = oneGroup(kernel, (ops) => {
        const all = ops.read(columns[layer]!, 0)
        const standing = ops.intersect(all, ops.read(columns[layer - 1]!, 0))
        unheldMm2 += ops.area(all) - ops.area(standing)
        return standing
      })
    }
  }
  for (let layer = 0; layer < count; layer++) {
    tops[layer] = oneGroup(kernel, (ops) => {
      const under = over.slice(layer + 1 + supportGapLayers, layer + 1 + supportGapLayers + supportTopLayers).map((c) => ops.read(c, 0))
      if (under.length === 0) return ops.empty()
      return ops.intersect(ops.read(columns[layer]!, 0), ops.swell(ops.gather(under), lineWidth))
    })
    if (supportTopLayers > 0)
      columns[layer] = oneGroup(kernel, (ops) => ops.subtract(ops.read(columns[layer]!, 0), ops.read(tops[layer]!, 0)))
  }
  return { body: stackGroups(columns), top: stackGroups(tops), unheldMm2 }
}

const opened = (ops: PolygonOps, region: Region, width: number): Region => ops.swell(ops.offset(region, -width / 2), width / 2)
