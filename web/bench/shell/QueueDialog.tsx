import { judge, missedWords } from '@sable/core/figures/limits'
import { foretoldPrint } from '@sable/core/log/foretoldPrint'
import { formatDuration } from '@sable/core/units/format'
import { useQueryClient } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import { asRefusal } from '../../api/asRefusal'
import { useBench } from '../../desk/bench'
import { useDesk } from '../../desk/deskStore'
import { requestFor, useForecasts } from '../../predictions/predictionStore'
import { useDoubts } from '../../predictions/useDoubts'
import { jobOf, putJobsIntoQueue } from '../../queue/putIntoQueue'
import { Button } from '../../ui/Button'
import { Checkbox } from '../../ui/Checkbox'
import { Choices } from '../../ui/Choices'
import { Sheet } from '../../ui/Dialog'
import { Notice, type Refusal } from '../../ui/Notice'
import { NumberField } from '../../ui/NumberField'
import { frozenPrint } from '../ledger/PrintDialog'

const hows = [
  { id: 'any', name: 'any of them' },
  { id: 'each', name: 'each of them' },
] as const

/** A job can have so many ways. */
const MOST_WAYS = 12
const MOST_COPIES = 200

/** Columns of the lineup go into the queue: as ways of one job, of which the plan picks, or as a job each. */
export function QueueDialog({ onClose }: { onClose: () => void }) {
  const { content, part, shelf } = useBench()
  const lineup = useDesk((desk) => desk.lineupId)
  const forecasts = useForecasts()
  const columns = content.candidates.map((candidate) => {
    const forecast = forecasts[candidate.id]
    const prediction = forecast?.state === 'done' ? forecast.prediction : undefined
    const lacks = prediction
      ? [
          ...(prediction.checks.some(({ severity }) => severity === 'stop') ? ['cannot be printed'] : []),
          ...missedWords(judge(prediction, content.purpose)),
        ]
      : ['has no figure yet']
    return { candidate, prediction, lacks }
  })
  const [said, setSaid] = useState<Readonly<Record<string, boolean>>>({})
  const chosen = columns.filter(({ candidate, lacks }) => said[candidate.id] ?? lacks.length === 0).filter(({ prediction }) => prediction)
  const ids = chosen.map(({ candidate }) => candidate.id).join()
  const requests = useMemo(
    () => content.candidates.filter(({ id }) => ids.includes(id)).flatMap((one) => requestFor(one, content, part, shelf) ?? []),
    [content, part, shelf, ids],
  )
  const { found, share } = useDoubts(requests, content.purpose)
  const [how, setHow] = useState<(typeof hows)[number]['id']>('any')
  const [copies, setCopies] = useState(1)
  const [refusal, setRefusal] = useState<Refusal>()
  const queries = useQueryClient()
  const navigate = useNavigate()
  const ways = chosen.flatMap(({ candidate, prediction }, i) => {
    const doubtful = found[i]
    if (!prediction || !doubtful) return []
    const of = { name: part.name, part: part.id, placement: content.placement }
    const frozen = frozenPrint(candidate, prediction, foretoldPrint(prediction, doubtful, content.purpose), of)
    return [lineup === undefined ? frozen : { ...frozen, lineup }]
  })
  const isReady = chosen.length > 0 && ways.length === chosen.length
  const put = async (): Promise<void> => {
    const jobs = how === 'any' ? [jobOf(ways, part.name, copies)] : ways.map((way) => jobOf([way], `${part.name}, ${way.profile}`, copies))
    try {
      await navigate(`/queue/${await putJobsIntoQueue(jobs, queries)}`)
    } catch (error) {
      setRefusal(asRefusal(error))
    }
  }
  return (
    <Sheet title={`${part.name} into the queue`} onClose={onClose} width="w-[32rem]">
      {refusal && <Notice refusal={refusal} onClose={() => setRefusal(undefined)} />}
      <p className="pb-2 text-[12.5px] text-muted">
        Columns that keep the purpose’s limits are chosen. The queue picks among the ways of a job.
      </p>
      <ul className="text-[12.5px]">
        {columns.map(({ candidate, prediction, lacks }) => (
          <li key={candidate.id} className="flex items-baseline gap-3 border-t border-line/60 py-1.5">
            <Checkbox
              className="min-w-0 flex-1"
              checked={chosen.some((one) => one.candidate.id === candidate.id)}
              onChange={(is) => setSaid({ ...said, [candidate.id]: is })}
            >
              {candidate.name}
            </Checkbox>
            <span className="text-[12px] text-worse">{lacks.join(', ')}</span>
            <span className="text-muted">{shelf.printers.find(({ key }) => key === candidate.printer)?.name}</span>
            <span className="figure w-20 text-right">{prediction ? formatDuration(prediction.timeS) : ''}</span>
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap items-center gap-4 border-t border-line py-3">
        <Choices label="Print" name="Print" of={hows} value={how} onChange={(id) => setHow(id ?? 'any')} />
        <NumberField
          label="copies"
          width="w-14"
          value={copies}
          problem={`1 to ${MOST_COPIES}`}
          onCommit={(many) => {
            if (many === undefined || !Number.isInteger(many) || many < 1 || many > MOST_COPIES) return false
            setCopies(many)
            return true
          }}
        />
      </div>
      {share !== undefined && (
        <p role="status" className="pb-2 text-[12px] text-muted">
          Working out how sure the figures are: {Math.round(100 * share)} %
        </p>
      )}
      {how === 'any' && chosen.length > MOST_WAYS && <p className="pb-2 text-[12px] text-stop">A job has {MOST_WAYS} ways at most.</p>}
      <div className="flex justify-end gap-2">
        <Button onClick={onClose}>Leave it</Button>
        <Button tone="main" disabled={!isReady || (how === 'any' && ways.length > MOST_WAYS)} onClick={() => void put()}>
          Into the queue
        </Button>
      </div>
    </Sheet>
  )
}
