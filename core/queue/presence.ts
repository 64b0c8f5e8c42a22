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

/** The first of merged windows that ends after a moment; their count where none does. */
function firstAfter(windows: readonly Window[], moment: number): number {
  let [low, high] = [0, windows.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if (windows[middle]!.to > moment) high = middle
    else low = middle + 1
  }
  return low
}

/**
 * The first moment not before another one at which a print can be started: somebody is there then, and has been for as long as making ready
 * takes. Infinity where nobody comes any more.
 *
 * @param windows merged; nothing where somebody is always there
 */
export function startFrom(earliest: number, setUp: number, windows: readonly Window[] | undefined): number {
  if (!windows) return earliest
  for (let i = firstAfter(windows, earliest); i < windows.length; i++) {
    const { from, to } = windows[i]!
    const start = Math.max(earliest, from + setUp)
    if (start < to) return start
  }
  return Number.POSITIVE_INFINITY
}

/** The quiet hours, merged, into which something would reach that begins at a moment and lasts so long. */
export function disturbs(quiet: readonly Window[], start: number, lasts: number): Window | undefined {
  const next = quiet[firstAfter(quiet, start)]
  return next && start + lasts > next.from + 1e-9 ? next : undefined
}

/** As `startFrom`, of something that lasts so long and must be over before quiet hours begin. */
export function startInPeace(
  earliest: number,
  setUp: number,
  lasts: number,
  windows: readonly Window[] | undefined,
  quiet: readonly Window[],
): number {
  for (let from = earliest; ; ) {
    const start = startFrom(from, setUp, windows)
    const hit = Number.isFinite(start) ? disturbs(quiet, start, lasts) : undefined
    if (!hit) return start
    from = hit.to
  }
}

/** The longest time between two of these windows, and before the first; those at the end are followed by another day of them. */
export const longestGap = (quiet: readonly Window[]): number =>
  quiet.reduce((most, { from }, i) => Math.max(most, from - (quiet[i - 1]?.to ?? 0)), 0)
