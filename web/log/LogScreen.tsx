import type { PrintLine } from '@sable/contract/prints'
import type { Shelf } from '@sable/contract/shelf'
import { TIME_NOISE } from '@sable/core/learning/timed'
import { driftOf } from '@sable/core/log/drift'
import { driftSentence } from '@sable/core/log/sentences'
import { useQuery } from '@tanstack/react-query'
import { useEffect, useMemo, useState } from 'react'
import { useNavigate, useParams } from 'react-router'
import { printsQuery } from '../api/prints'
import { shelfQuery } from '../api/shelf'
import { Choices } from '../ui/Choices'
import { Loading } from '../ui/Loading'
import { SearchField } from '../ui/SearchField'
import { Select } from '../ui/Select'
import { useAddress } from '../ui/useAddress'
import { DayBook } from './DayBook'
import { Experiments } from './Experiments'
import { LookingBack } from './LookingBack'
import { namesOf } from './namesOf'
import { PrintPage } from './PrintPage'
import { stateNames } from './stateNames'
import { Trainer } from './Trainer'

/** The log: a day book of prints, and what they say together. */
export function LogScreen() {
  const shelf = useQuery(shelfQuery)
  useEffect(() => {
    document.title = 'Log · Sable Lantern'
  }, [])
  if (!shelf.data) return <Loading what="the log" failed={shelf.failureReason} />
  return <Opened shelf={shelf.data} />
}

const views = [
  { id: 'book', name: 'Day book' },
  { id: 'back', name: 'Looking back' },
  { id: 'experiments', name: 'Experiments' },
  { id: 'trainer', name: 'Trainer' },
] as const

/** As many as a day book shows before something is looked for; and all prints of a desk at most: a hobbyist's ten years. */
const NEWEST = 500
const ALL = 10_000

function Opened({ shelf }: { shelf: Shelf }) {
  const { printId } = useParams()
  const navigate = useNavigate()
  const { get, set } = useAddress()
  const [all, setAll] = useState(false)
  const filter = {
    printer: get('printer'),
    spool: get('spool'),
    profile: get('profile'),
    state: get('state') as PrintLine['state'] | undefined,
    words: get('words'),
  }
  const prints = useQuery({
    ...printsQuery({ ...filter, limit: get('view') === 'back' || all ? ALL : NEWEST }),
    placeholderData: (before) => before,
  })
  const view = get('view')
  const lines = prints.data?.prints
  const nameOf = useMemo(() => namesOf(shelf), [shelf])
  const names = (kind: 'printers' | 'spools') => [{ id: '', name: 'all' }, ...shelf[kind].map(({ key, name }) => ({ id: key, name }))]
  if (!lines) return <Loading what="the prints" failed={prints.failureReason} />
  const isFiltered = Object.values(filter).some((value) => value !== undefined)
  // What the filter leaves out is not what is looked for.
  const open = printId !== undefined && (!isFiltered || lines.some(({ id }) => id === printId)) ? printId : lines[0]?.id
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <header className="flex min-h-11 shrink-0 items-center max-lg:flex-wrap gap-3 border-b border-line px-3">
        <h1 className="mr-1 text-[15px] font-semibold">Log</h1>
        <SearchField
          label="Find in names, notes and faults"
          value={filter.words ?? ''}
          onChange={(words) => set({ words })}
          className="w-56"
        />
        <Select label="Printer" value={filter.printer ?? ''} of={names('printers')} onChange={(printer) => set({ printer })} />
        <Select label="Spool" value={filter.spool ?? ''} of={names('spools')} onChange={(spool) => set({ spool })} />
        <Select
          label="Came out"
          value={filter.state ?? ''}
          of={[{ id: '', name: 'all' }, ...Object.entries(stateNames).map(([id, name]) => ({ id, name }))]}
          onChange={(state) => set({ state })}
        />
        <div className="flex-1" />
        <Choices
          label=""
          name="View"
          of={views}
          value={views.find(({ id }) => id === view)?.id ?? 'book'}
          onChange={(id) => id && set({ view: id === 'book' ? undefined : id })}
        />
      </header>
      <Drifts lines={lines} shelf={shelf} />
      {view === 'trainer' ? (
        <Trainer shelf={shelf} />
      ) : view === 'experiments' ? (
        <Experiments lines={lines} />
      ) : lines.length === 0 ? (
        <p className="m-auto max-w-sm p-10 text-center text-muted">
          {isFiltered
            ? 'No print is like that. Take a filter away.'
            : 'No print yet. On the bench, a column’s menu has “Print it …”: what is foretold is kept, and held against what comes out.'}
        </p>
      ) : view === 'back' ? (
        <LookingBack lines={lines} shelf={shelf} />
      ) : (
        <div className="flex min-h-0 flex-1 max-lg:flex-col max-lg:overflow-y-auto">
          <DayBook
            lines={lines}
            total={prints.data?.total ?? 0}
            open={open}
            nameOf={nameOf}
            onEnd={() => setAll(true)}
            onOpen={(id) => void navigate({ pathname: `/log/${id}`, search: window.location.search })}
          />
          {open !== undefined && <PrintPage key={open} id={open} shelf={shelf} lines={lines} nameOf={nameOf} />}
        </div>
      )}
    </div>
  )
}

/** Machines that changed, by their own prints: above everything, where there is one. */
function Drifts({ lines, shelf }: { lines: readonly PrintLine[]; shelf: Shelf }) {
  const told = useMemo(
    () =>
      shelf.printers.flatMap(({ key, name }) => {
        const own = lines.flatMap(({ printer, leftOut, actualS, timeS, plannedAt, state }) =>
          printer === key && !leftOut && actualS !== undefined && (state === 'good' || state === 'usable')
            ? [{ at: plannedAt, log: Math.log(actualS / timeS) }]
            : [],
        )
        const drift = driftOf(own, TIME_NOISE)
        return drift ? [{ key, sentence: driftSentence(name, drift) }] : []
      }),
    [lines, shelf.printers],
  )
  return told.map(({ key, sentence }) => (
    <p key={key} className="border-b border-line bg-glow px-3 py-1 text-[12px]">
      {sentence}
    </p>
  ))
}
