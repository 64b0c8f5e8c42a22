import type { PlateOrder } from './platePart'
import type { PlateRoom } from './turns'

/** Parts stand so far apart where nothing asks for more, mm: skirts and brims stay apart, and fingers get between them. */
export const USUAL_GAP = 4

/** How far apart parts are put, mm: as far as the head needs where two of them are higher than it clears, and are printed in turn. */
export function gapFor(parts: readonly { readonly heightMm: number }[], order: PlateOrder, { clearance }: PlateRoom): number {
  if (order === 'together' || !clearance) return USUAL_GAP
  const high = parts.filter(({ heightMm }) => heightMm > clearance.height).length
  return high > 1 ? Math.max(USUAL_GAP, clearance.radius) : USUAL_GAP
}
