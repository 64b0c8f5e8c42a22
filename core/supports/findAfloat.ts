import type { Contours } from '../geometry/contours'
import type { PolygonKernel, PolygonOps, Region } from '../geometry/polygon'
import { bodiesOf, holds, regionOf } from '../geometry/polygonsOf'
import { beltAt } from '../mesh/tiltedBelt'
import { type Layers, layerCount } from '../slicing/layers'
import type { SupportSettings, Supports } from './supports'

/** A body that begins with nothing under it. */
export interface Afloat {
  /** Where it begins, mm above the bed. */
  readonly zMm: number
  /** Of its first layer, mm². */
  readonly areaMm2: number
  /** How far it grows before it meets something that stands, mm; all of its height where it never does. */
  readonly aloneMm: number
}

/** A body may begin so far beside what bears it, as a line that is pressed flat does, in line widths. */
const BESIDE = 0.5
/** A body that begins within this of a tilted belt lies on it, mm. */
const ON_BELT = 0.5
/** Points of a rim that are tried before its whole area is. */
const TRIED = 16

/** Bodies of a layer that lie on nothing: neither on the layer below, nor on the bed or belt, nor on a support. */
export function findAfloat(layers: Layers, support: Supports, settings: SupportSettings, kernel: PolygonKernel): Afloat[] {
  const { outlines, top, height, belt } = layers
  const found: Afloat[] = []
  for (let layer = 1; layer < layerCount(layers); layer++) {
    const below = bodiesOf(outlines, layer - 1)
    for (const body of bodiesOf(outlines, layer)) {
      if (below.some((other) => surelyMeet(body, other))) continue
      if (belt && leastY(body) < beltAt(belt, top[layer]!) + ON_BELT) continue
      kernel.run((ops) => {
        const area = regionOf(ops, body)
        const near = ops.swell(area, BESIDE * settings.lineWidth)
        if (meet(ops, near, outlines, layer - 1) || isHeld(ops, near, layer, support, settings)) return
        const end = joinsAt(ops, area, layer, outlines)
        const foot = top[layer]! - height[layer]!
        found.push({ zMm: foot, areaMm2: ops.area(area), aloneMm: top[end - 1]! - foot })
      })
    }
  }
  return found
}

/** Whether a few points of either show that two bodies overlap; they may do so all the same where none does. */
const surelyMeet = (a: readonly Float64Array[], b: readonly Float64Array[]): boolean => someIn(a[0]!, b) || someIn(b[0]!, a)

function someIn(rim: Float64Array, body: readonly Float64Array[]): boolean {
  const step = 2 * Math.max(1, Math.floor(rim.length / 2 / TRIED))
  for (let i = 0; i < rim.length; i += step)
    if (body.reduce((inside, own) => inside !== holds(own, rim[i]!, rim[i + 1]!), false)) return true
  return false
}

function leastY([outer]: readonly Float64Array[]): number {
  let least = Infinity
  for (let i = 1; i < outer!.length; i += 2) least = Math.min(least, outer![i]!)
  return least
}

const meet = (ops: PolygonOps, area: Region, contours: Contours, group: number): boolean =>
  !ops.isEmpty(ops.intersect(area, ops.read(contours, group)))

function isHeld(ops: PolygonOps, area: Region, layer: number, { body, top }: Supports, { supportGapLayers }: SupportSettings): boolean {
  for (let under = layer - 1; under >= Math.max(0, layer - 1 - supportGapLayers); under--)
    if (meet(ops, area, body, under) || meet(ops, area, top, under)) return true
  return false
}

/** The layer on which what grows from an area meets another body of the layer below it; the one after the last where it never does. */
function joinsAt(ops: PolygonOps, from: Region, layer: number, outlines: Contours): number {
  let own = from
  for (let next = layer + 1; next < outlines.groupStart.length - 1; next++) {
    const grown = bodiesOf(outlines, next)
      .map((body) => regionOf(ops, body))
      .filter((body) => !ops.isEmpty(ops.intersect(body, own)))
    if (grown.length === 0) return next
    const all = ops.gather(grown)
    const others = ops.subtract(ops.read(outlines, next - 1), own)
    if (!ops.isEmpty(ops.intersect(all, others))) return next
    own = all
  }
  return outlines.groupStart.length - 1
}
