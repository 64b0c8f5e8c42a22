import { type Contours, ContoursBuilder } from '../geometry/contours'
import type { PolygonKernel, PolygonOps, Region } from '../geometry/polygon'
import { Rims, thin } from '../geometry/rims'
import { slidingIntersection } from '../geometry/slidingIntersection'
import type { Scopes } from '../profile/overrides'
import type { Block } from '../slicing/blocks'
import { type Layers, layerCount } from '../slicing/layers'
import { patchesOn, scopeOn, zonesOf } from '../slicing/zones'
import { bridgeAngles } from './findBridges'
import { isOfRegions } from './layWalls'
import { SKIN_TOLERANCE, widthOn } from './walls'

export interface SolidSettings {
  readonly lineWidth: number
  readonly firstLayerWidth: number
  readonly topLayers: number
  readonly bottomLayers: number
  readonly ironing: 'off' | 'on'
}

export interface Inside {
  /** Laid solid: within reach of a surface that faces up or down. */
  readonly topBottom: Contours
  /** A bottom that spans open air between two rims of the layer below. */
  readonly bridges: Contours
  /** Direction of the lines of each bridge, radians; one entry a polygon of `bridges`. */
  readonly bridgeAngle: Float32Array
  /** Mean free length of its lines, mm; one entry a polygon of `bridges`. */
  readonly bridgeSpan: Float32Array
  /** Surfaces that face up and are smoothed once they are laid; empty unless asked for. */
  readonly ironed: Contours
  /** The rest. */
  readonly infill: Contours
}

/** A top or bottom narrower than this share of a line's width cannot be laid and is left to the infill. */
const LEAST_SOLID = 0.9
/** A bottom over air narrower than this many line widths is an overhang of the walls, no bridge. */
const LEAST_BRIDGE = 2
/** A bridge is laid this many line widths onto the rims that bear it. */
const BRIDGE_REST = 2

/**
 * Divides what the walls of a block of layers leave into tops and bottoms, bridges, ironed tops and infill by comparing every layer
 * with its neighbours.
 *
 * @param inside what the walls leave; one group a layer of the block, as in what is given back
 */
export function splitInside(
  layers: Layers,
  { from, to }: Block,
  inside: Contours,
  scopes: Scopes,
  kernel: PolygonKernel,
  onLayer: (done: number) => void,
): Inside {
  const { outlines } = layers
  const out = new InsideBuilder()
  const outline = new Rims()
  const thinner = new Rims()
  const everywhere = [scopes.settings, ...scopes.overrides.map(({ values }) => values)]
  const above = everywhere.reduce((most, { topLayers = 0 }) => Math.max(most, topLayers), 1)
  const below = everywhere.reduce((most, { bottomLayers = 0 }) => Math.max(most, bottomLayers), 1)
  const [low, high] = [Math.max(0, from - below), Math.min(layerCount(layers), to + above)]
  kernel.run((ops) => {
    const thinned = range(low, high).map((layer) =>
      ops.of(thin(outline.read(outlines, layer), scopes.settings.lineWidth * SKIN_TOLERANCE, thinner)),
    )
    const covered = new Map<number, readonly (Region | undefined)[]>()
    /** What all layers within reach of the tops and bottoms have in common; undefined where no top or bottom is asked for. */
    const commonTo = (layer: number, { topLayers, bottomLayers }: SolidSettings): { readonly region: Region | undefined } | undefined => {
      // A layer's inside lies in its own outline, so taking that in changes nothing and makes one window of above and below.
      const window = bottomLayers + topLayers + 1
      if (window === 1) return undefined
      if (!covered.has(window)) covered.set(window, slidingIntersection(ops, thinned, window))
      return { region: covered.get(window)![layer - bottomLayers - low] }
    }
    for (let layer = from; layer < to; layer++) {
      const scope = scopeOn(layers, layer, scopes)
      const patches = patchesOn(layers, layer, scopes, isOfRegions)
      const whole = ops.read(inside, layer - from)
      const zones = patches.length === 0 ? undefined : zonesOf(outlines, layer, { scope, patches, scopes }, kernel)
      const parts = (zones ?? [{ scope }]).map((zone) => {
        const settings = scopes.settingsOf(zone.scope)
        const own = 'contours' in zone ? ops.intersect(whole, ops.read(zone.contours, 0)) : whole
        const common = commonTo(layer, settings)
        const { topBottom, infill } = common
          ? splitLayer(ops, own, common.region, widthOn(layer, settings))
          : { topBottom: ops.empty(), infill: own }
        const top =
          settings.ironing === 'on'
            ? findOver(ops, topBottom, thinned[layer + 1 - low], widthOn(layer, settings), LEAST_SOLID)
            : ops.empty()
        return { topBottom, infill, solid: common ? topBottom : own, top }
      })
      const all = (of: (part: (typeof parts)[number]) => Region): Region => (parts.length === 1 ? of(parts[0]!) : ops.gather(parts.map(of)))
      const width = widthOn(layer, scopes.settingsOf(scope))
      const under = thinned[layer - 1 - low]
      const solid = parts.length === 1 ? all((part) => part.solid) : ops.unite(all((part) => part.solid))
      const bridges = layer === 0 ? ops.empty() : findOver(ops, solid, under, width, LEAST_BRIDGE)
      out.add(ops, { topBottom: all((part) => part.topBottom), infill: all((part) => part.infill), bridges, below: under, whole, width })
      out.addIroned(
        ops,
        all((part) => part.top),
      )
      onLayer(layer + 1 - from)
    }
  })
  return out.finish()
}

interface LayerParts {
  readonly topBottom: Region
  readonly infill: Region
  readonly bridges: Region
  readonly below: Region | undefined
  readonly whole: Region
  readonly width: number
}

class InsideBuilder {
  private readonly topBottom = new ContoursBuilder()
  private readonly infill = new ContoursBuilder()
  private readonly bridges = new ContoursBuilder()
  private readonly ironed = new ContoursBuilder()
  private readonly bridgeAngle: number[] = []
  private readonly bridgeSpan: number[] = []

  add(ops: PolygonOps, { topBottom, infill, bridges, below, whole, width }: LayerParts): void {
    let left = topBottom
    let rest = infill
    if (!ops.isEmpty(bridges) && below) {
      for (const { area, angle, span } of bridgeAngles(ops, bridges, below, width)) {
        const laid = ops.intersect(ops.offset(area, BRIDGE_REST * width), whole)
        const before = this.bridges.polygonCount
        ops.write(laid, this.bridges)
        for (let p = before; p < this.bridges.polygonCount; p++) {
          this.bridgeAngle.push(angle)
          this.bridgeSpan.push(span)
        }
        left = ops.subtract(left, laid)
        rest = ops.subtract(rest, laid)
      }
    }
    ops.write(left, this.topBottom)
    ops.write(rest, this.infill)
    for (const builder of [this.topBottom, this.infill, this.bridges]) builder.endGroup()
  }

  addIroned(ops: PolygonOps, region: Region): void {
    ops.write(region, this.ironed)
    this.ironed.endGroup()
  }

  finish(): Inside {
    return {
      topBottom: this.topBottom.finish(),
      infill: this.infill.finish(),
      bridges: this.bridges.finish(),
      bridgeAngle: Float32Array.from(this.bridgeAngle),
      bridgeSpan: Float32Array.from(this.bridgeSpan),
      ironed: this.ironed.finish(),
    }
  }
}

/** Parts of a region that the neighbouring layer does not cover, without slivers narrower than `least` line widths. */
function findOver(ops: PolygonOps, region: Region, neighbour: Region | undefined, width: number, least: number): Region {
  if (ops.isEmpty(region)) return region
  const over = neighbour && !ops.isEmpty(neighbour) ? ops.subtract(region, neighbour) : region
  if (ops.isEmpty(over)) return over
  const half = (least * width) / 2
  const kept = ops.offset(over, -half)
  return ops.isEmpty(kept) ? kept : ops.intersect(ops.offset(kept, half), region)
}

/** @param covered what all layers within reach have in common; undefined where the window leaves the part */
function splitLayer(ops: PolygonOps, whole: Region, covered: Region | undefined, width: number): { topBottom: Region; infill: Region } {
  if (ops.isEmpty(whole)) return { topBottom: whole, infill: whole }
  const exposed = !covered || ops.isEmpty(covered) ? whole : ops.subtract(whole, covered)
  if (ops.isEmpty(exposed)) return { topBottom: exposed, infill: whole }
  const half = (LEAST_SOLID * width) / 2
  const kept = ops.offset(exposed, -half)
  if (ops.isEmpty(kept)) return { topBottom: kept, infill: whole }
  const topBottom = ops.intersect(ops.offset(kept, half), whole)
  return { topBottom, infill: ops.subtract(whole, topBottom) }
}

const range = (from: number, to: number): number[] => Array.from({ length: Math.max(0, to - from) }, (_, i) => from + i)
