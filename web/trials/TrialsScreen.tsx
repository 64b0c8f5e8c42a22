import type { Shelf } from '@sable/contract/shelf'
import type { Trials } from '@sable/contract/trials'
import { tallyOf } from '@sable/core/trials/tally'
import { useQuery } from '@tanstack/react-query'
import { useEffect, useMemo, useState } from 'react'
import { Link } from 'react-router'
import { shelfQuery } from '../api/shelf'
import { trialsQuery } from '../api/trials'
import { Button } from '../ui/Button'
import { Loading } from '../ui/Loading'
import { Select } from '../ui/Select'
import { MatrixSheet } from './MatrixSheet'
import { TallyList } from './TallyList'
import { TrialBench } from './TrialBench'
import { readTrials, useTrialPlace, useTrialSetup } from './useTrialPlace'

/** Trials: a spool's ladder on a machine, the thing on the table, and what it tells. */
export function TrialsScreen() {
  const shelf = useQuery(shelfQuery)
  const trials = useQuery(trialsQuery)
  useEffect(() => {
    document.title = 'Trials · Sable Lantern'
  }, [])
  if (!shelf.data || !trials.data) return <Loading what="the trials" failed={shelf.failureReason ?? trials.failureReason} />
  return <Opened shelf={shelf.data} trials={trials.data} />
}

function Opened({ shelf, trials }: { shelf: Shelf; trials: Trials }) {
  const [place, choose] = useTrialPlace(shelf)
  const setups = useTrialSetup(place, shelf)
  const [comparing, setComparing] = useState(false)
  const read = useMemo(() => readTrials(trials), [trials])
  const tally = useMemo(() => setups && tallyOf(read, setups.setup), [read, setups])
  if (!setups || !tally)
    return (
      <p className="m-auto max-w-sm p-10 text-center text-muted">
        A trial belongs to a spool on a printer. Put both on the{' '}
        <Link to="/shelf/spools" className="text-lantern-ink underline">
          shelf
        </Link>{' '}
        first.
      </p>
    )
  const open = place.kind === '' ? (tally.next?.kind ?? 'temperature') : place.kind
  const rung = tally.rungs.find(({ kind }) => kind.id === open) ?? tally.rungs[1]!
  const readIds = new Set(trials.readings.map(({ trial }) => trial))
  const here = trials.trials.filter(
    ({ printer, spool, nozzle }) => printer === place.printer && spool === place.spool && nozzle === place.nozzle,
  )
  const unread = here.filter(({ id }) => !readIds.has(id))
  const records = (all: readonly { readonly key: string; readonly name: string; readonly archived: boolean }[]) =>
    all.filter(({ archived }) => !archived).map(({ key, name }) => ({ id: key, name }))
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <header className="flex min-h-11 shrink-0 items-center max-lg:flex-wrap gap-3 border-b border-line px-3">
        <h1 className="mr-1 text-[15px] font-semibold">Trials</h1>
        <Select
          label="Spool"
          value={place.spool}
          of={records(shelf.spools)}
          className="max-w-52"
          onChange={(spool) => choose({ spool, kind: '', trial: '' })}
        />
        <Select
          label="on"
          name="Printer"
          value={place.printer}
          of={records(shelf.printers)}
          onChange={(printer) => choose({ printer, kind: '', trial: '' })}
        />
        <Select
          label="with"
          name="Nozzle"
          value={place.nozzle}
          of={records(shelf.nozzles)}
          onChange={(nozzle) => choose({ nozzle, trial: '' })}
        />
        <div className="flex-1" />
        <Button onClick={() => setComparing(true)}>Printers × spools</Button>
      </header>
      {comparing && (
        <MatrixSheet
          shelf={shelf}
          read={read}
          nozzle={place.nozzle}
          first={rung.kind.id}
          onOpen={(to) => {
            setComparing(false)
            choose({ ...to, trial: '' })
          }}
          onClose={() => setComparing(false)}
        />
      )}
      <div className="flex min-h-0 flex-1 max-lg:overflow-x-auto">
        <div className="flex w-72 shrink-0 flex-col border-r border-line">
          <TallyList
            tally={tally}
            open={rung.kind.id}
            waiting={new Set(unread.map(({ spec }) => spec.kind))}
            onOpen={(kind) => choose({ kind, trial: '' })}
          />
        </div>
        <TrialBench
          key={`${place.spool} ${place.printer} ${place.nozzle} ${rung.kind.id}`}
          shelf={shelf}
          trials={trials}
          place={place}
          setups={setups}
          rung={rung}
          unread={unread.filter(({ spec }) => spec.kind === rung.kind.id)}
          tally={tally}
          onPlace={choose}
        />
      </div>
    </div>
  )
}
