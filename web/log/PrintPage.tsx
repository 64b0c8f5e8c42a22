import type { Print, PrintLine } from '@sable/contract/prints'
import type { Shelf } from '@sable/contract/shelf'
import { hasEnded } from '@sable/core/log/lookBack'
import type { PrintOutcome } from '@sable/core/log/outcome'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { asRefusal } from '../api/asRefusal'
import {
  addPrintPhoto,
  endPrint,
  leavePrintOut,
  printPhotoAddress,
  printQuery,
  removePrint,
  removePrintPhoto,
  startPrint,
} from '../api/prints'
import { shelfQuery } from '../api/shelf'
import { Button } from '../ui/Button'
import { momentOf } from '../ui/dates'
import { Loading } from '../ui/Loading'
import { Markdown } from '../ui/Markdown'
import { Notice, type Refusal } from '../ui/Notice'
import { Photos } from '../ui/Photos'
import { RangeLine } from '../ui/RangeLine'
import { Beside } from './Beside'
import { Foretold } from './Foretold'
import { HeightStrip } from './HeightStrip'
import { MachinePanel } from './MachinePanel'
import { OnTable } from './OnTable'
import { OutcomeForm } from './OutcomeForm'
import { Running } from './Running'
import { SaidOfIt } from './SaidOfIt'
import { stateNames, stateSigns } from './stateNames'
import { TaughtPanel } from './TaughtPanel'

/** One print: what was foretold, what came out, and what that teaches. */
export function PrintPage({
  id,
  shelf,
  lines,
  nameOf,
}: {
  id: string
  shelf: Shelf
  lines: readonly PrintLine[]
  nameOf: (key: string) => string
}) {
  const print = useQuery(printQuery(id))
  const queries = useQueryClient()
  const navigate = useNavigate()
  const [refusal, setRefusal] = useState<Refusal>()
  const [telling, setTelling] = useState(false)
  const attempt = async (work: () => Promise<unknown>): Promise<void> => {
    try {
      setRefusal(undefined)
      await work()
      await Promise.all([
        queries.invalidateQueries({ queryKey: ['prints'] }),
        queries.invalidateQueries({ queryKey: ['print'] }),
        // What setups learn from prints may have changed.
        queries.invalidateQueries({ queryKey: shelfQuery.queryKey }),
      ])
    } catch (error) {
      setRefusal(asRefusal(error))
    }
  }
  if (!print.data) return <Loading what="the print" failed={print.failureReason} />
  const { line, kept, photos } = print.data
  const address = shelf.printers.find(({ key }) => key === line.printer)?.address
  const end = (outcome: PrintOutcome, endedAt: string | undefined): Promise<void> =>
    attempt(async () => {
      await endPrint(id, outcome, endedAt)
      setTelling(false)
    })
  return (
    <article aria-label={`Print of ${line.name}`} className="min-w-0 flex-1 px-5 py-3 lg:overflow-auto">
      <Head print={print.data} nameOf={nameOf} />
      {refusal && <Notice refusal={refusal} onClose={() => setRefusal(undefined)} />}
      <dl className="mt-2 text-[12.5px]">
        <RangeLine label="From start to end" value={line.timeS} range={line.timeRange} actual={line.actualS} as="time" />
        <RangeLine label="Filament" value={line.massG} range={line.massRange} actual={line.weighedG} as="mass" />
      </dl>
      {line.state === 'planned' && (
        <div className="mt-3 flex gap-2">
          <Button tone="main" onClick={() => void attempt(() => startPrint(id))}>
            It starts now
          </Button>
          <Button onClick={() => setTelling(true)}>It is already made</Button>
          <Button
            tone="danger"
            onClick={() =>
              void attempt(async () => {
                await removePrint(id)
                await navigate({ pathname: '/log', search: window.location.search })
              })
            }
          >
            Take it away
          </Button>
        </div>
      )}
      {!telling && !hasEnded(line) && address !== undefined && (
        <MachinePanel line={line} printerName={nameOf(line.printer)} address={address} attempt={attempt} />
      )}
      {!telling && !hasEnded(line) && <Foretold figures={print.data.frozen.foretold.figures} />}
      {line.state === 'running' && !telling && <Running line={line} onEnd={() => setTelling(true)} />}
      {line.state !== 'planned' && (telling || !hasEnded(line)) && address !== undefined && <OnTable onRefusal={setRefusal} />}
      {telling ? (
        <OutcomeForm
          print={print.data}
          shelf={shelf}
          lines={lines}
          onKeep={end}
          onCancel={() => setTelling(false)}
          onRefusal={setRefusal}
        />
      ) : (
        kept && <SaidOfIt outcome={kept.outcome} nameOf={nameOf} onChange={() => setTelling(true)} />
      )}
      {!telling && hasEnded(line) && (
        <>
          <div className="mt-3 flex gap-5">
            <div className="min-w-0 flex-1 space-y-3">
              <TaughtPanel print={print.data} shelf={shelf} onLeaveOut={(leftOut) => void attempt(() => leavePrintOut(id, leftOut))} />
              {kept && kept.outcome.note !== '' && <Markdown text={kept.outcome.note} />}
            </div>
            <HeightStrip line={line} />
          </div>
          <div className="mt-3">
            <Beside print={print.data} lines={lines} />
          </div>
        </>
      )}
      <div className="mt-3">
        <Photos
          photos={photos}
          addressOf={printPhotoAddress}
          onAdd={(files, withOriginals) =>
            attempt(async () => {
              for (const file of files) await addPrintPhoto(id, file, withOriginals)
            })
          }
          onRemove={(photo) => void attempt(() => removePrintPhoto(photo))}
        />
      </div>
    </article>
  )
}

function Head({ print: { line, frozen }, nameOf }: { print: Print; nameOf: (key: string) => string }) {
  const { sign, tone } = stateSigns[line.state]
  const worstAt = line.faults.find(({ atZ }) => atZ !== undefined)?.atZ ?? line.atZ
  const at = (iso: string | undefined): string => (iso === undefined ? '' : momentOf(iso))
  return (
    <header>
      <h2 className="flex items-baseline gap-2 text-[16px] font-semibold">
        {line.name}
        <span className="text-[13px] font-normal text-muted">
          {frozen.lineup === undefined ? (
            line.profile
          ) : (
            <Link to={`/bench/${frozen.lineup}/ledger`} className="underline decoration-line underline-offset-2">
              {line.profile}
            </Link>
          )}
        </span>
        <span className="flex-1" />
        {line.state !== 'planned' && frozen.part !== undefined && (
          <Link
            to={`/faults/new?print=${line.id}${worstAt === undefined ? '' : `&z=${worstAt}`}`}
            className="text-[12px] font-normal text-muted underline decoration-line underline-offset-2"
          >
            what went wrong …
          </Link>
        )}
        <Link to={`/log/${line.id}/sheet`} className="text-[12px] font-normal text-muted underline decoration-line underline-offset-2">
          page to print
        </Link>
        <span className={`text-[12.5px] font-normal ${tone}`}>
          <span aria-hidden>{sign}</span> {stateNames[line.state]}
        </span>
      </h2>
      <p className="text-[12px] text-muted">
        {[line.printer, line.nozzle, line.spool ?? line.material].map(nameOf).join(' · ')}
        <span className="figure ml-3">
          {line.startedAt ? `began ${at(line.startedAt)}` : `planned ${at(line.plannedAt)}`}
          {line.endedAt && `, ended ${at(line.endedAt)}`}
        </span>
      </p>
    </header>
  )
}
