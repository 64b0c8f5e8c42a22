import { useEffect, useState } from 'react'
import { bestFirst } from './bestFirst'
import type { Trail } from './useTrail'

/** Steps that are being put in order of what each gains. */
export interface Sorting {
  /** How much of it is done, 0–1; nothing while none is under way. */
  readonly share: number | undefined
  readonly start: () => Promise<void>
  readonly stop: () => void
}

/** Puts the steps of a trail in the order of what each gains, until somebody stops it or looks elsewhere. */
export function useSortByGain({ order, requestOf, measure, purpose, put }: Trail): Sorting {
  const [running, setRunning] = useState<{ readonly stop: Int32Array; readonly share: number }>()
  const stop = running?.stop
  // Whoever looks at other steps, or by another measure, does not want the order any more.
  const looked = `${measure.id} ${order
    .map(({ id }) => id)
    .sort()
    .join()}`
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is looked at ends it.
  useEffect(() => stop && (() => void Atomics.store(stop, 0, 1)), [stop, looked])
  return {
    share: running?.share,
    stop: () => stop && Atomics.store(stop, 0, 1),
    start: async () => {
      const stop = new Int32Array(new SharedArrayBuffer(4))
      setRunning({ stop, share: 0 })
      try {
        const best = await bestFirst(order, requestOf, (p) => measure.of(p, purpose), measure.better, {
          stop,
          onProgress: (done, of) => setRunning({ stop, share: done / of }),
        })
        if (best) put(best.map(({ id }) => id))
      } finally {
        setRunning(undefined)
      }
    },
  }
}
