/**
 * A part is held from its low end up to `heldTo` of its length and loaded from `loadedFrom` on; sections in there are not
 * judged.
 */
export interface Grip {
  readonly heldTo: number
  readonly loadedFrom: number
}
export const usualGrip: Grip = { heldTo: 0.1, loadedFrom: 0.9 }

/** Sections are told by their middles; the part goes on for half a section beyond the first and the last. */
export function grips({ at }: { readonly at: Float64Array }, { heldTo, loadedFrom }: Grip): { low: number; high: number } {
  const last = at.length - 1
  const start = at[0]! - (last > 0 ? at[1]! - at[0]! : 0) / 2
  const length = at[last]! + (last > 0 ? at[last]! - at[last - 1]! : 0) / 2 - start
  return { low: start + heldTo * length, high: start + loadedFrom * length }
}
