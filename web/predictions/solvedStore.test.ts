import type { Prediction } from '@sable/core/pipeline/predict'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { candidateOf, lineupOf, shelf, storedPart } from '../testing/lineups'
import type { PredictRequest } from './worker/request'
import type { SolvedAnswer } from './worker/solving'

interface Asked {
  readonly id: string
  readonly stop: Int32Array
  readonly onProgress: (share: number) => void
  readonly answer: (answer: SolvedAnswer) => Promise<void>
}
const asked: Asked[] = []
vi.mock('comlink', () => ({ proxy: (of: unknown) => of }))
vi.mock('./predictionPool', () => ({
  PredictionPool: class {
    cancel(): void {}
    submit(): void {}
    workerOf(id: string) {
      return {
        solveLoad: (_: PredictRequest, __: unknown, ___: unknown, stop: Int32Array, onProgress: (share: number) => void) =>
          new Promise<SolvedAnswer>((resolve) => {
            asked.push({
              id,
              stop,
              onProgress,
              answer: async (answer) => {
                resolve(answer)
                await vi.advanceTimersByTimeAsync(1)
              },
            })
          }),
      }
    }
  },
}))
const { keyOf, requestFor, useForecasts } = await import('./predictionStore')
const { drawSolved, followSolved, PAUSE_MS, useSolving } = await import('./solvedStore')

// What was solved is kept for the whole page, so every test has values of its own.
let walls = 0
const content = (...names: string[]) => lineupOf(names.map((name, i) => candidateOf(name, { wallCount: walls, topLayers: 3 + i })))
/** Its figures are there, and have stood for a while. */
async function foretold(lineup: ReturnType<typeof content>): Promise<void> {
  for (const candidate of lineup.candidates) {
    const key = keyOf(requestFor(candidate, lineup, storedPart, shelf)!)
    useForecasts.setState({ [candidate.id]: { key, state: 'done', prediction: { timeS: 60 } as Prediction, startedAt: 0 } })
  }
  await stands()
}
const stands = (): Promise<unknown> => vi.advanceTimersByTimeAsync(PAUSE_MS + 1)
const solved = (failureN: number): SolvedAnswer => ({ kind: 'done', solved: { failureN, factor: failureN }, timeS: 60 }) as SolvedAnswer
const follow = (lineup: ReturnType<typeof content>): void => followSolved({ content: lineup, part: storedPart, shelf })
const told = (lineup: ReturnType<typeof content>, i: number) => useForecasts.getState()[lineup.candidates[i]!.id]?.prediction?.solved

beforeEach(() => {
  vi.useFakeTimers()
  followSolved(undefined)
  useForecasts.setState({}, true)
  useSolving.setState({}, true)
  drawSolved([])
  asked.length = 0
  walls++
})

describe('loads of a lineup', () => {
  it('are solved once their figures are there, and told with them when all are', async () => {
    const lineup = content('one', 'two')
    follow(lineup)
    expect(asked).toHaveLength(0)
    await foretold(lineup)
    expect(asked).toHaveLength(2)
    await asked[0]!.answer(solved(40))
    // Loads of different models are not to be compared.
    expect(told(lineup, 0)).toBeUndefined()
    await asked[1]!.answer(solved(50))
    expect(told(lineup, 0)).toMatchObject({ failureN: 40 })
    expect(told(lineup, 1)).toMatchObject({ failureN: 50 })
    expect(asked).toHaveLength(2)
  })

  it('stay told when word of progress comes after the answer', async () => {
    const lineup = content('one')
    follow(lineup)
    await foretold(lineup)
    asked[0]!.onProgress(0.4)
    const id = lineup.candidates[0]!.id
    expect(useSolving.getState()[id]).toMatchObject({ share: 0.4 })
    await asked[0]!.answer(solved(40))
    asked[0]!.onProgress(1)
    expect(useSolving.getState()[id]).toMatchObject({ solved: { failureN: 40 } })
  })

  it('that changed are solved anew, and the old ones given up', async () => {
    const lineup = content('one')
    follow(lineup)
    await foretold(lineup)
    const other = { ...lineup, purpose: { ...lineup.purpose, load: { ...lineup.purpose.load, kind: 'pull' as const } } }
    follow(other)
    await stands()
    expect(asked).toHaveLength(2)
    expect(asked[0]!.stop[0]).toBe(1)
    await asked[0]!.answer({ kind: 'cancelled' })
    await asked[1]!.answer(solved(70))
    expect(told(lineup, 0)).toMatchObject({ failureN: 70 })
    // What was solved before is not solved again.
    follow(lineup)
    await stands()
    expect(asked).toHaveLength(3)
    follow(other)
    await stands()
    expect(asked).toHaveLength(3)
  })

  it('that cannot be solved say why, and are not asked for again', async () => {
    const lineup = content('one')
    follow(lineup)
    await foretold(lineup)
    await asked[0]!.answer({ kind: 'refused', message: 'Nothing of the part is held.', where: '', remedy: 'Hold it.' })
    expect(useSolving.getState()[lineup.candidates[0]!.id]?.why).toBe('Nothing of the part is held. Hold it.')
    follow(lineup)
    await stands()
    expect(asked).toHaveLength(1)
  })

  it('along a direction of their own are not solved, and what is to be looked at is not either', async () => {
    const lineup = content('one')
    const free = { ...lineup, purpose: { ...lineup.purpose, load: { ...lineup.purpose.load, axis: 'free' as const } } }
    follow(free)
    await foretold(free)
    expect(useSolving.getState()[lineup.candidates[0]!.id]?.why).toMatch(/direction of its own/)
    follow({ ...lineup, purpose: { ...lineup.purpose, kind: 'show' } })
    await foretold(lineup)
    expect(asked).toHaveLength(0)
  })

  it('are not asked for while figures change faster than anybody reads', async () => {
    const lineup = content('one')
    follow(lineup)
    const other = { ...lineup, purpose: { ...lineup.purpose, load: { ...lineup.purpose.load, kind: 'crush' as const } } }
    const [candidate] = lineup.candidates
    const key = keyOf(requestFor(candidate!, lineup, storedPart, shelf)!)
    useForecasts.setState({ [candidate!.id]: { key, state: 'done', prediction: { timeS: 60 } as Prediction, startedAt: 0 } })
    await vi.advanceTimersByTimeAsync(PAUSE_MS / 2)
    follow(other)
    await vi.advanceTimersByTimeAsync(PAUSE_MS / 2 + 1)
    expect(asked).toHaveLength(0)
    await stands()
    expect(asked).toHaveLength(1)
  })
})
