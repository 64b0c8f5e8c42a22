import type { LineupContent } from '@sable/contract/lineup'
import { writeLineupFile } from '@sable/contract/lineupFile'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { ChevronDown, Redo2, Undo2 } from 'lucide-react'
import { useRef, useState } from 'react'
import { NavLink, useNavigate } from 'react-router'
import { useStore } from 'zustand'
import { asRefusal } from '../../api/asRefusal'
import { createLineup, lineupsQuery, removeLineup } from '../../api/lineups'
import { partsQuery } from '../../api/parts'
import { shelfQuery } from '../../api/shelf'
import { useBench } from '../../desk/bench'
import { edit, redo, undo, useDesk } from '../../desk/deskStore'
import { nextName, renameLineup } from '../../desk/edits'
import { useForecasts } from '../../predictions/predictionStore'
import { Button, IconButton } from '../../ui/Button'
import { Question } from '../../ui/Dialog'
import { download, fileNameFrom } from '../../ui/download'
import { EditableText } from '../../ui/EditableText'
import { type FileAsk, FilePicker } from '../../ui/FilePicker'
import { Menu, MenuItem, MenuLabel, MenuSeparator } from '../../ui/Menu'
import { lineupArchive, takeLineup } from './carryLineup'
import { firstCandidate } from './firstCandidate'
import { lineupCsv } from './lineupCsv'
import { benchViews, SHEET } from './views'

/** Which lineup is open, whether it is saved, and what can be done with it as a whole. */
export function LineupBar() {
  const { content, part, shelf, onRefusal } = useBench()
  const queries = useQueryClient()
  const navigate = useNavigate()
  const lineups = useQuery(lineupsQuery)
  const id = useDesk((desk) => desk.lineupId)
  const canUndo = useStore(useDesk.temporal, (history) => history.pastStates.length > 0)
  const canRedo = useStore(useDesk.temporal, (history) => history.futureStates.length > 0)
  const [removing, setRemoving] = useState(false)
  const filePicker = useRef<FileAsk>(null)

  const begin = async (fresh: LineupContent): Promise<void> => {
    try {
      const lineup = await createLineup(fresh)
      await queries.invalidateQueries(lineupsQuery)
      await navigate(`/bench/${lineup.id}/ledger`)
    } catch (error) {
      onRefusal(asRefusal(error))
    }
  }

  const importFile = async (file: File): Promise<void> => {
    try {
      const { content: fresh, told } = await takeLineup(file, { parts: await queries.fetchQuery(partsQuery), shelf, part })
      await Promise.all([queries.invalidateQueries(partsQuery), queries.invalidateQueries(shelfQuery)])
      await begin(fresh)
      if (told) onRefusal(told)
    } catch (error) {
      onRefusal(asRefusal(error))
    }
  }

  const exportArchive = async (): Promise<void> => {
    try {
      download(`${fileNameFrom(content.name)}.lineup.zip`, await lineupArchive(content, part, shelf))
    } catch (error) {
      onRefusal(asRefusal(error))
    }
  }

  const remove = async (): Promise<void> => {
    setRemoving(false)
    if (!id) return
    try {
      await removeLineup(id)
      await queries.invalidateQueries(lineupsQuery)
      await navigate('/bench')
    } catch (error) {
      onRefusal(asRefusal(error))
    }
  }

  const copyOf = (): LineupContent => ({
    ...content,
    name: nextName(content.name, lineups.data?.map(({ name }) => name) ?? []),
    candidates: content.candidates.map((candidate) => ({ ...candidate, id: crypto.randomUUID() })),
  })

  return (
    <header className="flex h-11 shrink-0 items-center gap-2 border-b border-line px-3">
      <EditableText
        text={content.name}
        label="Lineup"
        onCommit={(name) => edit((before) => renameLineup(before, name))}
        className="max-w-[28rem] text-[15px] font-semibold"
      />
      <Menu
        trigger={
          <IconButton label="Lineups">
            <ChevronDown className="size-4" />
          </IconButton>
        }
      >
        <MenuLabel>Open</MenuLabel>
        {lineups.data?.map((lineup) => (
          <MenuItem key={lineup.id} current={lineup.id === id} onSelect={() => void navigate(`/bench/${lineup.id}/ledger`)}>
            <span className="max-w-72 truncate">{lineup.name}</span>
          </MenuItem>
        ))}
        <MenuSeparator />
        <MenuItem
          onSelect={() =>
            void begin({
              name: part.name,
              partId: part.id,
              placement: content.placement,
              purpose: content.purpose,
              candidates: [firstCandidate()],
            })
          }
        >
          New lineup of this part
        </MenuItem>
        <MenuItem onSelect={() => void begin(copyOf())}>Copy of this lineup</MenuItem>
        <MenuItem onSelect={() => setRemoving(true)}>Remove this lineup …</MenuItem>
      </Menu>
      <SaveMark />
      <nav aria-label="Views" className="ml-4 flex items-center gap-0.5">
        {benchViews.map((view) => (
          <NavLink
            key={view}
            to={`/bench/${id}/${view}`}
            className="inline-block rounded px-2.5 py-1 text-[12.5px] text-muted first-letter:uppercase hover:text-ink aria-[current=page]:bg-raised aria-[current=page]:text-lantern-ink"
          >
            {view}
          </NavLink>
        ))}
      </nav>
      <div className="flex-1" />
      <IconButton label="Undo (Ctrl Z)" onClick={undo} disabled={!canUndo}>
        <Undo2 className="size-4" />
      </IconButton>
      <IconButton label="Redo (Ctrl Y)" onClick={redo} disabled={!canRedo}>
        <Redo2 className="size-4" />
      </IconButton>
      <Menu align="end" trigger={<Button className="ml-1">Export</Button>}>
        <MenuItem
          hint="a table of everything"
          onSelect={() => {
            const forecasts = useForecasts.getState()
            const predictions = content.candidates.map((candidate) =>
              forecasts[candidate.id]?.state === 'done' ? forecasts[candidate.id]?.prediction : undefined,
            )
            download(`${fileNameFrom(content.name)}.csv`, lineupCsv(content, shelf, predictions), 'text/csv')
          }}
        >
          CSV
        </MenuItem>
        <MenuItem hint="to print" onSelect={() => void navigate(`/bench/${id}/${SHEET}`)}>
          One-page sheet
        </MenuItem>
        <MenuItem hint="opens anywhere: with model and records" onSelect={() => void exportArchive()}>
          Lineup file
        </MenuItem>
        <MenuItem
          hint="without its model"
          onSelect={() => download(`${fileNameFrom(content.name)}.json`, writeLineupFile(content, part), 'application/json')}
        >
          JSON
        </MenuItem>
      </Menu>
      <Button onClick={() => filePicker.current?.ask()}>Import</Button>
      <FilePicker
        ref={filePicker}
        label="Lineup file"
        accept=".zip,.json,application/zip,application/json"
        onFile={(file) => void importFile(file)}
      />
      {removing && (
        <Question
          title="Remove this lineup?"
          onEscape={() => setRemoving(false)}
          actions={
            <>
              <Button onClick={() => setRemoving(false)}>Keep it</Button>
              <Button tone="danger" onClick={() => void remove()}>
                Remove
              </Button>
            </>
          }
        >
          <p>
            “{content.name}” and its {content.candidates.length} candidates leave the bench. The part stays. Export it first if you may want
            it again.
          </p>
        </Question>
      )}
    </header>
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
