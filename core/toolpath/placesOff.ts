import type { Toolpath } from './toolpath'

/** Which of so many overrides hold of nothing that is laid, as their places in the list. */
export function placesOff({ sets, scope, area }: Toolpath, overrides: number): number[] {
  const met = new Uint8Array(sets.length)
  for (let m = 0; m < scope.length; m++) if (area[m]! > 0) met[scope[m]!] = 1
  const held = new Set(sets.flatMap((set, own) => (met[own] === 1 ? set : [])))
  return Array.from({ length: overrides }, (_, i) => i).filter((i) => !held.has(i))
}
