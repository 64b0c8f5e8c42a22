import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { asRefusal } from '../../api/asRefusal'
import { forgetLineup, lineupsQuery, removedLineupsQuery, setLineupRemoved } from '../../api/lineups'
import { Button } from '../../ui/Button'
import { Question, Sheet } from '../../ui/Dialog'
import { dayOf } from '../../ui/dates'
import { Notice, type Refusal } from '../../ui/Notice'

/** Lineups that were removed and are still kept: each comes back as it was, or goes for good. */
export function RemovedLineups({ onClose }: { onClose: () => void }) {
  const queries = useQueryClient()
  const navigate = useNavigate()
  const removed = useQuery(removedLineupsQuery)
  const [refusal, setRefusal] = useState<Refusal>()
  const [asked, setAsked] = useState<{ readonly id: string; readonly name: string }>()
  const act = async (work: () => Promise<unknown>): Promise<void> => {
    try {
      await work()
      // Those removed stand under the same key.
      await queries.invalidateQueries(lineupsQuery)
    } catch (error) {
      setRefusal(asRefusal(error))
    }
  }
  const bringBack = (id: string) =>
    act(async () => {
      await setLineupRemoved(id, false)
      onClose()
      await navigate(`/bench/${id}/ledger`)
    })
  return (
    <Sheet title="Removed lineups" onClose={onClose}>
      {refusal && <Notice refusal={refusal} onClose={() => setRefusal(undefined)} />}
      {removed.data?.length === 0 && <p className="text-muted">None is kept: each was brought back, or went for good.</p>}
      <table className="w-full text-[12.5px]">
        <tbody>
          {removed.data?.map(({ id, name, removedAt }) => (
            <tr key={id} className="border-t border-line/60">
              <td className="py-1.5 pr-3">{name}</td>
              <td className="w-36 py-1.5 pr-3 whitespace-nowrap text-muted">{dayOf(new Date(removedAt))}</td>
              <td className="w-56 space-x-1 py-1.5 text-right whitespace-nowrap">
                <Button className="h-6 px-1.5" aria-label={`Bring back ${name}`} onClick={() => void bringBack(id)}>
                  Bring back
                </Button>
                <Button tone="danger" className="h-6 px-1.5" aria-label={`Delete ${name} for good`} onClick={() => setAsked({ id, name })}>
                  Delete for good …
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-3 text-[12px] text-muted">What was removed is kept for 30 days.</p>
      {asked && (
        <Question
          title={`Delete ${asked.name} for good?`}
          onEscape={() => setAsked(undefined)}
          actions={
            <>
              <Button onClick={() => setAsked(undefined)}>Keep it</Button>
              <Button
                tone="danger"
                onClick={() => {
                  setAsked(undefined)
                  void act(() => forgetLineup(asked.id))
                }}
              >
                Delete for good
              </Button>
            </>
          }
        >
          <p>Its candidates and its searches go with it. The part and what was printed of it stay. This cannot be undone.</p>
        </Question>
      )}
    </Sheet>
  )
}
