import type { OnTable as Seen } from '@sable/contract/instruments'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { asRefusal } from '../api/asRefusal'
import { instrumentsQuery, lookAtTable } from '../api/instruments'
import { Button } from '../ui/Button'
import type { Refusal } from '../ui/Notice'
import { SeenThingPicture } from './SeenThingPicture'

/** What lies on the table of the simulated machine, to be read like a thing of one's own; nothing where there is none. */
export function OnTable({ onRefusal }: { onRefusal: (refusal: Refusal) => void }) {
  const { data } = useQuery(instrumentsQuery)
  const [seen, setSeen] = useState<Seen>()
  const [pulled, setPulled] = useState(false)
  if (!data?.table) return null
  const look = async (): Promise<void> => {
    try {
      setPulled(false)
      setSeen(await lookAtTable())
    } catch (error) {
      onRefusal(asRefusal(error))
    }
  }
  return (
    <section aria-label="On the table" className="mt-3 text-[12.5px]">
      <div className="flex items-center gap-3">
        <Button onClick={() => void look()}>{seen ? 'Look again' : 'Look at the table'}</Button>
        {seen?.thing && !pulled && <Button onClick={() => setPulled(true)}>Pull it apart</Button>}
        {seen && !seen.thing && <span className="text-muted">Nothing lies there yet.</span>}
        {seen?.thing && pulled && <span className="figure">It parted between its layers at {seen.pulledApartAtN.toFixed(0)} N.</span>}
      </div>
      {seen?.thing && (
        <div className="mt-2 h-72 border border-line bg-sunk">
          <SeenThingPicture thing={seen.thing} name="What lies on the table" />
        </div>
      )}
    </section>
  )
}
