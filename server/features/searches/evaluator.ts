import type { Variant } from '@sable/core/search/explore'
import Piscina from 'piscina'
import type { Evaluated, SearchWork } from './searchWorker'

/** Evaluates variants of one search, several at a time. Another kind of runner may hand them to other machines. */
export interface Evaluator {
  /** How many variants are worked on at once. */
  readonly lanes: number
  /** @param lane variants that follow one another in a lane share their stages */
  readonly evaluate: (lane: number, variant: Variant) => Promise<Evaluated>
  readonly close: () => Promise<void>
}

export type OpenEvaluator = (work: SearchWork) => Evaluator

/** One thread a lane, each with a memory of its own. @param workerFile the built `searchWorker` */
export const threadsFor =
  (workerFile: string, lanes: number): OpenEvaluator =>
  (work) => {
    const threads = Array.from(
      { length: lanes },
      () => new Piscina({ filename: workerFile, minThreads: 1, maxThreads: 1, workerData: work }),
    )
    return {
      lanes,
      evaluate: (lane, variant) => threads[lane]!.run(variant) as Promise<Evaluated>,
      close: async () => {
        await Promise.all(threads.map((thread) => thread.destroy()))
      },
    }
  }
