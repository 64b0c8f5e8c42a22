import Piscina from 'piscina'
import type { OpenLanes } from './lanes'

/** One thread a lane, each with a memory of its own. @param file the built `unitThread` */
export const lanesOfThreads =
  (file: string, count: number): OpenLanes =>
  <Unit, Result>(kind: string, shared: unknown) => {
    const threads = Array.from(
      { length: count },
      () => new Piscina({ filename: file, minThreads: 1, maxThreads: 1, workerData: { kind, shared } }),
    )
    return {
      count,
      run: (lane: number, unit: Unit) => threads[lane]!.run(unit) as Promise<Result>,
      close: async () => {
        await Promise.all(threads.map((thread) => thread.destroy()))
      },
    }
  }
