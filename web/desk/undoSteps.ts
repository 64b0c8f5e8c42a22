import type { LineupContent } from '@sable/contract/lineup'

/** Steps that are kept of each lineup, and how much that may be, characters: what a browser holds for a page. */
const MOST_STEPS = 60
const MOST_TEXT = 1_500_000
const keyOf = (lineupId: string): string => `sable.undo.${lineupId}`

/** What can be taken back and done again, as it stands beside the content that it belongs to. */
export interface UndoSteps {
  readonly past: readonly (LineupContent | undefined)[]
  readonly future: readonly (LineupContent | undefined)[]
}

interface Kept extends UndoSteps {
  readonly content: string
}

/** Steps of undo outlive leaving the place and a reload, for as long as the page's own tab is open. */
export const undoSteps = {
  keep(lineupId: string, content: LineupContent, { past, future }: UndoSteps): void {
    try {
      const kept: Kept = { content: JSON.stringify(content), past: past.slice(-MOST_STEPS), future: future.slice(-MOST_STEPS) }
      const text = JSON.stringify(kept)
      if (text.length <= MOST_TEXT) sessionStorage.setItem(keyOf(lineupId), text)
      else sessionStorage.removeItem(keyOf(lineupId))
    } catch {
      // A browser that keeps nothing has its undo until the page is left.
    }
  },

  /** Those of a lineup, if it stands as it did then: what somebody else has changed is not taken back by them. */
  of(lineupId: string, content: LineupContent): UndoSteps | undefined {
    try {
      const kept = JSON.parse(sessionStorage.getItem(keyOf(lineupId)) ?? 'null') as Kept | null
      return kept && kept.content === JSON.stringify(content) ? { past: kept.past, future: kept.future } : undefined
    } catch {
      return undefined
    }
  },
}
