import type { Plate } from '@sable/contract/plate'
import { noPurpose } from '@sable/core/physics/strength/purpose'
import { useQueryClient } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import { asRefusal } from '../api/asRefusal'
import { useDoubts } from '../predictions/useDoubts'
import type { ToldFigures } from '../predictions/worker/plating'
import { jobOf, putJobsIntoQueue } from '../queue/putIntoQueue'
import { Button } from '../ui/Button'
import type { Refusal } from '../ui/Notice'
import { frozenPlate } from './plateIntoQueue'
import type { Item } from './usePlateColumns'

/** Where a plate goes from here: its program as a file, or into the queue, frozen as it is foretold now. */
export function Onward({
  plate,
  items,
  figures,
  onProgram,
  onRefusal,
}: {
  plate: Plate
  items: readonly Item[]
  /** Nothing while it cannot be printed. */
  figures: ToldFigures | undefined
  onProgram: () => Promise<void>
  onRefusal: (refusal: Refusal | undefined) => void
}) {
  const [isAsked, setAsked] = useState(false)
  const [isWriting, setWriting] = useState(false)
  const write = async (): Promise<void> => {
    setWriting(true)
    await onProgram().finally(() => setWriting(false))
  }
  return (
    <div className="mt-3 border-t border-line pt-3">
      <div className="flex flex-wrap gap-2">
        <Button disabled={!figures || isWriting} onClick={() => void write()}>
          {isWriting ? 'Writing …' : 'Export G-code'}
        </Button>
        <Button tone="main" disabled={!figures || isAsked} onClick={() => setAsked(true)}>
          Into the queue
        </Button>
      </div>
      {isAsked && figures && (
        <Freezing plate={plate} items={items} figures={figures} onDone={() => setAsked(false)} onRefusal={onRefusal} />
      )}
      <p className="mt-2 text-[12px] text-muted">
        Surface and strength of each part are those of its column; together its layers have longer to cool than they say.
      </p>
    </div>
  )
}

/** Works out how sure the figures are, which the queue asks for, and puts the plate there. */
function Freezing({
  plate,
  items,
  figures,
  onDone,
  onRefusal,
}: {
  plate: Plate
  items: readonly Item[]
  figures: ToldFigures
  onDone: () => void
  onRefusal: (refusal: Refusal | undefined) => void
}) {
  const queries = useQueryClient()
  const navigate = useNavigate()
  const keys = items.map(({ key }) => key).join('\n')
  // biome-ignore lint/correctness/useExhaustiveDependencies: the keys say all that items say.
  const requests = useMemo(() => items.map(({ column }) => column.request), [keys])
  const { found, share } = useDoubts(requests, noPurpose)
  const doubts = found.filter((one) => one !== undefined)
  const put = async (): Promise<void> => {
    try {
      await navigate(`/queue/${await putJobsIntoQueue([jobOf([frozenPlate(plate, items, figures, doubts)], plate.name)], queries)}`)
    } catch (error) {
      onRefusal(asRefusal(error))
      onDone()
    }
  }
  return (
    <div className="mt-2 flex items-center gap-3 text-[12px]">
      {share !== undefined ? (
        <p role="status" className="text-muted">
          Working out how sure the figures are: {Math.round(100 * share)} %
        </p>
      ) : (
        <p className="flex-1">It is frozen as it stands: later edits of its columns change nothing in the queue.</p>
      )}
      <Button tone="main" disabled={doubts.length < items.length} onClick={() => void put()}>
        Put it there
      </Button>
      <Button onClick={onDone}>Leave it</Button>
    </div>
  )
}
