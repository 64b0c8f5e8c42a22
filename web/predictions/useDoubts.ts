import type { Doubtful } from '@sable/core/doubt/doubt'
import type { Slopes } from '@sable/core/doubt/slopes'
import type { Purpose } from '@sable/core/physics/strength/purpose'
import * as Comlink from 'comlink'
import { useEffect, useState } from 'react'
import { keyOf, predictionPool } from './predictionStore'
import type { PredictRequest } from './worker/request'

const MOST_REMEMBERED = 100
const remembered = new Map<string, Slopes>()

export interface Doubts {
  /** Of each request that has been worked out and can be printed. */
  readonly found: readonly (Doubtful | undefined)[]
  /** 0–1; absent once all are there. */
  readonly share?: number
}

/**
 * What the doubts of some candidates are made of: each is computed again with every constant moved, so it is asked for only
 * where it is looked at.
 */
export function useDoubts(requests: readonly PredictRequest[], purpose: Purpose): Doubts {
  const keys = requests.map((request) => `${keyOf(request)} ${JSON.stringify(purpose)}`)
  const [, redraw] = useState(0)
  const [share, setShare] = useState<number>()
  const all = keys.join('\n')
  // biome-ignore lint/correctness/useExhaustiveDependencies: the keys say all that requests and purpose say.
  useEffect(() => {
    const missing = requests.flatMap((request, i) => (remembered.has(keys[i]!) ? [] : [{ request, key: keys[i]! }]))
    if (missing.length === 0) return setShare(undefined)
    const stop = new Int32Array(new SharedArrayBuffer(4))
    const isWanted = (): boolean => Atomics.load(stop, 0) === 0
    const run = async (): Promise<void> => {
      setShare(0)
      for (const [i, { request, key }] of missing.entries()) {
        const onProgress = (done: number): void => {
          if (isWanted()) setShare((i + done) / missing.length)
        }
        const slopes = await predictionPool().anyWorker.findSlopes(request, purpose, stop, Comlink.proxy(onProgress))
        if (!isWanted()) return
        if (slopes) remember(key, slopes)
        redraw((n) => n + 1)
      }
      setShare(undefined)
    }
    // A worker that ended tells nothing; the figures stand without their ranges.
    run().catch(() => isWanted() && setShare(undefined))
    return () => {
      Atomics.store(stop, 0, 1)
    }
  }, [all])
  const found = keys.map((key, i): Doubtful | undefined => {
    const slopes = remembered.get(key)
    return slopes && { slopes, setup: requests[i]!.setup }
  })
  return { found, ...(share === undefined ? {} : { share }) }
}

function remember(key: string, slopes: Slopes): void {
  remembered.set(key, slopes)
  if (remembered.size > MOST_REMEMBERED) remembered.delete(remembered.keys().next().value as string)
}
