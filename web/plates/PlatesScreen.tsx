import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Plus } from 'lucide-react'
import { useEffect, useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import { toast } from 'sonner'
import { asRefusal } from '../api/asRefusal'
import { addPlate, platesQuery, removePlate } from '../api/plates'
import { shelfQuery } from '../api/shelf'
import { Button } from '../ui/Button'
import { Loading } from '../ui/Loading'
import { Notice, type Refusal } from '../ui/Notice'
import { Select } from '../ui/Select'
import { OnePlate } from './OnePlate'

/** Plates: columns of lineups that share a bed, on their way into the queue. */
export function PlatesScreen() {
  const { plateId } = useParams()
  const plates = useQuery(platesQuery)
  const shelf = useQuery(shelfQuery)
  const client = useQueryClient()
  const navigate = useNavigate()
  const [refusal, setRefusal] = useState<Refusal>()
  useEffect(() => {
    document.title = 'Plates · Sable Lantern'
  }, [])
  if (!plates.data || !shelf.data) return <Loading what="the plates" failed={plates.failureReason ?? shelf.failureReason} />
  const open = plates.data.find(({ id }) => id === plateId) ?? (plateId === undefined ? plates.data[0] : undefined)
  const attempt = async (work: () => Promise<void>): Promise<void> => {
    try {
      setRefusal(undefined)
      await work()
    } catch (error) {
      setRefusal(asRefusal(error))
    }
  }
  const begin = (): Promise<void> =>
    attempt(async () => {
      const { id } = await addPlate({ name: `Plate ${plates.data.length + 1}`, order: 'together', items: [] })
      await client.fetchQuery({ ...platesQuery, staleTime: 0 })
      await navigate(`/queue/plates/${id}`)
    })
  const remove = (): Promise<void> =>
    attempt(async () => {
      if (!open) return
      client.setQueryData(platesQuery.queryKey, await removePlate(open.id))
      const { name, order, items } = open
      toast(`${name} is deleted.`, {
        action: {
          label: 'Bring it back',
          onClick: () =>
            void attempt(async () => {
              const { id } = await addPlate({ name, order, items })
              await client.fetchQuery({ ...platesQuery, staleTime: 0 })
              await navigate(`/queue/plates/${id}`)
            }),
        },
      })
      await navigate('/queue/plates')
    })
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <header className="flex min-h-11 shrink-0 items-center gap-3 border-b border-line px-3 max-lg:flex-wrap">
        <h1 className="text-[15px] font-semibold">Plates</h1>
        {plates.data.length > 1 && open && (
          <Select
            label=""
            name="Plate"
            value={open.id}
            of={plates.data.map(({ id, name }) => ({ id, name }))}
            onChange={(id) => void navigate(`/queue/plates/${id}`)}
          />
        )}
        <Button onClick={() => void begin()}>
          <Plus className="size-3.5" aria-hidden /> New plate
        </Button>
        <div className="flex-1" />
        <Link to="/queue" className="text-[12.5px] underline decoration-line underline-offset-2">
          The queue
        </Link>
      </header>
      {refusal && (
        <div className="p-2">
          <Notice refusal={refusal} onClose={() => setRefusal(undefined)} />
        </div>
      )}
      {open ? (
        <OnePlate key={open.id} stored={open} shelf={shelf.data} onRemove={() => void remove()} onRefusal={setRefusal} />
      ) : (
        <p className="m-auto max-w-sm p-10 text-center text-muted">
          No plate yet. Begin one, then add columns of lineups: different parts, each with its own profile, on one bed.
        </p>
      )}
    </div>
  )
}
