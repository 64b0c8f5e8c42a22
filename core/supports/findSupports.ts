import { type Contours, emptyContours } from '../geometry/contours'
import { oneGroup } from '../geometry/oneGroup'
import type { PolygonKernel, PolygonOps, Region } from '../geometry/polygon'
import { stackGroups } from '../geometry/stackGroups'
import type { Scopes } from '../profile/overrides'
import type { SettingName } from '../profile/settings'
import { type Layers, layerCount } from '../slicing/layers'
import { patchesOn, scopeOn, type Zone, zonesOf } from '../slicing/zones'
import { growBranches } from './growBranches'
import { type SupportSettings, type Supports, supportKind } from './supports'

/** Spans up to this length, mm, are left to bridging; semi-empirical. */
const LONGEST_FREE_SPAN = 25

/** Finds what leans more than the support angle and builds what holds it. */
export function findSupports(
  layers: Layers,
  bridges: { readonly bridges: Contours; readonly bridgeSpan: Float32Array },
  scopes: Scopes,
  kernel: PolygonKernel,
  onLayer: (done: number) => void = () => {},
): Supports {
  const count = layerCount(layers)
  const nothing = emptyContours(count)
  const { settings } = scopes
  const kind = supportKind(scopes)
  if (kind === undefined) return { body: nothing, top: nothing, unheldMm2: 0 }
  const over = findOverhangs(layers, bridges, scopes, kernel)
  return kind === 'plain' ? buildColumns(layers, over, settings, kernel, onLayer) : growBranches(layers, over, settings, kernel, onLayer)
}

/** What of places changes what is held. */
const changesOverhangs = (name: SettingName): boolean => name === 'supports' || name === 'supportAngle'

/** Per layer what hangs farther out than the angle there allows, less what is bridged and what is not to be held. */
function findOverhangs(
  layers: Layers,
  { bridges, bridgeSpan }: { readonly bridges: Contours; readonly bridgeSpan: Float32Array },
  scopes: Scopes,
  kernel: PolygonKernel,
): Contours[] {
  const { lineWidth } = scopes.settings
  return Array.from({ length: layerCount(layers) }, (_, layer) => {
    const scope = scopeOn(layers, layer, scopes)
    const patches = patchesOn(layers, layer, scopes, changesOverhangs)
    const zones: readonly Zone[] | undefined =
      patches.length === 0 ? undefined : zonesOf(layers.outlines, layer, { scope, patches, scopes }, kernel)
    return oneGroup(kernel, (ops) => {
      if (layer === 0) return ops.empty()
      const below = ops.simplify(ops.read(layers.outlines, layer - 1), lineWidth / 8)
      const hangingIn = (contours: Contours, group: number, { supports, supportAngle }: SupportSettings): Region => {
        if (supports === 'off') return ops.empty()
        const reach = layers.height[layer]! * Math.tan((supportAngle * Math.PI) / 180)
        const own = ops.simplify(ops.read(contours, group), lineWidth / 8)
        const borne = ops.offset(below, reach)
        return ops.isEmpty(borne) ? own : ops.subtract(own, borne)
      }
      const hanging = zones
        ? ops.gather(zones.map((zone) => hangingIn(zone.contours, 0, scopes.settingsOf(zone.scope))))
        : hangingIn(layers.outlines, layer, scopes.settingsOf(scope))
      if (ops.isEmpty(hanging)) return hanging
      const spans: Region[] = []
      for (let p = bridges.groupStart[layer]!; p < bridges.groupStart[layer + 1]!; p++)
        if (bridgeSpan[p]! <= LONGEST_FREE_SPAN)
          spans.push(ops.polygon(bridges.xy.subarray(2 * bridges.polygonStart[p]!, 2 * bridges.polygonStart[p + 1]!)))
      // The walls around a bridge hang over the same air.
      return spans.length === 0 ? hanging : ops.subtract(hanging, ops.offset(ops.gather(spans), 4 * lineWidth))
    })
  })
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
