import { InputError } from '../units/errors'
import { type Extent, extentOf, type Footprint } from './footprint'
import { gapFor } from './gapFor'
import type { PlateOrder } from './platePart'
import type { PlateRoom, Stood } from './turns'

/** Spots are tried so far apart, mm. */
const STEP = 2

/**
 * Where another part has room beside those that stand on a plate already: the spot nearest to the middle of the bed.
 *
 * @param part its footprint about x = y = 0, as it is turned
 * @throws InputError where there is none
 */
export function freeSpot(
  stood: readonly Stood[],
  part: { readonly name: string; readonly footprint: Footprint; readonly heightMm: number },
  order: PlateOrder,
  room: PlateRoom,
): { readonly x: number; readonly y: number } {
  const gap = gapFor([...stood, part], order, room)
  const taken = stood.map(({ footprint }) => extentOf(footprint))
  const own = extentOf(part.footprint)
  const [width, depth] = room.buildVolume
  const along = (from: number, to: number): number[] => {
    const middle = (from + to) / 2
    const most = Math.floor((to - from) / 2 / STEP + 1e-9)
    return most < 0 ? [] : Array.from({ length: 2 * most + 1 }, (_, i) => middle + (i - most) * STEP)
  }
  let best: { readonly x: number; readonly y: number; readonly off: number } | undefined
  for (const x of along(-width / 2 - own.minX, width / 2 - own.maxX))
    for (const y of along(-depth / 2 - own.minY, depth / 2 - own.maxY)) {
      const off = Math.hypot(x + (own.minX + own.maxX) / 2, y + (own.minY + own.maxY) / 2)
      if (best && off >= best.off) continue
      if (taken.every((other) => isClear(other, own, x, y, gap))) best = { x, y, off }
    }
  if (best) return { x: Math.round(10 * best.x) / 10, y: Math.round(10 * best.y) / 10 }
  throw new InputError(
    'plate-full',
    `There is no room left for ${part.name} on the bed of ${room.name}, ${gap} mm from the others.`,
    'plate',
    'Let the parts be arranged closer, take one off, or begin another plate.',
  )
}

const isClear = (other: Extent, { minX, maxX, minY, maxY }: Extent, x: number, y: number, gap: number): boolean =>
  x + minX >= other.maxX + gap || x + maxX <= other.minX - gap || y + minY >= other.maxY + gap || y + maxY <= other.minY - gap
