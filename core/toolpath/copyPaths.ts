import type { BeltLine } from '../mesh/tiltedBelt'
import { repeatLayer } from './repeatLayer'
import { type Toolpath, ToolpathBuilder } from './toolpath'

export interface CopySettings {
  readonly copies: number
  readonly copyOrder: 'together' | 'oneAtATime'
  readonly copyGap: number
  readonly liftHeight: number
}

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
      // Back and forth over the copies: the last one goes on as the first of the next layer.
      const order = layer % 2 === 0 ? places : places.toReversed()
      for (const [i, [x, y]] of order.entries()) repeatLayer(out, { path, layer, at: { x, y }, goesOn: layer > 0 && i === 0 })
    }
  } else {
    const top = path.z.reduce((most, z) => Math.max(most, z), 0) + CLEARANCE
    for (const [i, [x, y]] of places.entries()) {
      // On a belt the next copy lies farther along, so its layers come after those of the last.
      const up = belt ? (y - places[0]![1]) / Math.hypot(1, belt.slope) : 0
      const at = belt ? { x, y: up * belt.slope, z: up } : { x, y }
      for (let layer = 0; layer < layers; layer++) {
        out.startLayer(layer)
        repeatLayer(out, { path, layer, at, goesOn: layer > 0, over: layer === 0 && i > 0 && !belt ? top : 0 })
      }
    }
  }
  return out.finish(path.sets)
}
