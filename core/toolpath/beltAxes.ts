import { type BeltLine, beltAt } from '../mesh/tiltedBelt'
import { layerTop, type Toolpath } from './toolpath'

/**
 * A path of level layers as a tilted machine runs it: x across the belt, y along the gantry from where it meets the belt,
 * z the way of the belt. The belt must go on by the layer's height over the sine of the angle between gantry and belt.
 *
 * Rising, to the next layer or over something, is done by the belt alone: moved straight off its layer the nozzle would
 * come nearer to the belt.
 */
export function toBeltAxes(path: Toolpath, belt: BeltLine): Toolpath {
  const perHeight = Math.hypot(1, belt.slope)
  const y = new Float64Array(path.y.length)
  for (let layer = 0; layer < path.layerStart.length - 1; layer++) {
    const foot = beltAt(belt, layerTop(path, layer))
    let risen = false
    for (let m = path.layerStart[layer]!; m < path.layerStart[layer + 1]!; m++) {
      risen ||= path.x[m + 1] !== path.x[m] || path.y[m + 1] !== path.y[m]
      y[m + 1] = risen ? path.y[m + 1]! - foot : y[m]!
    }
  }
  return { ...path, y, z: path.z.map((z) => z * perHeight) }
}
