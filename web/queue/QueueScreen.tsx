import type { StoredQueue } from '@sable/contract/queues'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Plus } from 'lucide-react'
import { useEffect, useRef, useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import { toast } from 'sonner'
import { asRefusal } from '../api/asRefusal'
import { addQueue, queuesQuery, removeQueue, writeQueue } from '../api/queues'
import { shelfQuery } from '../api/shelf'
import { Button } from '../ui/Button'
import { Loading } from '../ui/Loading'
import { Notice, type Refusal } from '../ui/Notice'
import { Select } from '../ui/Select'
import { machineOf } from './machineOf'
import { OneQueue } from './OneQueue'
import { type QueueChange, writeMerged } from './writeMerged'

/** The queue: which printer prints what when, who has to be there, and from which reel. */
export function QueueScreen() {
  const { queueId } = useParams()
  const queues = useQuery(queuesQuery)
  const shelf = useQuery(shelfQuery)
  const client = useQueryClient()
  const navigate = useNavigate()
  const [refusal, setRefusal] = useState<Refusal>()
  const writing = useRef(Promise.resolve())
  useEffect(() => {
    document.title = 'Queue · Sable Lantern'
  }, [])
  if (!queues.data || !shelf.data) return <Loading what="the queue" failed={queues.failureReason ?? shelf.failureReason} />
  const open = queues.data.find(({ id }) => id === queueId) ?? (queueId === undefined ? queues.data[0] : undefined)
  const attempt = async (work: () => Promise<StoredQueue[]>): Promise<void> => {
    try {
      setRefusal(undefined)
      client.setQueryData(queuesQuery.queryKey, await work())
    } catch (error) {
      setRefusal(asRefusal(error))
      await client.invalidateQueries(queuesQuery)
    }
  }
  /** One after another, each from what the one before left: else a quick second change would meet the first as another window's. */
  const write = (queue: StoredQueue, change: QueueChange): Promise<void> => {
    writing.current = writing.current.then(() =>
      attempt(async () => {
        const latest = client.getQueryData(queuesQuery.queryKey)?.find(({ id }) => id === queue.id) ?? queue
        const { queues: all, wasChanged } = await writeMerged(latest, change, {
          write: writeQueue,
          list: () => client.fetchQuery({ ...queuesQuery, staleTime: 0 }),
        })
        if (wasChanged) toast('The queue was changed in another window meanwhile: both changes stand.')
        return all
      }),
    )
    return writing.current
  }
  const begin = (): Promise<void> =>
    attempt(async () => {
      const machines = shelf.data.printers
        .filter(({ archived, starter }) => !archived && !starter)
        .concat(shelf.data.printers.filter(({ archived, starter }) => !archived && starter))
        .slice(0, 3)
        .map(({ key }) => machineOf(key))
      const { id } = await addQueue({ name: `Queue ${queues.data.length + 1}`, machines, hours: [], reels: [], jobs: [] })
      await navigate(`/queue/${id}`)
      return client.fetchQuery({ ...queuesQuery, staleTime: 0 })
    })
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <header className="flex min-h-11 shrink-0 items-center gap-3 border-b border-line px-3 max-lg:flex-wrap">
        <h1 className="text-[15px] font-semibold">Queue</h1>
        {queues.data.length > 1 && open && (
          <Select
            label=""
            name="Queue"
            value={open.id}
            of={queues.data.map(({ id, name }) => ({ id, name }))}
            onChange={(id) => void navigate(`/queue/${id}`)}
          />
        )}
        <Button onClick={() => void begin()}>
          <Plus className="size-3.5" aria-hidden /> New queue
        </Button>
        <div className="flex-1" />
        <Link to="/queue/plates" className="text-[12.5px] underline decoration-line underline-offset-2">
          Plates
        </Link>
      </header>
      {refusal && (
        <div className="p-2">
          <Notice refusal={refusal} onClose={() => setRefusal(undefined)} />
        </div>
      )}
      {open ? (
        <OneQueue
          key={open.id}
          stored={open}
          shelf={shelf.data}
          onWrite={(change) => write(open, change)}
          onRemove={() =>
            void attempt(async () => {
              const left = await removeQueue(open.id)
              const { id: _, revision: __, changedAt: ___, ...content } = open
              toast(`${open.name} is deleted.`, {
                action: {
                  label: 'Bring it back',
                  onClick: () =>
                    void attempt(async () => {
                      await addQueue(content)
                      return client.fetchQuery({ ...queuesQuery, staleTime: 0 })
                    }),
                },
              })
              await navigate('/queue')
              return left
            })
          }
          onRefusal={setRefusal}
        />
      ) : (
        <p className="m-auto max-w-sm p-10 text-center text-muted">
          No queue yet. Begin one, then put columns of the bench into it: “Print it …” in a column’s menu has “Into the queue”.
        </p>
      )}
    </div>
  )
}
