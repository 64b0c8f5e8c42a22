import type { Stood } from '@sable/core/queue/asBefore'
import { planWork, type QueuePlan } from '@sable/core/queue/plan'
import type { Queue } from '@sable/core/queue/queue'

/** What is asked of the worker: several queues one after another, each by its name. */
export interface PlanAsk {
  readonly queues: readonly { readonly id: string; readonly queue: Queue }[]
  /** A plan that stood before: the one for now leaves it as it is where it can, what might be begins from it. */
  readonly before?: readonly Stood[] | undefined
}
export type PlanAnswer = { readonly id: string } & ({ readonly share: number } | { readonly plan: QueuePlan })

const post = (answer: PlanAnswer): void => (self as unknown as { postMessage: (answer: PlanAnswer) => void }).postMessage(answer)

self.onmessage = ({ data: { queues, before } }: MessageEvent<PlanAsk>) => {
  for (const { id, queue } of queues) {
    const work = planWork(queue, { before, ...(id === 'now' ? {} : { worthMoving: 0 }) })
    for (;;) {
      const step = work.next()
      if (step.done) {
        post({ id, plan: step.value })
        break
      }
      post({ id, share: step.value })
    }
  }
}
