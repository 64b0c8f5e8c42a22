import { Redo2, Undo2 } from 'lucide-react'
import { NavLink } from 'react-router'
import { useStore } from 'zustand'
import { useBench } from '../../desk/bench'
import { edit, redo, undo, useDesk } from '../../desk/deskStore'
import { renameLineup } from '../../desk/edits'
import { IconButton } from '../../ui/Button'
import { EditableText } from '../../ui/EditableText'
import { ExportMenu } from './ExportMenu'
import { ImportButton } from './ImportButton'
import { LineupMenu } from './LineupMenu'
import { benchViews } from './views'

/** Which lineup is open, whether it is saved, and what can be done with it as a whole. */
export function LineupBar() {
  const { name } = useBench().content
  return (
    <header className="flex min-h-11 shrink-0 items-center max-lg:flex-wrap gap-2 border-b border-line px-3">
      <EditableText
        text={name}
        label="Lineup"
        onCommit={(name) => edit((before) => renameLineup(before, name))}
        className="max-w-[28rem] text-[15px] font-semibold"
      />
      <LineupMenu />
      <SaveMark />
      <ViewLinks />
      <div className="flex-1" />
      <UndoButtons />
      <ExportMenu />
      <ImportButton />
    </header>
  )
}

function ViewLinks() {
  const id = useDesk((desk) => desk.lineupId)
  return (
    <nav aria-label="Views" className="ml-4 flex items-center gap-0.5">
      {benchViews.map((view) => (
        <NavLink
          key={view}
          to={`/bench/${id}/${view}`}
          className="inline-block rounded px-2.5 py-1 text-[12.5px] whitespace-nowrap text-muted first-letter:uppercase hover:text-ink aria-[current=page]:bg-raised aria-[current=page]:text-lantern-ink"
        >
          {view}
        </NavLink>
      ))}
    </nav>
  )
}

function UndoButtons() {
  const canUndo = useStore(useDesk.temporal, (history) => history.pastStates.length > 0)
  const canRedo = useStore(useDesk.temporal, (history) => history.futureStates.length > 0)
  return (
    <>
      <IconButton label="Undo (Ctrl Z)" onClick={undo} disabled={!canUndo}>
        <Undo2 className="size-4" />
      </IconButton>
      <IconButton label="Redo (Ctrl Y)" onClick={redo} disabled={!canRedo}>
        <Redo2 className="size-4" />
      </IconButton>
    </>
  )
}

function SaveMark() {
  const save = useDesk((desk) => desk.save)
  const text = { saved: 'Saved', saving: 'Saving …', waiting: 'Not saved yet', conflict: 'Changed elsewhere' }[save.kind]
  return (
    <span
      role="status"
      className={save.kind === 'waiting' || save.kind === 'conflict' ? 'text-[12px] text-stop' : 'text-[12px] text-muted'}
    >
      {text}
      {save.kind === 'waiting' && <span className="text-muted"> · {save.problem.detail} What you typed is kept here.</span>}
    </span>
  )
}
