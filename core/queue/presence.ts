import type { Window } from './queue'

/** Windows in their order, those that touch made one; empty ones are left out. */
export function mergedWindows(windows: readonly Window[]): Window[] {
  const merged: { from: number; to: number }[] = []
  for (const { from, to } of [...windows].sort((a, b) => a.from - b.from)) {
    if (!(to > from)) continue
    const last = merged.at(-1)
    if (last && from <= last.to) last.to = Math.max(last.to, to)
    else merged.push({ from, to })
  }
  return merged
}

/**
 * The first moment not before another one at which a print can be started: somebody is there then, and has been for as long as making ready
 * takes. Infinity where nobody comes any more.
 *
 * @param windows merged; nothing where somebody is always there
 */
export function startFrom(earliest: number, setUp: number, windows: readonly Window[] | undefined): number {
  if (!windows) return earliest
  let [low, high] = [0, windows.length]
  // The first window that ends after it.
  while (low < high) {
    const middle = (low + high) >> 1
    if (windows[middle]!.to > earliest) high = middle
    else low = middle + 1
  }
  for (let i = low; i < windows.length; i++) {
    const { from, to } = windows[i]!
    const start = Math.max(earliest, from + setUp)
    if (start < to) return start
  }
  return Number.POSITIVE_INFINITY
}
