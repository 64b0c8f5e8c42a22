import type { Lineup, LineupContent } from '@sable/contract/lineup'
import type { Problem } from '@sable/contract/problem'
import { temporal } from 'zundo'
import { create } from 'zustand'
import { undoSteps } from './undoSteps'

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

// Steps are kept as they are made: a reload must not take undo away.
useDesk.temporal.subscribe(({ pastStates, futureStates }) => {
  const { lineupId, content } = useDesk.getState()
  if (opening || !lineupId || !content) return
  undoSteps.keep(lineupId, content, {
    past: pastStates.map((state) => state.content),
    future: futureStates.map((state) => state.content),
  })
})
let opening = false

/** Opens a lineup, with what can still be undone of it. What was done to another one cannot be undone here. */
export function openLineup(lineup: Lineup): void {
  opening = true
  const content = contentOf(lineup)
  useDesk.setState({ lineupId: lineup.id, revision: lineup.revision, content, save: { kind: 'saved' } })
  const steps = undoSteps.of(lineup.id, content)
  useDesk.temporal.getState().clear()
  if (steps)
    useDesk.temporal.setState({
      pastStates: steps.past.map((own) => ({ content: own })),
      futureStates: steps.future.map((own) => ({ content: own })),
    })
  opening = false
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
