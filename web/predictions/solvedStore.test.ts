import type { Prediction } from '@sable/core/pipeline/predict'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { candidateOf, lineupOf, shelf, storedPart } from '../testing/lineups'
import type { PredictRequest } from './worker/request'
import type { SolvedAnswer, SwayAnswer } from './worker/solving'

interface Asked {
  readonly id: string
  readonly stop: Int32Array
  readonly onProgress: (share: number) => void
  readonly answer: (answer: SolvedAnswer) => Promise<void>
}
const asked: Asked[] = []
interface SwayAsked {
  readonly id: string
  readonly stop: Int32Array
  readonly answer: (answer: SwayAnswer) => Promise<void>
}
const swaysAsked: SwayAsked[] = []
vi.mock('comlink', () => ({ proxy: (of: unknown) => of }))
vi.mock('./predictionPool', () => ({
  PredictionPool: class {
    cancel(): void {}
    submit(): void {}
    workerOf(id: string) {
      return {
        solveSway: (_: PredictRequest, stop: Int32Array) =>
          new Promise<SwayAnswer>((resolve) => {
            swaysAsked.push({
              id,
              stop,
              answer: async (answer) => {
                resolve(answer)
                await vi.advanceTimersByTimeAsync(1)
              },
            })
          }),
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
const steady = { sway: { mostMm: 0, isSlender: false }, supportSway: { mostMm: 0 } }
async function foretold(lineup: ReturnType<typeof content>, own: object = {}): Promise<void> {
  for (const candidate of lineup.candidates) {
    const key = keyOf(requestFor(candidate, lineup, storedPart, shelf)!)
    useForecasts.setState({
      [candidate.id]: { key, state: 'done', prediction: { timeS: 60, ...steady, ...own } as unknown as Prediction, startedAt: 0 },
    })
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
  swaysAsked.length = 0
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
    useForecasts.setState({
      [candidate!.id]: { key, state: 'done', prediction: { timeS: 60, ...steady } as unknown as Prediction, startedAt: 0 },
    })
    await vi.advanceTimersByTimeAsync(PAUSE_MS / 2)
    follow(other)
    await vi.advanceTimersByTimeAsync(PAUSE_MS / 2 + 1)
    expect(asked).toHaveLength(0)
    await stands()
    expect(asked).toHaveLength(1)
  })
})

describe('how candidates stand', () => {
  const slender = { sway: { mostMm: 0.004, isSlender: true } }
  const sway = (mm: number): SwayAnswer => ({ kind: 'done', sway: { part: { mm } } }) as SwayAnswer
  const stood = (lineup: ReturnType<typeof content>, i: number) => useForecasts.getState()[lineup.candidates[i]!.id]?.prediction?.solvedSway

  it('is solved after their loads, of those that may sway, and told when all of it is there', async () => {
    const lineup = content('one', 'two')
    follow(lineup)
    await foretold(lineup, slender)
    expect(swaysAsked).toHaveLength(0)
    await asked[0]!.answer(solved(40))
    await asked[1]!.answer(solved(50))
    await stands()
    expect(swaysAsked.map(({ id }) => id)).toEqual(lineup.candidates.map(({ id }) => id))
    await swaysAsked[0]!.answer(sway(0.3))
    expect(stood(lineup, 0)).toBeUndefined()
    await swaysAsked[1]!.answer(sway(0.2))
    expect(stood(lineup, 0)).toEqual({ part: { mm: 0.3 } })
    expect(stood(lineup, 1)).toEqual({ part: { mm: 0.2 } })
    expect(told(lineup, 0)).toMatchObject({ failureN: 40 })
    await stands()
    expect(swaysAsked).toHaveLength(2)
  })

  it('stays with their beams where they are steady or cannot be solved, and is solved of what is only looked at too', async () => {
    const lineup = content('one')
    const shown = { ...lineup, purpose: { ...lineup.purpose, kind: 'show' as const } }
    follow(shown)
    await foretold(shown)
    expect(swaysAsked).toHaveLength(0)
    await foretold(shown, slender)
    await stands()
    expect(swaysAsked).toHaveLength(1)
    await swaysAsked[0]!.answer({ kind: 'refused', message: 'Nothing of the part is held.', where: '', remedy: 'Hold it.' })
    await stands()
    expect(swaysAsked).toHaveLength(1)
    expect(stood(lineup, 0)).toEqual({})
    expect(asked).toHaveLength(0)
  })

  it('is given up when its figures change', async () => {
    const lineup = content('one')
    const shown = { ...lineup, purpose: { ...lineup.purpose, kind: 'show' as const } }
    follow(shown)
    await foretold(shown, slender)
    await stands()
    useForecasts.setState({ [lineup.candidates[0]!.id]: { key: 'other', state: 'running', startedAt: 0 } as never })
    expect(swaysAsked[0]!.stop[0]).toBe(1)
  })
})
