import type { Prediction } from '@sable/core/pipeline/predict'
import type { Step } from '@sable/core/steps/trail'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { PredictRequest } from '../../predictions/worker/request'

/** What a set of steps takes, s: the middle one gains most, but only once the first is taken. */
const times: Readonly<Record<string, number>> = { a: 90, b: 99, c: 95, 'a+b': 50, 'a+c': 85, 'b+c': 94, 'a+b+c': 45 }
let tried: string[]
let giveUpAfter: number
vi.mock('../../predictions/predictionStore', () => ({
  predictionPool: () => ({
    async tryAll(requests: readonly { set: string }[], stop: Int32Array, onEach: (index: number, found: unknown) => void) {
      // Workers answer in any order.
      for (const index of [...requests.keys()].reverse()) {
        if (tried.length >= giveUpAfter) Atomics.store(stop, 0, 1)
        if (Atomics.load(stop, 0) === 1) return
        tried.push(requests[index]!.set)
        onEach(index, { timeS: times[requests[index]!.set] })
      }
    },
  }),
}))
const { bestFirst } = await import('./bestFirst')

const steps = ['a', 'b', 'c'].map((id) => ({ id }) as Step)
const setOf = (taken: ReadonlySet<string>): string => [...taken].sort().join('+')
const sort = (impossible: string[] = [], progress: number[][] = []) =>
  bestFirst(
    steps,
    (taken) => (impossible.includes(setOf(taken)) ? undefined : ({ set: setOf(taken) } as unknown as PredictRequest)),
    (prediction: Prediction) => prediction.timeS,
    'less',
    { stop: new Int32Array(new SharedArrayBuffer(4)), onProgress: (done, of) => progress.push([done, of]) },
  )

beforeEach(() => {
  tried = []
  giveUpAfter = Infinity
})

describe('steps by what each gains', () => {
  it('are chosen round by round, after those before them', async () => {
    const progress: number[][] = []
    expect((await sort([], progress))?.map(({ id }) => id)).toEqual(['a', 'b', 'c'])
    expect(tried).toEqual(['c', 'b', 'a', 'a+c', 'a+b'])
    expect(progress.at(-1)).toEqual([5, 5])
  })

  it('that cannot be computed come last', async () => {
    expect((await sort(['a', 'a+c', 'a+b', 'a+b+c']))?.map(({ id }) => id)).toEqual(['c', 'b', 'a'])
  })

  it('are left as they were when it is given up', async () => {
    giveUpAfter = 2
    expect(await sort()).toBeUndefined()
    expect(tried).toHaveLength(2)
  })
})
