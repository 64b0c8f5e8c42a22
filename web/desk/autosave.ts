import { type Lineup, type LineupContent, lineupSchema } from '@sable/contract/lineup'
import { RequestError } from '../api/client'
import { writeLineup } from '../api/lineups'
import { contentOf, type Desk, edit, useDesk } from './deskStore'
import { createOutbox, saysTheSame } from './outbox'

const SETTLE_MS = 250
const RETRY_MS = 2000

export const outbox = createOutbox(localStorage)

/** Writes the desk to the server shortly after each edit, one write at a time. Returns how to stop. */
export function startAutosave(onSaved: (lineup: Lineup) => void): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined
  let writing = false
  let stored: LineupContent | undefined = useDesk.getState().content
  let storedFor = useDesk.getState().lineupId
  /** What was sent without an answer: it may be stored all the same. */
  let unsure: LineupContent | undefined

  const schedule = (delay: number): void => {
    clearTimeout(timer)
    timer = setTimeout(() => void write(), delay)
  }

  const write = async (): Promise<void> => {
    const { lineupId, revision, content, save } = useDesk.getState()
    if (writing || !lineupId || !content || save.kind === 'conflict') return
    if (content === stored) {
      // An edit and its undo: the server has it already.
      outbox.clear(lineupId, content)
      useDesk.setState({ save: { kind: 'saved' } })
      return
    }
    writing = true
    try {
      const lineup = await writeLineup(lineupId, { ...content, revision })
      unsure = undefined
      outbox.clear(lineupId, content)
      if (useDesk.getState().lineupId === lineupId) {
        stored = content
        useDesk.setState({ revision: lineup.revision, save: { kind: useDesk.getState().content === content ? 'saved' : 'saving' } })
      }
      onSaved(lineup)
    } catch (error) {
      const theirs = staleOf(error)
      if (theirs && unsure && saysTheSame(unsure, theirs)) {
        // Nobody else was first: this page itself was, and never heard of it.
        stored = unsure
        useDesk.setState({ revision: theirs.revision })
        unsure = undefined
      } else {
        if (error instanceof RequestError && !theirs) unsure = content
        handleFailure(error)
      }
    } finally {
      writing = false
    }
    const now = useDesk.getState()
    if (now.save.kind === 'waiting') schedule(RETRY_MS)
    else if (now.content !== stored) {
      keep(now)
      schedule(SETTLE_MS)
    }
  }

  /** What is typed stands in the browser's storage before anything else happens. */
  const keep = ({ lineupId, content, revision }: Desk): void => {
    if (lineupId && content) outbox.put(lineupId, { ...content, revision })
  }

  const onChange = (now: Desk): void => {
    if (now.lineupId !== storedFor) {
      storedFor = now.lineupId
      stored = now.content
      unsure = undefined
      return
    }
    keep(now)
    if (now.save.kind === 'conflict') return
    if (now.save.kind === 'saved') useDesk.setState({ save: { kind: 'saving' } })
    if (now.save.kind !== 'waiting') schedule(SETTLE_MS)
  }

  const unsubscribe = useDesk.subscribe((now, before) => {
    if (now.content !== before.content || now.lineupId !== before.lineupId) onChange(now)
    else if (now.save.kind !== 'conflict' && before.save.kind === 'conflict') {
      stored = undefined
      schedule(0)
    }
  })
  return () => {
    unsubscribe()
    clearTimeout(timer)
  }
}

function handleFailure(error: unknown): void {
  if (!(error instanceof RequestError)) throw error
  const theirs = staleOf(error)
  useDesk.setState({ save: theirs ? { kind: 'conflict', theirs } : { kind: 'waiting', problem: error.problem } })
}

/** What the server holds, when a write started from an older revision. */
function staleOf(error: unknown): Lineup | undefined {
  if (!(error instanceof RequestError) || error.problem.code !== 'stale-write') return undefined
  return lineupSchema.safeParse(error.problem.current).data
}

/** Settles a conflict. The version that is not kept stays one undo away. */
export function settleConflict(keep: 'mine' | 'theirs'): void {
  const { save } = useDesk.getState()
  if (save.kind !== 'conflict') return
  useDesk.setState({ revision: save.theirs.revision, save: { kind: 'saved' } })
  if (keep === 'theirs') edit(() => contentOf(save.theirs))
}

/** What was typed and never reached the server, put back on the desk after its lineup was opened. */
export function restoreUnsaved(lineup: Lineup): void {
  const waiting = outbox.take(lineup.id)
  if (!waiting) return
  const { revision, ...content } = waiting
  if (saysTheSame(content, lineup)) {
    outbox.clear(lineup.id, content)
    return
  }
  useDesk.setState({ revision })
  edit(() => content)
}
