import { type Shelf, type ShelfKind, shelfKinds } from '@sable/contract/shelf'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Plus, Undo2 } from 'lucide-react'
import { useEffect, useMemo, useRef, useState } from 'react'
import { NavLink, useNavigate, useParams } from 'react-router'
import { asRefusal } from '../api/asRefusal'
import { setAsideQuery } from '../api/setAside'
import { shelfQuery } from '../api/shelf'
import { Lost } from '../app/Lost'
import { Button, IconButton } from '../ui/Button'
import { Checkbox } from '../ui/Checkbox'
import { Loading } from '../ui/Loading'
import { Notice, type Refusal } from '../ui/Notice'
import { SearchField } from '../ui/SearchField'
import { FileMenu } from './FileMenu'
import { HowWritten } from './HowWritten'
import { kindNames } from './kindNames'
import { newRecord } from './newRecord'
import { RecordList } from './RecordList'
import { RecordSheet } from './RecordSheet'
import { SetAsideSheet } from './SetAsideSheet'
import { ShelfConflictQuestion } from './ShelfConflictQuestion'
import { shelfActions, useShelfHistory } from './shelfStore'
import { type KeptRecord, ShelfConflict } from './shelfWriter'
import { summaryOf } from './summaries'

/** The shelf: what there is to print with, and what is known of it. */
export function ShelfScreen() {
  const { kind = '', recordKey } = useParams()
  const shelf = useQuery(shelfQuery)
  useEffect(() => {
    document.title = 'Shelf · Sable Lantern'
  }, [])
  if (!isKind(kind)) return <Lost what="The shelf has no such part." />
  if (!shelf.data) return <Loading what="the shelf" failed={shelf.failureReason} />
  return <Opened kind={kind} recordKey={recordKey} shelf={shelf.data} />
}

const isKind = (text: string): text is ShelfKind => (shelfKinds as readonly string[]).includes(text)

function Opened({ kind, recordKey, shelf }: { kind: ShelfKind; recordKey: string | undefined; shelf: Shelf }) {
  const queries = useQueryClient()
  const navigate = useNavigate()
  const actions = useMemo(() => shelfActions(queries), [queries])
  const [refusal, setRefusal] = useState<Refusal>()
  const [conflict, setConflict] = useState<ShelfConflict>()
  const [told, setTold] = useState<string>()
  const setAside = useQuery(setAsideQuery).data ?? []
  const [showing, setShowing] = useState(false)
  const [search, setSearch] = useState('')
  const [withArchived, setWithArchived] = useState(false)
  const past = useShelfHistory(({ past }) => past)
  const records: readonly KeptRecord[] = shelf[kind]
  const wanted = search.trim().toLowerCase()
  const shown = records.filter(
    (one) =>
      (withArchived || !one.archived || one.key === recordKey) &&
      (wanted === '' || `${one.name} ${summaryOf(kind, one, shelf)}`.toLowerCase().includes(wanted)),
  )
  const record = records.find(({ key }) => key === recordKey)

  /** Does something to the shelf and shows what stands in its way. */
  const attempt = async (work: () => Promise<unknown>): Promise<void> => {
    try {
      setRefusal(undefined)
      await work()
    } catch (error) {
      if (error instanceof ShelfConflict) setConflict(error)
      else setRefusal(asRefusal(error))
    }
  }
  useUndoKey(() => void attempt(() => actions.undo()))

  const add = (): Promise<void> =>
    attempt(async () => {
      const key = await actions.add(kind, newRecord(kind, shelf))
      await navigate(`/shelf/${kind}/${key}`)
    })

  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <header className="flex min-h-11 shrink-0 items-center max-lg:flex-wrap gap-1 border-b border-line px-3 py-1">
        <h1 className="mr-3 text-[15px] font-semibold">Shelf</h1>
        {shelfKinds.map((other) => (
          <NavLink
            key={other}
            to={`/shelf/${other}`}
            className="rounded px-2.5 py-1 text-[12.5px] whitespace-nowrap text-muted hover:text-ink aria-[current=page]:bg-raised aria-[current=page]:text-lantern-ink"
          >
            {kindNames[other][0]} <span className="figure text-[12px]">{shelf[other].filter(({ archived }) => !archived).length}</span>
          </NavLink>
        ))}
        <div className="flex-1" />
        {told !== undefined && (
          <span role="status" className="text-[12px] text-muted">
            {told}
          </span>
        )}
        {setAside.length > 0 && (
          <Button tone="danger" onClick={() => setShowing(true)}>
            {setAside.length} set aside
          </Button>
        )}
        <IconButton
          label={past.length > 0 ? `Undo the ${past.at(-1)?.label} (Ctrl Z)` : 'Undo'}
          disabled={past.length === 0}
          onClick={() => void attempt(() => actions.undo())}
        >
          <Undo2 className="size-4" />
        </IconButton>
        <HowWritten />
        <FileMenu shelf={shelf} actions={actions} attempt={attempt} onTold={setTold} />
      </header>
      {refusal && (
        <div className="px-3 pt-2">
          <Notice refusal={refusal} onClose={() => setRefusal(undefined)} />
        </div>
      )}
      {showing && <SetAsideSheet found={setAside} onClose={() => setShowing(false)} />}
      {conflict && (
        <ShelfConflictQuestion
          conflict={conflict}
          onChoose={(chosen) => {
            setConflict(undefined)
            void attempt(() => actions.settle(conflict, chosen))
          }}
        />
      )}
      <div className="flex min-h-0 flex-1">
        <nav aria-label={kindNames[kind][0]} className="flex w-72 shrink-0 flex-col border-r border-line">
          {records.length > MANY && (
            <div className="border-b border-line p-2">
              <SearchField label={`Find a ${kindNames[kind][1]}`} value={search} onChange={setSearch} className="w-full" />
            </div>
          )}
          <RecordList kind={kind} records={shown} shelf={shelf} openKey={recordKey} />
          <div className="flex items-center gap-3 border-t border-line p-2">
            <Button onClick={() => void add()}>
              <Plus className="size-3.5" aria-hidden /> New {kindNames[kind][1]}
            </Button>
            {records.some(({ archived }) => archived) && (
              <Checkbox checked={withArchived} onChange={(to) => setWithArchived(to)} className="text-muted">
                archived too
              </Checkbox>
            )}
          </div>
        </nav>
        <div className="min-w-0 flex-1 overflow-auto">
          {record ? (
            <RecordSheet
              key={`${kind}/${record.key}`}
              kind={kind}
              record={record}
              shelf={shelf}
              actions={actions}
              attempt={attempt}
              onGone={() => void navigate(`/shelf/${kind}`)}
              onCopied={(key) => void navigate(`/shelf/${kind}/${key}`)}
            />
          ) : (
            <p className="m-auto max-w-sm p-10 text-center text-muted">
              {recordKey === undefined
                ? `Choose a ${kindNames[kind][1]} to see what is known of it. Every change is stored at once and can be taken back.`
                : `There is no ${kindNames[kind][1]} “${recordKey}”.`}
            </p>
          )}
        </div>
      </div>
    </div>
  )
}

/** More records than this get a field to find them by. */
const MANY = 12

function useUndoKey(undo: () => void): void {
  const newest = useRef(undo)
  newest.current = undo
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (!(event.ctrlKey || event.metaKey) || event.shiftKey || event.altKey || event.key.toLowerCase() !== 'z') return
      // Inside a field the browser's own undo belongs to what is being typed.
      if (event.target instanceof HTMLElement && event.target.closest('input, textarea, select, [role=dialog]')) return
      event.preventDefault()
      newest.current()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])
}
