import type { Candidate } from '@sable/contract/lineup'
import type { FrozenPrint } from '@sable/contract/prints'
import { type ForetoldPrint, foretoldPrint, wholeRanges } from '@sable/core/log/foretoldPrint'
import type { Prediction } from '@sable/core/pipeline/predict'
import { useQueryClient } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import { asRefusal } from '../../api/asRefusal'
import { sendProgram } from '../../api/machines'
import { planPrint, startPrint } from '../../api/prints'
import { useBench } from '../../desk/bench'
import { useDesk } from '../../desk/deskStore'
import { WeighButton } from '../../log/instrumentButtons'
import { predictionPool, requestFor, useForecasts } from '../../predictions/predictionStore'
import { useDoubts } from '../../predictions/useDoubts'
import { putIntoQueue } from '../../queue/putIntoQueue'
import { Button } from '../../ui/Button'
import { Sheet } from '../../ui/Dialog'
import { Notice, type Refusal } from '../../ui/Notice'
import { NumberField } from '../../ui/NumberField'
import { RangeLine } from '../../ui/RangeLine'
import { cautionsFor } from '../sheet/cautions'

/** A column becomes a print: what is foretold is frozen here, and the reel goes on the scale. */
export function PrintDialog({ candidate, onClose }: { candidate: Candidate; onClose: () => void }) {
  const { content, part, shelf } = useBench()
  const lineup = useDesk((desk) => desk.lineupId)
  const prediction = useForecasts((all) => (all[candidate.id]?.state === 'done' ? all[candidate.id]?.prediction : undefined))
  const request = useMemo(() => requestFor(candidate, content, part, shelf), [candidate, content, part, shelf])
  const requests = useMemo(() => (request ? [request] : []), [request])
  const { found, share } = useDoubts(requests, content.purpose)
  const [beforeG, setBeforeG] = useState<number>()
  const [refusal, setRefusal] = useState<Refusal>()
  const [busy, setBusy] = useState(false)
  const queries = useQueryClient()
  const navigate = useNavigate()
  const [doubtful] = found
  const foretold = prediction && doubtful ? foretoldPrint(prediction, doubtful, content.purpose) : undefined
  const intoQueue = async (): Promise<void> => {
    if (!prediction || !foretold || busy) return
    setBusy(true)
    try {
      const way = {
        ...frozenPrint(candidate, prediction, foretold, { name: part.name, part: part.id, placement: content.placement }),
        ...(lineup === undefined ? {} : { lineup }),
      }
      await navigate(`/queue/${await putIntoQueue(way, queries)}`)
    } catch (error) {
      setRefusal(asRefusal(error))
      setBusy(false)
    }
  }
  const begin = async (how: 'now' | 'later' | 'machine'): Promise<void> => {
    if (!prediction || !foretold || !request || busy) return
    setBusy(true)
    try {
      // What is printed is known by its fingerprint, also where it is carried over by hand.
      const program = await predictionPool().anyWorker.writeProgram(request)
      const { placement } = content
      const frozen = frozenPrint(candidate, prediction, foretold, { name: part.name, part: part.id, placement })
      const { line } = await planPrint({
        ...frozen,
        ...(lineup === undefined ? {} : { lineup }),
        ...(beforeG === undefined ? {} : { beforeG }),
        ...(wet === undefined ? {} : { wet }),
        program: { sha256: await fingerprintOf(program), bytes: program.size },
      })
      if (how === 'machine') await sendProgram(line.id, program)
      if (how === 'now') await startPrint(line.id)
      await queries.invalidateQueries({ queryKey: ['prints'] })
      await navigate(`/log/${line.id}`)
    } catch (error) {
      setRefusal(asRefusal(error))
      setBusy(false)
    }
  }
  const wet = request?.setup.stock?.wet
  const hasAddress = shelf.printers.find(({ key }) => key === candidate.printer)?.address !== undefined
  const spool = shelf.spools.find(({ key }) => key === candidate.spool)
  return (
    <Sheet title={`Print ${part.name} as ${candidate.name}`} onClose={onClose} width="w-[34rem]">
      {refusal && <Notice refusal={refusal} onClose={() => setRefusal(undefined)} />}
      {!prediction && <p className="py-4 text-muted">There is no figure of this column yet.</p>}
      {prediction && !foretold && (
        <p role="status" className="py-4 text-muted">
          Working out how sure the figures are: {Math.round(100 * (share ?? 0))} %
        </p>
      )}
      {foretold && (
        <>
          <Foretold foretold={foretold} />
          <div className="my-3 flex items-center gap-3 border-y border-line py-3">
            <NumberField
              label={spool ? `${spool.name} on the scale, reel and all` : 'The reel on the scale, if you weigh it'}
              unit="g"
              value={beforeG}
              problem="more than nothing"
              onCommit={(grams) => {
                if (grams !== undefined && !(grams > 0 && grams < 30_000)) return false
                setBeforeG(grams)
                return true
              }}
            />
            <WeighButton name="the reel" onGrams={setBeforeG} onRefusal={setRefusal} />
          </div>
          <ul className="space-y-1 text-[12px] text-muted">
            {cautionsFor([prediction!]).map((caution) => (
              <li key={caution} className="border-l-2 border-line pl-2">
                {caution}
              </li>
            ))}
          </ul>
        </>
      )}
      {busy && (
        <p role="status" className="mt-3 text-right text-[12px] text-muted">
          Writing its program …
        </p>
      )}
      <div className="mt-4 flex justify-end gap-2">
        <Button onClick={() => void intoQueue()} disabled={!foretold || busy}>
          Into the queue
        </Button>
        <Button onClick={() => void begin('later')} disabled={!foretold || busy}>
          Put it into the log for later
        </Button>
        {hasAddress && (
          <Button onClick={() => void begin('machine')} disabled={!foretold || busy}>
            Send it to the machine
          </Button>
        )}
        <Button tone="main" onClick={() => void begin('now')} disabled={!foretold || busy}>
          It starts now
        </Button>
      </div>
    </Sheet>
  )
}

function Foretold({ foretold }: { foretold: ForetoldPrint }) {
  const { time, mass } = wholeRanges(foretold)
  return (
    <>
      <dl className="space-y-1 text-[12.5px]">
        <RangeLine label="From start to end" value={foretold.timeS + foretold.startS} range={time} as="time" />
        <RangeLine label="Filament" value={foretold.massG} range={mass} as="mass" />
      </dl>
      <p className="pt-1 text-[12px] text-muted">
        Four prints in five end within these ranges. What is foretold is kept with the print: later edits change nothing of it.
      </p>
    </>
  )
}

/** SHA-256, hexadecimal. */
async function fingerprintOf(program: Blob): Promise<string> {
  const digest = await crypto.subtle.digest('SHA-256', await program.arrayBuffer())
  return Array.from(new Uint8Array(digest), (byte) => byte.toString(16).padStart(2, '0')).join('')
}

/** A column as it stands, for the day book. */
export const frozenPrint = (
  { printer, nozzle, material, spool, name: profile, values, overrides }: Candidate,
  { settings, origins }: Pick<Prediction, 'settings' | 'origins'>,
  foretold: ForetoldPrint,
  of: Pick<FrozenPrint, 'name' | 'part' | 'placement'>,
): FrozenPrint => ({
  ...of,
  printer,
  nozzle,
  material,
  ...(spool === undefined ? {} : { spool }),
  profile,
  values,
  overrides: [...overrides],
  resolved: Object.fromEntries(
    Object.entries(settings).map(([name, value]) => [name, { value, origin: origins[name as keyof typeof origins] }]),
  ),
  foretold,
})
