import type { Contours } from '../geometry/contours'
import { oneGroup } from '../geometry/oneGroup'
import type { PolygonKernel, PolygonOps, Region } from '../geometry/polygon'
import { holds } from '../geometry/polygonsOf'
import type { Scopes } from '../profile/overrides'
import { cornersOf, isIn, type Patch } from '../profile/patch'
import type { SettingName } from '../profile/settings'
import type { Layers } from './layers'

/** A part of a layer in which the same overrides hold: a single group of contours, and its scope. */
export interface Zone {
  readonly contours: Contours
  readonly scope: number
}

/** Overrides that cover a part of a layer, and change one of these settings where it is asked for. */
export function patchesOn(layers: Layers, layer: number, scopes: Scopes, changes?: (name: SettingName) => boolean): Patch[] {
  const patches = scopes.partialAt(middleOf(layers, layer), layers.belt)
  return changes ? patches.filter(({ override }) => (Object.keys(override.values) as SettingName[]).some(changes)) : patches
}

/** Overrides that cover a layer as a whole. */
export const scopeOn = (layers: Layers, layer: number, scopes: Scopes): number => scopes.ofLayer(middleOf(layers, layer), layers.belt)

/** Pictures that lie on a layer, and at what height of them it is, mm. */
export function picturesOn(
  layers: Layers,
  layer: number,
  scopes: Scopes,
): (ReturnType<Scopes['picturesAt']>[number] & { readonly z: number })[] {
  const z = middleOf(layers, layer)
  return scopes.picturesAt(z, layers.belt).map((own) => ({ ...own, z }))
}

/** Scope of a place of a layer, mm. */
export function scopeAt(layers: Layers, layer: number, x: number, y: number, scopes: Scopes): number {
  const here = patchesOn(layers, layer, scopes).filter((patch) => isIn(patch, x, y))
  return here.reduce((scope, { of }) => scopes.with(scope, of), scopeOn(layers, layer, scopes))
}

const middleOf = ({ top, height }: Layers, layer: number): number => top[layer]! - height[layer]! / 2

/** Divides a group of contours at the rims of patches. */
export function zonesOf(
  contours: Contours,
  group: number,
  { scope: layerScope, patches, scopes }: { readonly scope: number; readonly patches: readonly Patch[]; readonly scopes: Scopes },
  kernel: PolygonKernel,
): Zone[] {
  let zones: Zone[] = [{ contours: oneGroup(kernel, (ops) => ops.read(contours, group)), scope: layerScope }]
  for (const patch of patches) {
    const rim = cornersOf(patch)
    if (rim.length === 0) continue
    const cut = (zone: Zone, by: (ops: PolygonOps, a: Region, b: Region) => Region): Contours =>
      oneGroup(kernel, (ops) => by(ops, ops.read(zone.contours, 0), ops.polygon(rim)))
    zones = zones
      .flatMap((zone) => [
        { contours: cut(zone, (ops, a, b) => ops.intersect(a, b)), scope: scopes.with(zone.scope, patch.of) },
        { contours: cut(zone, (ops, a, b) => ops.subtract(a, b)), scope: zone.scope },
      ])
      .filter(({ contours }) => contours.xy.length > 0)
  }
  return zones
}

/** Whether a zone holds a point: even-odd rule over all of its rims. */
export function zoneHolds({ xy, polygonStart }: Contours, x: number, y: number): boolean {
  let inside = false
  for (let p = 0; p < polygonStart.length - 1; p++)
    if (holds(xy.subarray(2 * polygonStart[p]!, 2 * polygonStart[p + 1]!), x, y)) inside = !inside
  return inside
}
