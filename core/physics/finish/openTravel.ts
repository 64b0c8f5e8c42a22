import type { Contours } from '../../geometry/contours'
import { leavesPart } from '../../toolpath/leavesPart'
import { code, type Toolpath } from '../../toolpath/toolpath'

/** Travel over open air, by the scope that it is run in. Strings grow with the root of a way, so roots are summed beside ways. */
export interface OpenTravel {
  /** With filament at the nozzle's mouth. */
  readonly open: Ways
  /** With filament pulled back. */
  readonly pulled: Ways
}

export interface Ways {
  readonly count: Float64Array
  /** mm */
  readonly length: Float64Array
  /** Σ √mm */
  readonly roots: Float64Array
}

type Place = readonly [x: number, y: number]

/**
 * Travels that cross open air, within each copy and from one to the next.
 *
 * @param outlines of one part, one group a layer
 * @param places of the copies, mm; layers repeat where these are printed one after another
 * @param leastTravel mm; over shorter ways no string forms
 */
export function openTravel(path: Toolpath, outlines: Contours, places: readonly Place[], leastTravel: number): OpenTravel {
  const { x, y, feature, scope, sets, layerStart } = path
  const travel = { open: noWays(sets.length), pulled: noWays(sets.length) }
  const layers = outlines.groupStart.length - 1
  let isPulled = false
  for (let layer = 0; layer < layerStart.length - 1; layer++) {
    for (let m = layerStart[layer]!; m < layerStart[layer + 1]!; m++) {
      const kind = feature[m]!
      if (kind === code.retract) isPulled = true
      else if (kind === code.pushBack) isPulled = false
      if (kind !== code.travel) continue
      const length = Math.hypot(x[m + 1]! - x[m]!, y[m + 1]! - y[m]!)
      if (length < leastTravel) continue
      const [fromX, fromY] = nearest(places, x[m]!, y[m]!)
      const to = nearest(places, x[m + 1]!, y[m + 1]!)
      const staysOnCopy = to[0] === fromX && to[1] === fromY
      if (staysOnCopy && !leavesPart(outlines, layer % layers, x[m]! - fromX, y[m]! - fromY, x[m + 1]! - fromX, y[m + 1]! - fromY)) continue
      const ways = isPulled ? travel.pulled : travel.open
      ways.count[scope[m]!]!++
      ways.length[scope[m]!]! += length
      ways.roots[scope[m]!]! += Math.sqrt(length)
    }
  }
  return travel
}

const noWays = (scopes: number): Ways => ({
  count: new Float64Array(scopes),
  length: new Float64Array(scopes),
  roots: new Float64Array(scopes),
})

function nearest(places: readonly Place[], x: number, y: number): Place {
  let best = places[0]!
  let least = Infinity
  for (const place of places) {
    const squared = (place[0] - x) ** 2 + (place[1] - y) ** 2
    if (squared < least) {
      least = squared
      best = place
    }
  }
  return best
}
