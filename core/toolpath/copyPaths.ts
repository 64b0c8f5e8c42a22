import type { BeltLine } from '../mesh/tiltedBelt'
import { code, type Toolpath, ToolpathBuilder } from './toolpath'

export interface CopySettings {
  readonly copies: number
  readonly copyOrder: 'together' | 'oneAtATime'
  readonly copyGap: number
  readonly liftHeight: number
}

/** How far a copy is moved in the frame of its layers, mm. */
type Place = readonly [x: number, y: number, z: number]

/** Nozzle clears what is already printed by this much when it goes from one finished copy to the next, mm. */
const CLEARANCE = 2

/**
 * Where the copies of a part stand, the middle of all at x = y = 0; x, y per copy, mm. On a level bed in rows as square as
 * they can be; on a tilted belt side by side across it, or, one at a time, behind each other along it.
 */
export function copyPlaces(
  size: readonly [number, number, number],
  { copies, copyGap: gap, copyOrder }: CopySettings,
  belt?: BeltLine,
): [number, number][] {
  if (belt) {
    // Each begins where the layers of the one before it have ended: these lean over the belt by the part's height.
    const pitch = copyOrder === 'together' ? 0 : size[1] - size[2] * belt.slope + gap
    return Array.from({ length: copies }, (_, i) =>
      copyOrder === 'together' ? [(i - (copies - 1) / 2) * (size[0] + gap), 0] : [0, (i - (copies - 1) / 2) * pitch],
    )
  }
  const [pitchX, pitchY] = [size[0] + gap, size[1] + gap]
  let columns = 1
  // The number of columns that makes the longer side of the whole the shortest.
  const longerSide = (n: number): number => Math.max(n * pitchX, Math.ceil(copies / n) * pitchY)
  for (let n = 2; n <= copies; n++) if (longerSide(n) < longerSide(columns)) columns = n
  const rows = Math.ceil(copies / columns)
  return Array.from({ length: copies }, (_, i) => [
    ((i % columns) - (columns - 1) / 2) * pitchX,
    (Math.floor(i / columns) - (rows - 1) / 2) * pitchY,
  ])
}

/**
 * Repeats one part's path for every copy: layer by layer, or one whole copy after another. Between copies filament is
 * pulled back; from one finished copy to the next the nozzle rises above everything first.
 */
export function copyPaths(path: Toolpath, size: readonly [number, number, number], settings: CopySettings, belt?: BeltLine): Toolpath {
  const { copies, copyOrder } = settings
  if (copies <= 1) return path
  const places = copyPlaces(size, settings, belt)
  const out = new ToolpathBuilder()
  const layers = path.layerStart.length - 1
  out.startAt(0, 0, 0)
  if (copyOrder === 'together') {
    for (let layer = 0; layer < layers; layer++) {
      out.startLayer()
      // Back and forth over the copies, so that none is far from the next.
      const order = layer % 2 === 0 ? places : places.toReversed()
      for (const place of order) appendLayer(out, path, layer, [...place, 0], 0)
    }
  } else {
    const top = path.z.reduce((most, z) => Math.max(most, z), 0) + CLEARANCE
    for (const [i, [x, y]] of places.entries()) {
      // On a belt the next copy lies farther along, so its layers come after those of the last.
      const up = belt ? (y - places[0]![1]) / Math.hypot(1, belt.slope) : 0
      const place: Place = belt ? [x, up * belt.slope, up] : [x, y, 0]
      for (let layer = 0; layer < layers; layer++) {
        out.startLayer()
        appendLayer(out, path, layer, place, layer === 0 && i > 0 && !belt ? top : 0)
      }
    }
  }
  return out.finish(path.sets)
}

/** Repeats one layer at a place. Where the nozzle comes from elsewhere it travels there with filament pulled back. */
function appendLayer(out: ToolpathBuilder, path: Toolpath, layer: number, [dx, dy, dz]: Place, over: number): void {
  const { x, y, z, feature, area, width, air, scope } = path
  const end = path.layerStart[layer + 1]!
  let first = path.layerStart[layer]!
  // Up to the first line of the layer; how the one part came there does not matter here.
  while (first < end && area[first] === 0) first++
  if (first === end) return
  const startZ = z[first]! + dz
  const away = Math.hypot(x[first]! + dx - out.atX, y[first]! + dy - out.atY) > 1e-9
  const pulls = away && out.atZ > 0
  if (pulls) out.inPlace(code.retract)
  if (over > 0) out.rise(over)
  else out.rise(startZ)
  if (away) out.moveTo(x[first]! + dx, y[first]! + dy)
  out.rise(startZ)
  if (pulls) out.inPlace(code.pushBack)
  for (let m = first; m < end; m++) {
    out.scopeNow = scope[m]!
    const lifted = z[m + 1]! - z[m]!
    if (area[m]! > 0) {
      out.layTo(x[m + 1]! + dx, y[m + 1]! + dy, feature[m]!, area[m]!, width[m]!, air[m]!)
      if (lifted !== 0) out.riseSince(out.count - 1, z[m + 1]! + dz)
    } else if (lifted !== 0) out.rise(z[m + 1]! + dz)
    else if (feature[m] === code.retract || feature[m] === code.pushBack) out.inPlace(feature[m]!)
    else out.moveTo(x[m + 1]! + dx, y[m + 1]! + dy, feature[m]!, width[m]!)
  }
}
