import type { StoredPart } from '@sable/contract/part'
import { noPurpose } from '@sable/core/physics/strength/purpose'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { asRefusal } from '../../api/asRefusal'
import { createLineup, lineupsQuery } from '../../api/lineups'
import { Button } from '../../ui/Button'
import { Notice, type Refusal } from '../../ui/Notice'
import { firstCandidate } from './firstCandidate'

/** Begins a lineup with a part that is already here. */
export function NewLineup({ parts }: { parts: readonly StoredPart[] }) {
  const navigate = useNavigate()
  const queries = useQueryClient()
  const [refusal, setRefusal] = useState<Refusal>()
  const begin = async (part: StoredPart): Promise<void> => {
    try {
      const lineup = await createLineup({
        name: part.name,
        partId: part.id,
        placement: { scale: 1, rotateDeg: [0, 0, 0] },
        purpose: noPurpose,
        candidates: [firstCandidate()],
      })
      await queries.invalidateQueries(lineupsQuery)
      await navigate(`/bench/${lineup.id}/ledger`)
    } catch (error) {
      setRefusal(asRefusal(error))
    }
  }
  return (
    <div className="m-auto w-full max-w-lg p-8">
      <h1 className="text-lg font-semibold">No lineup yet</h1>
      <p className="mt-1 mb-4 text-muted">
        A lineup is a part and the ways in which it could be printed. Choose a part to begin; your own model can be dropped in afterwards.
      </p>
      {refusal && <Notice refusal={refusal} onClose={() => setRefusal(undefined)} />}
      <ul className="divide-y divide-line border-y border-line">
        {parts.map((part) => (
          <li key={part.id} className="flex items-center gap-3 py-2">
            <span className="flex-1">{part.name}</span>
            <span className="figure text-muted">{part.report.sizeMm.map((mm) => mm.toFixed(1)).join(' × ')} mm</span>
            <Button onClick={() => void begin(part)}>Begin</Button>
          </li>
        ))}
      </ul>
    </div>
  )
}
