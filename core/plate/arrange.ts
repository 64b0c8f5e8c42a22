import { MaxRectsPacker } from 'maxrects-packer/dist/maxrects-packer.mjs'
import { InputError } from '../units/errors'
import { extentOf, type Footprint, placedFootprint } from './footprint'
import { gapFor, USUAL_GAP } from './gapFor'
import type { PlateOrder, Standing } from './platePart'
import type { PlateRoom } from './turns'

/** As a person would write it, mm. */
const tenth = (mm: number): number => Math.round(10 * mm) / 10

/**
 * Puts parts beside each other in the middle of the bed, each turned as it is told to be.
 *
 * @param parts footprints and turns, °, about x = y = 0
 * @throws InputError where they do not fit
 */
export function arranged(
  parts: readonly { readonly footprint: Footprint; readonly turn: number; readonly heightMm: number; readonly name: string }[],
  order: PlateOrder,
  room: PlateRoom,
): Standing[] {
  const { buildVolume } = room
  const gap = gapFor(parts, order, room)
  const extents = parts.map(({ footprint, turn }) => extentOf(placedFootprint(footprint, { x: 0, y: 0, turn })))
  const packer = new MaxRectsPacker(buildVolume[0], buildVolume[1], gap, {
    smart: true,
    pot: false,
    square: false,
    allowRotation: false,
  })
  for (const [i, { minX, maxX, minY, maxY }] of extents.entries()) packer.add(maxX - minX, maxY - minY, i)
  const [bin] = packer.bins
  if (packer.bins.length > 1 || !bin || bin.rects.some(({ oversized }) => oversized)) {
    const left = packer.bins.slice(1).flatMap(({ rects }) => rects.map(({ data }) => parts[data as number]!.name))
    throw new InputError(
      'plate-full',
      `Not all parts fit on the bed of ${room.name}, ${gap} mm apart${left.length > 0 ? `: no room is left for ${left.join(', ')}` : ''}.`,
      'plate',
      order === 'inTurn' && gap > USUAL_GAP
        ? 'Print them together, where they may stand closer, or take one away.'
        : 'Take one away, or a larger printer.',
    )
  }
  const width = Math.max(...bin.rects.map((rect) => rect.x + rect.width))
  const depth = Math.max(...bin.rects.map((rect) => rect.y + rect.height))
  const standing: Standing[] = []
  for (const { x, y, data } of bin.rects) {
    const i = data as number
    standing[i] = { x: tenth(x - width / 2 - extents[i]!.minX), y: tenth(y - depth / 2 - extents[i]!.minY), turn: parts[i]!.turn }
  }
  return standing
}
