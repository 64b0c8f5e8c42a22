import { type Shelf, type ShelfKind, shelfKinds } from '@sable/contract/shelf'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useVirtualizer } from '@tanstack/react-virtual'
import { Plus, Undo2 } from 'lucide-react'
import { useEffect, useMemo, useRef, useState } from 'react'
import { NavLink, useNavigate, useParams } from 'react-router'
import { z } from 'zod'
import { asRefusal } from '../../api/asRefusal'
import { shelfQuery } from '../../api/queries'
import { Button, IconButton } from '../../ui/Button'
import { download } from '../../ui/download'
import { Loading } from '../../ui/Loading'
import { Menu, MenuItem } from '../../ui/Menu'
import { Notice, type Refusal } from '../../ui/Notice'
import { Lost } from '../Lost'
import { newRecord } from './newRecord'
import { RecordSheet } from './RecordSheet'
import { Reel } from './Reel'
import { ShelfConflictQuestion } from './ShelfConflictQuestion'
import { type KeptRecord, type ShelfActions, ShelfConflict, shelfActions, useShelfHistory } from './shelfStore'
import { remainingOn, summaryOf } from './summaries'

const kindNames: Readonly<Record<ShelfKind, readonly [many: string, one: string]>> = {
  printers: ['Printers', 'printer'],
  nozzles: ['Nozzles', 'nozzle'],
  materials: ['Materials', 'material'],
  spools: ['Spools', 'spool'],
  profiles: ['Profiles', 'profile'],
}

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
      <header className="flex h-11 shrink-0 items-center gap-1 border-b border-line px-3">
        <h1 className="mr-3 text-[15px] font-semibold">Shelf</h1>
        {shelfKinds.map((other) => (
          <NavLink
            key={other}
            to={`/shelf/${other}`}
            className="rounded px-2.5 py-1 text-[12.5px] text-muted hover:text-ink aria-[current=page]:bg-raised aria-[current=page]:text-lantern-ink"
          >
            {kindNames[other][0]} <span className="figure text-[11px]">{shelf[other].filter(({ archived }) => !archived).length}</span>
          </NavLink>
        ))}
        <div className="flex-1" />
        {told !== undefined && (
          <span role="status" className="text-[12px] text-muted">
            {told}
          </span>
        )}
        <IconButton
          label={past.length > 0 ? `Undo the ${past.at(-1)?.label} (Ctrl Z)` : 'Undo'}
          disabled={past.length === 0}
          onClick={() => void attempt(() => actions.undo())}
        >
          <Undo2 className="size-4" />
        </IconButton>
        <FileMenu shelf={shelf} actions={actions} attempt={attempt} onTold={setTold} />
      </header>
      {refusal && (
        <div className="px-3 pt-2">
          <Notice refusal={refusal} onClose={() => setRefusal(undefined)} />
        </div>
      )}
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
              <input
                type="search"
                placeholder={`Find a ${kindNames[kind][1]}`}
                aria-label={`Find a ${kindNames[kind][1]}`}
                value={search}
                onChange={(event) => setSearch(event.target.value)}
                className="h-7 w-full rounded-md border border-line bg-sunk px-2 text-[12.5px] placeholder:text-muted"
              />
            </div>
          )}
          <RecordList kind={kind} records={shown} shelf={shelf} openKey={recordKey} />
          <div className="flex items-center gap-3 border-t border-line p-2">
            <Button onClick={() => void add()}>
              <Plus className="size-3.5" aria-hidden /> New {kindNames[kind][1]}
            </Button>
            {records.some(({ archived }) => archived) && (
              <label className="flex items-center gap-1.5 text-[12px] text-muted">
                <input
                  type="checkbox"
                  checked={withArchived}
                  onChange={(event) => setWithArchived(event.target.checked)}
                  className="accent-lantern"
                />
                archived too
              </label>
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

const ROW = 46

/** The records of a kind. Only those in sight are there, so that thousands of spools scroll as a few do. */
function RecordList({
  kind,
  records,
  shelf,
  openKey,
}: {
  kind: ShelfKind
  records: readonly KeptRecord[]
  shelf: Shelf
  openKey: string | undefined
}) {
  const scroller = useRef<HTMLDivElement>(null)
  const rows = useVirtualizer({ count: records.length, getScrollElement: () => scroller.current, estimateSize: () => ROW, overscan: 8 })
  const openAt = records.findIndex(({ key }) => key === openKey)
  // biome-ignore lint/correctness/useExhaustiveDependencies: it is brought into sight once, when it is opened.
  useEffect(() => {
    if (openAt >= 0) rows.scrollToIndex(openAt, { align: 'auto' })
  }, [openKey])
  if (records.length === 0) {
    return (
      <p className="min-h-0 flex-1 p-4 text-[12.5px] text-muted">
        {kind === 'profiles'
          ? 'No profiles yet. Keep one from the menu of a column on the bench, or add one here.'
          : `No ${kindNames[kind][0].toLowerCase()} here.`}
      </p>
    )
  }
  return (
    <div ref={scroller} className="min-h-0 flex-1 overflow-auto py-1">
      <ul className="relative" style={{ height: rows.getTotalSize() }}>
        {rows.getVirtualItems().map(({ index, start }) => {
          const one = records[index]!
          return (
            <li
              key={one.key}
              aria-setsize={records.length}
              aria-posinset={index + 1}
              className="absolute inset-x-0"
              style={{ height: ROW, transform: `translateY(${start}px)` }}
            >
              <NavLink
                to={`/shelf/${kind}/${one.key}`}
                className="flex h-full items-center gap-2.5 border-l-2 border-transparent px-3 hover:bg-raised aria-[current=page]:border-lantern aria-[current=page]:bg-raised"
              >
                {kind === 'spools' && <SpoolMark shelf={shelf} spoolKey={one.key} />}
                <span className="min-w-0 flex-1">
                  <span className="flex items-baseline gap-2">
                    <span className="truncate text-[13px] font-medium">{one.name}</span>
                    {one.archived && <span className="text-[11px] text-muted">archived</span>}
                  </span>
                  <span className="block truncate text-[11.5px] text-muted">{summaryOf(kind, one, shelf)}</span>
                </span>
              </NavLink>
            </li>
          )
        })}
      </ul>
    </div>
  )
}

/** More records than this get a field to find them by. */
const MANY = 12

function SpoolMark({ shelf, spoolKey }: { shelf: Shelf; spoolKey: string }) {
  const spool = shelf.spools.find(({ key }) => key === spoolKey)
  if (!spool) return null
  const { grams } = remainingOn(spool, shelf)
  return <Reel share={grams / spool.netG} color={spool.color} size={34} label={`${Math.round((100 * grams) / spool.netG)} % left`} />
}

function FileMenu({
  shelf,
  actions,
  attempt,
  onTold,
}: {
  shelf: Shelf
  actions: ShelfActions
  attempt: (work: () => Promise<unknown>) => Promise<void>
  onTold: (told: string) => void
}) {
  const picker = useRef<HTMLInputElement>(null)
  const save = (): void =>
    download('shelf.json', JSON.stringify({ format: 'sable-lantern/shelf', version: 1, ...shelf }, null, 2), 'application/json')
  const read = (file: File): Promise<void> =>
    attempt(async () => {
      try {
        const { added, replaced } = await actions.importFile(await file.text(), shelf)
        onTold(`${file.name}: ${added} added, ${replaced} replaced`)
      } catch (error) {
        throw unreadable(file.name, error)
      }
    })
  return (
    <>
      <Menu align="end" trigger={<Button className="ml-1">File</Button>}>
        <MenuItem hint="JSON" onSelect={save}>
          Export the shelf
        </MenuItem>
        <MenuItem hint="JSON" onSelect={() => picker.current?.click()}>
          Import a shelf …
        </MenuItem>
        <MenuItem onSelect={() => void attempt(() => actions.bringStarters())}>Bring back starter records</MenuItem>
      </Menu>
      <input
        ref={picker}
        type="file"
        accept=".json,application/json"
        aria-label="Shelf file"
        className="hidden"
        onChange={(event) => {
          const [file] = event.target.files ?? []
          if (file) void read(file)
          event.target.value = ''
        }}
      />
    </>
  )
}

/** What is wrong with a file, with the place in it. */
function unreadable(name: string, error: unknown): unknown {
  if (error instanceof SyntaxError) return new Error(`${name} is no JSON: ${error.message}. Nothing was changed.`)
  if (error instanceof z.ZodError) {
    const [issue] = error.issues
    return new Error(`${name}, ${issue?.path.join('.') || 'its beginning'}: ${issue?.message}. Nothing was changed.`)
  }
  return error
}

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
