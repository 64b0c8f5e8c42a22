import type { Stood } from '@sable/core/queue/asBefore'
import { type QueuePlan, standing } from '@sable/core/queue/plan'
import type { Queue } from '@sable/core/queue/queue'
import { useEffect, useRef, useState } from 'react'
import type { PlanAnswer, PlanAsk } from './worker/planWorker'

export interface Plans {
  readonly plans: ReadonlyMap<string, QueuePlan>
  /** Of the one that is being worked on, 0–1; absent where all are there. */
  readonly share?: number
}

const none: Plans = { plans: new Map() }

/** Plans queues in a worker of their own, one after another. What nobody waits for any more is ended with its worker; what was planned stands until then. */
export function usePlans(queues: readonly { readonly id: string; readonly queue: Queue }[]): Plans {
  const [found, setFound] = useState(none)
  const key = JSON.stringify(queues)
  // What stands is left as it is: a plan that moved without need could not be worked by.
  const stands = useRef<readonly Stood[]>(undefined)
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key says all that the queues say.
  useEffect(() => {
    if (queues.length === 0) return
    const worker = new Worker(new URL('./worker/planWorker.ts', import.meta.url), { type: 'module' })
    let left = queues.length
    // What might be is held against what is: older answers would lie.
    setFound(({ plans }) => ({ plans: new Map([...plans].filter(([id]) => id === 'now')) }))
    worker.onmessage = ({ data }: MessageEvent<PlanAnswer>) => {
      if ('plan' in data) {
        left--
        if (data.id === 'now') stands.current = standing(data.plan)
        setFound(({ plans, share }) => ({
          plans: new Map([...plans, [data.id, data.plan]]),
          ...(left === 0 || share === undefined ? {} : { share }),
        }))
      } else setFound(({ plans }) => ({ plans, share: data.share }))
    }
    const ask: PlanAsk = { queues, before: stands.current }
    worker.postMessage(ask)
    return () => worker.terminate()
  }, [key])
  return found
}
