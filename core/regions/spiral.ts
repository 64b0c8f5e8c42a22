import { type Contours, polygonArea } from '../geometry/contours'
import { oneGroup } from '../geometry/oneGroup'
import type { PolygonKernel } from '../geometry/polygon'
import type { Settings } from '../profile/settings'
import { InputError } from '../units/errors'

type SpiralSettings = Pick<Settings, 'spiralWall' | 'bottomLayers'>

/** The first layer of a spiral wall: it stands on one layer at least. */
export const spiralFrom = ({ bottomLayers }: Pick<Settings, 'bottomLayers'>): number => Math.max(1, bottomLayers)

/** Whether a layer is one turn of a wall that rises as one line. */
export const isSpiral = (layer: number, settings: SpiralSettings): boolean => settings.spiralWall === 'on' && layer >= spiralFrom(settings)

/**
 * The middle of a vessel's wall on a layer, one closed line: of what is modelled as solid and of what is modelled hollow alike, whose hollow is left.
 *
 * @throws InputError where the layer is no vessel's: several bodies, or more than one hole
 */
export function vesselWall(outlines: Contours, layer: number, z: number, width: number, kernel: PolygonKernel): Contours {
  const bodies: number[] = []
  let holes = 0
  for (let p = outlines.groupStart[layer]!; p < outlines.groupStart[layer + 1]!; p++)
    if (polygonArea(outlines, p) > 0) bodies.push(p)
    else holes++
  if (bodies.length !== 1 || holes > 1)
    throw noVessel(
      z,
      bodies.length === 0 ? 'there is nothing' : bodies.length > 1 ? `there are ${bodies.length} bodies` : `there are ${holes} holes`,
    )
  const wall = oneGroup(kernel, (ops) => ops.offset(ops.read(only(outlines, bodies[0]!), 0), -width / 2))
  const count = wall.polygonStart.length - 1
  if (count !== 1) throw noVessel(z, count === 0 ? 'it is thinner than the line' : 'it falls into pieces thinner than the line')
  return wall
}

const only = ({ xy, polygonStart }: Contours, polygon: number): Contours => {
  const own = xy.subarray(2 * polygonStart[polygon]!, 2 * polygonStart[polygon + 1]!)
  return { xy: own, polygonStart: Uint32Array.of(0, own.length / 2), groupStart: Uint32Array.of(0, 1) }
}

const noVessel = (z: number, why: string): InputError =>
  new InputError(
    'no-vessel',
    `The part is no vessel for a spiral wall: at z ${z.toFixed(1)} mm ${why}.`,
    'spiralWall',
    'Turn the spiral wall off, or raise the bottom layers above that height.',
  )
