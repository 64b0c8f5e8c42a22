import type { Candidate } from '@sable/contract/lineup'
import { useNavigate, useParams, useSearchParams } from 'react-router'
import { useBench } from '../../desk/bench'
import { edit } from '../../desk/deskStore'
import { addCandidate, nextName } from '../../desk/edits'
import { Button } from '../../ui/Button'
import { Sentence } from './Sentence'
import { TrailBar } from './TrailBar'
import { TrailTable } from './TrailTable'
import { trailSentence } from './trailWords'
import { useTrail } from './useTrail'

/** The differences of two candidates as a trail of single changes, and what each of them did. */
export function StepsView() {
  const { candidates } = useBench().content
  const [search] = useSearchParams()
  const from = candidates.find(({ id }) => id === search.get('from')) ?? candidates[0]
  const to = candidates.find(({ id }) => id === search.get('to')) ?? candidates.find(({ id }) => id !== from?.id)
  if (!from || !to) {
    return (
      <p className="m-auto max-w-sm p-8 text-center text-muted">
        Steps lead from one candidate to another, and here {candidates.length === 0 ? 'is none' : 'is only one'}. Add one on the ledger.
      </p>
    )
  }
  return <Steps key={`${from.id} ${to.id}`} from={from} to={to} />
}

function Steps({ from, to }: { from: Candidate; to: Candidate }) {
  const { candidates } = useBench().content
  const navigate = useNavigate()
  const { lineupId } = useParams()
  const trail = useTrail(from, to)
  const { order, taken } = trail
  const sentence = trailSentence(trail)
  const asCandidate = (): void => {
    const names = candidates.map(({ name }) => name)
    const made = trail.madeOf(new Set(taken.map(({ id }) => id)))
    edit((before) => addCandidate(before, { ...made, id: crypto.randomUUID(), name: nextName(to.name, names) }))
    void navigate(`/bench/${lineupId}/ledger`)
  }
  return (
    <section aria-label="Steps" className="flex min-h-0 flex-1 flex-col">
      <TrailBar trail={trail} />
      {order.length === 0 ? (
        <p className="m-auto p-8 text-muted">
          {from.name} and {to.name} say the same.
        </p>
      ) : (
        <div className="min-h-0 flex-1 overflow-auto px-3 py-2">
          <TrailTable trail={trail} />
          <div className="mt-3 flex items-start gap-3">
            {taken.length < order.length && (
              <Button tone="main" onClick={asCandidate}>
                As a candidate
              </Button>
            )}
            {sentence && <Sentence text={sentence} />}
          </div>
        </div>
      )}
    </section>
  )
}
