import type { Lineup, LineupContent } from '@sable/contract/lineup'
import type { Problem } from '@sable/contract/problem'
import { temporal } from 'zundo'
import { create } from 'zustand'

export type SaveState =
  | { readonly kind: 'saved' }
  | { readonly kind: 'saving' }
  | { readonly kind: 'waiting'; readonly problem: Problem }
  | { readonly kind: 'conflict'; readonly theirs: Lineup }

/** The desk: the lineup that is open, as it stands on screen. Only `content` can be undone. */
export interface Desk {
  readonly lineupId: string | undefined
  /** Revision on the server that the content started from. */
  readonly revision: number
  readonly content: LineupContent | undefined
  readonly save: SaveState
}

export const useDesk = create<Desk>()(
  temporal((): Desk => ({ lineupId: undefined, revision: 0, content: undefined, save: { kind: 'saved' } }), {
    partialize: ({ content }) => ({ content }),
    equality: (before, after) => before.content === after.content,
    limit: 500,
  }),
)

/** Opens a lineup. What was done to another one cannot be undone here. */
export function openLineup(lineup: Lineup): void {
  useDesk.setState({ lineupId: lineup.id, revision: lineup.revision, content: contentOf(lineup), save: { kind: 'saved' } })
  useDesk.temporal.getState().clear()
}

/** Changes the open lineup; an edit that changes nothing leaves no step behind. */
export function edit(change: (content: LineupContent) => LineupContent): void {
  const { content } = useDesk.getState()
  if (!content) return
  const changed = change(content)
  if (changed !== content && JSON.stringify(changed) !== JSON.stringify(content)) useDesk.setState({ content: changed })
}

export const undo = (): void => useDesk.temporal.getState().undo()
export const redo = (): void => useDesk.temporal.getState().redo()

export const contentOf = ({ name, partId, placement, purpose, candidates }: Lineup): LineupContent => ({
  name,
  partId,
  placement,
  purpose,
  candidates,
})
