import type { MachineState } from '@sable/contract/machines'
import type { PrintLine } from '@sable/contract/prints'
import { addressIn, isLoopback } from '@sable/core/shelf/address'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { actOn, type MachineAct, machineQuery } from '../api/machines'
import { Button } from '../ui/Button'
import { Checkbox } from '../ui/Checkbox'

interface Props {
  readonly line: PrintLine
  readonly printerName: string
  readonly address: string
  readonly attempt: (work: () => Promise<unknown>) => Promise<void>
}

/** The machine that a print is made on: connected, sent its program, watched, held, ended, or stopped at once. */
export function MachinePanel({ line, printerName, address, attempt }: Props) {
  const queries = useQueryClient()
  const query = machineQuery(line.printer)
  const { data: state } = useQuery(query)
  const [isThere, setThere] = useState(false)
  const beyond = !isLoopback(addressIn(address)?.host ?? '')
  const act = (name: MachineAct, body?: object): void =>
    void attempt(async () => {
      queries.setQueryData(query.queryKey, await actOn(line.printer, name, body))
    })
  const isOurs = state?.print === line.id
  // What the machine has come to its end with is known to the server only.
  useEffect(() => {
    if (!isOurs)
      void Promise.all([queries.invalidateQueries({ queryKey: ['print', line.id] }), queries.invalidateQueries({ queryKey: ['prints'] })])
  }, [isOurs, queries, line.id])
  const isBroken = state?.broken?.print === line.id
  return (
    <section aria-label="Machine" className="mt-3 space-y-2 border-y border-line py-3 text-[12.5px]">
      <p className="flex items-baseline gap-3">
        <span className="font-semibold">{printerName}</span>
        <span className="figure text-muted">{address}</span>
        {state && state.phase !== 'away' && <Heats state={state} />}
      </p>
      {state?.message !== undefined && state.message !== '' && <p className="border-l-2 border-lantern pl-2">{state.message}</p>}
      {(!state || state.phase === 'away') && (
        <div className="flex items-center gap-3">
          <Button onClick={() => act('connect', { confirmed: isThere })} disabled={beyond && !isThere}>
            Connect
          </Button>
          {beyond && (
            <Checkbox checked={isThere} onChange={setThere}>
              It is beyond this computer, and somebody is with it: nobody starts a heater from afar in an empty house.
            </Checkbox>
          )}
        </div>
      )}
      {isBroken && state?.broken && (
        <Broken
          broken={state.broken}
          isIdle={state.phase === 'idle'}
          onGoOn={() => act('print', { print: line.id })}
          onGiveUp={() => act('give-up', { print: line.id })}
        />
      )}
      {state?.phase === 'idle' && line.state === 'planned' && (
        <>
          <Button tone="main" onClick={() => act('print', { print: line.id })}>
            Heat it and print
          </Button>
          <p className="text-muted">
            It heats, homes and prints from here on. Somebody stays with it; the bed is clear, and nothing that burns lies near.
          </p>
        </>
      )}
      {isOurs && state && <Progress state={state} heightMm={line.heightMm} />}
      {isOurs && state && (
        <div className="flex gap-2">
          {state.phase === 'held' ? (
            <Button tone="main" onClick={() => act('resume')}>
              Go on
            </Button>
          ) : (
            <Button onClick={() => act('pause')}>Hold</Button>
          )}
          <Button onClick={() => act('end')}>End it</Button>
          <Button tone="danger" onClick={() => act('halt')}>
            Stop at once
          </Button>
        </div>
      )}
    </section>
  )
}

function Heats({ state: { nozzle, bed } }: { state: MachineState }) {
  const told = ({ now, target }: MachineState['nozzle']): string => `${now.toFixed(0)}${target > 0 ? ` of ${target.toFixed(0)}` : ''} °C`
  return (
    <span className="figure ml-auto">
      <span className="text-muted">nozzle</span> {told(nozzle)} <span className="ml-2 text-muted">bed</span> {told(bed)}
    </span>
  )
}

function Progress({ state: { accepted, total, z, phase }, heightMm }: { state: MachineState; heightMm: number }) {
  const share = total === 0 ? 0 : accepted / total
  return (
    <div role="status" className="flex items-center gap-3">
      <div className="h-1.5 flex-1 rounded bg-sunk">
        <div className="h-1.5 rounded bg-lantern" style={{ width: `${100 * share}%` }} />
      </div>
      <span className="figure whitespace-nowrap">
        line {accepted} of {total}, {z.toFixed(1)} of {heightMm.toFixed(1)} mm{phase === 'held' ? ', held' : ''}
      </span>
    </div>
  )
}

function Broken({
  broken: { accepted, total, why },
  isIdle,
  onGoOn,
  onGiveUp,
}: {
  broken: NonNullable<MachineState['broken']>
  isIdle: boolean
  onGoOn: () => void
  onGiveUp: () => void
}) {
  return (
    <div className="space-y-2">
      <p role="alert" className="border-l-2 border-worse pl-2">
        It broke off after line <span className="figure">{accepted}</span> of <span className="figure">{total}</span>. {why}
      </p>
      <div className="flex gap-2">
        <Button tone="main" onClick={onGoOn} disabled={!isIdle}>
          Go on from there
        </Button>
        <Button onClick={onGiveUp}>Do not go on</Button>
      </div>
      <p className="text-muted">
        Going on is right only where the machine was never switched off: it must still know where it stands, and the plastic must be warm.
      </p>
    </div>
  )
}
