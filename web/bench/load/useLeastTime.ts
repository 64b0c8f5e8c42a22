import { wholeCases } from '@sable/core/physics/strength/pickedCases'
import type { Purpose } from '@sable/core/physics/strength/purpose'
import { rankingVoxel, type SolvedPurpose } from '@sable/core/pipeline/solvedWork'
import type { Settings } from '@sable/core/profile/settings'
import { type LeastTime, leastTime, type Proposal, type Question, type Reply } from '@sable/core/search/leastTime'
import * as Comlink from 'comlink'
import { useEffect, useRef, useState } from 'react'
import { predictionPool } from '../../predictions/predictionStore'
import type { PredictRequest } from '../../predictions/worker/request'
import { zoneOf } from './zoneOf'

/** How far a search is, or what it came to. */
export interface Searching {
  readonly weighed: number
  readonly best?: number
  readonly found?: LeastTime
  /** Of what was found, on cells no wider than a line: in newtons, or times its loads. */
  readonly fine?: number
  readonly failed?: string
}

/** What is held against what is wanted: newtons, or of loads that are picked face by face how many times they are borne. */
export const measured = (purpose: Purpose, { factor, failureN }: SolvedPurpose): number =>
  wholeCases(purpose).length > 0 ? factor : failureN

/** Searches for the least time in which a candidate bears its load, weighing each proposal in a worker. */
export function useLeastTime(request: PredictRequest | undefined, settings: Settings, purpose: Purpose) {
  const [state, setState] = useState<Searching>()
  const stop = useRef<Int32Array>(undefined)
  const cancel = (): void => {
    if (stop.current) Atomics.store(stop.current, 0, 1)
    setState(undefined)
  }
  useEffect(
    () => () => {
      if (stop.current) Atomics.store(stop.current, 0, 1)
    },
    [],
  )
  const run = async (wanted: number): Promise<void> => {
    if (!request) return
    cancel()
    const own = new Int32Array(new SharedArrayBuffer(4))
    stop.current = own
    const isWanted = (): boolean => Atomics.load(own, 0) === 0
    let weighed = 0
    let best: number | undefined
    setState({ weighed })
    const solve = ({ values, overrides }: Proposal, options: { readonly isDrawn?: boolean; readonly voxelMm?: number }) =>
      predictionPool().anyWorker.solveLoad(
        { ...request, values: { ...request.values, ...values }, overrides: [...request.overrides, ...overrides] },
        purpose,
        options,
        own,
        Comlink.proxy(() => {}),
      )
    /** What was weighed already, for a second run that aims higher. */
    const known = new Map<string, Reply>()
    const answerTo = async ({ ask, proposal }: Question): Promise<Reply> => {
      const key = JSON.stringify([ask, proposal])
      if (known.has(key)) return known.get(key)
      const answer = await solve(proposal, { isDrawn: ask === 'zone' })
      if (answer.kind === 'cancelled') return undefined
      let reply: Reply
      if (answer.kind === 'done') {
        const loadN = measured(purpose, answer.solved)
        if (ask === 'zone') reply = answer.picture && zoneOf(answer.picture, wanted / loadN)
        else {
          reply = { timeS: answer.timeS, loadN }
          if (loadN >= wanted && (best === undefined || answer.timeS < best)) best = answer.timeS
        }
      }
      if (ask === 'weigh') weighed++
      known.set(key, reply)
      if (isWanted()) setState({ weighed, ...(best === undefined ? {} : { best }) })
      return reply
    }
    const search = async (aim: number): Promise<{ readonly found: LeastTime; readonly fine?: number } | undefined> => {
      const work = leastTime(settings, aim)
      for (let step = work.next(); ; ) {
        if (step.done) {
          const answer = await solve(step.value.proposal, { voxelMm: rankingVoxel(settings) })
          return { found: step.value, ...(answer.kind === 'done' ? { fine: measured(purpose, answer.solved) } : {}) }
        }
        const reply = await answerTo(step.value)
        if (!isWanted()) return undefined
        step = work.next(reply)
      }
    }
    try {
      const first = await search(wanted)
      // Wide cells may flatter what was found; then it is searched for once more, as much higher.
      const misses = first?.found.bears && first.fine !== undefined && first.fine < wanted
      const end = misses ? await search((wanted * wanted) / first.fine!) : first
      if (end && isWanted()) setState({ weighed, ...end })
    } catch (error) {
      if (isWanted()) setState({ weighed, failed: error instanceof Error ? error.message : String(error) })
    }
  }
  return { state, run, cancel }
}
