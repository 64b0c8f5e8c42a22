import { settleConflict } from '../../desk/autosave'
import { useDesk } from '../../desk/deskStore'
import { Button } from '../../ui/Button'
import { Question } from '../../ui/Dialog'
import { clockOf } from '../../ui/dates'

/** Asks which version to keep when another window has written in between. */
export function ConflictQuestion() {
  const save = useDesk((desk) => desk.save)
  const mine = useDesk((desk) => desk.content)
  if (save.kind !== 'conflict' || !mine) return null
  const { theirs } = save
  const describe = (names: readonly { readonly name: string }[]): string => names.map(({ name }) => name).join(', ') || 'no candidates'
  return (
    <Question
      title="Changed in another window"
      actions={
        <>
          <Button onClick={() => settleConflict('theirs')}>Take the other version</Button>
          <Button tone="main" onClick={() => settleConflict('mine')}>
            Keep what is here
          </Button>
        </>
      }
    >
      <p>This lineup was saved elsewhere at {clockOf(theirs.updatedAt)}, after this page had read it.</p>
      <dl className="mt-3 grid grid-cols-[5rem_1fr] gap-y-1 text-ink">
        <dt className="text-muted">Here</dt>
        <dd>{describe(mine.candidates)}</dd>
        <dt className="text-muted">Elsewhere</dt>
        <dd>{describe(theirs.candidates)}</dd>
      </dl>
      <p className="mt-3">Whichever you choose, the other stays: undo brings back what is here, and the server keeps every revision.</p>
    </Question>
  )
}
