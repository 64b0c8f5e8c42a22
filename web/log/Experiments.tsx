import type { StoredExperiment } from '@sable/contract/experiments'
import type { PrintLine } from '@sable/contract/prints'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import clsx from 'clsx'
import { type FormEvent, useState } from 'react'
import { asRefusal } from '../api/asRefusal'
import { addExperiment, changeExperiment, experimentsQuery, removeExperiment } from '../api/experiments'
import { Button } from '../ui/Button'
import { Loading } from '../ui/Loading'
import { Notice, type Refusal } from '../ui/Notice'
import { useAddress } from '../ui/useAddress'
import { ExperimentPage } from './ExperimentPage'

/** Questions to prints: one thing changed at a time, or it says so. */
export function Experiments({ lines }: { lines: readonly PrintLine[] }) {
  const experiments = useQuery(experimentsQuery)
  const queries = useQueryClient()
  const { get, set } = useAddress()
  const [refusal, setRefusal] = useState<Refusal>()
  const [question, setQuestion] = useState('')
  if (!experiments.data) return <Loading what="the experiments" failed={experiments.failureReason} />
  const all = experiments.data
  const open = all.find(({ id }) => id === get('experiment')) ?? all[0]
  const attempt = async (work: () => Promise<StoredExperiment[] | undefined>): Promise<void> => {
    try {
      setRefusal(undefined)
      const now = await work()
      if (now) queries.setQueryData(experimentsQuery.queryKey, now)
    } catch (error) {
      setRefusal(asRefusal(error))
      await queries.invalidateQueries(experimentsQuery)
    }
  }
  const change = async (before: StoredExperiment, after: StoredExperiment): Promise<void> => {
    try {
      setRefusal(undefined)
      await changeExperiment(queries)(before, after)
    } catch (error) {
      setRefusal(asRefusal(error))
    }
  }
  const ask = (event: FormEvent): void => {
    event.preventDefault()
    if (question.trim() === '') return
    void attempt(async () => {
      const { id } = await addExperiment({ question: question.trim() })
      setQuestion('')
      await queries.invalidateQueries(experimentsQuery)
      set({ experiment: id })
      return undefined
    })
  }
  return (
    <div className="flex min-h-0 flex-1">
      <section aria-label="Experiments" className="flex w-80 shrink-0 flex-col border-r border-line">
        <form onSubmit={ask} className="flex gap-2 border-b border-line p-3">
          <input
            aria-label="A question"
            placeholder="A question: why does it string?"
            value={question}
            maxLength={300}
            onChange={(event) => setQuestion(event.target.value)}
            className="h-7 min-w-0 flex-1 rounded border border-line bg-sunk px-2 text-[12.5px]"
          />
          <Button type="submit" disabled={question.trim() === ''}>
            Ask
          </Button>
        </form>
        <ul className="min-h-0 flex-1 overflow-auto">
          {all.map(({ id, question: own, tries, verdict }) => (
            <li key={id}>
              <button
                type="button"
                aria-current={id === open?.id}
                onClick={() => set({ experiment: id })}
                className={clsx(
                  'block w-full border-b border-line/60 px-3 py-2 text-left text-[12.5px]',
                  id === open?.id ? 'bg-raised' : 'hover:bg-raised/60',
                )}
              >
                {own}
                <span className="block text-[12px] text-muted">
                  {tries.length} {tries.length === 1 ? 'print' : 'prints'}
                  {verdict !== '' && `, ${verdict}`}
                </span>
              </button>
            </li>
          ))}
        </ul>
      </section>
      <div className="min-w-0 flex-1 overflow-auto px-5 py-3">
        {refusal && <Notice refusal={refusal} onClose={() => setRefusal(undefined)} />}
        {open ? (
          <ExperimentPage
            key={open.id}
            experiment={open}
            lines={lines}
            onChange={(next) => void change(open, next)}
            onRemove={() => void attempt(() => removeExperiment(open.id))}
          />
        ) : (
          <p className="m-auto max-w-sm p-10 text-center text-muted">
            No question yet. Ask one; then add the prints that try to answer it, each with one thing changed.
          </p>
        )}
      </div>
    </div>
  )
}
