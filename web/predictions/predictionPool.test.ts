import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { PredictAnswer, PredictRequest } from '../workers/predictWorker'

/** A worker that answers when it is told to. */
class HandWorker {
  readonly asked: { readonly request: PredictRequest; readonly stop: Int32Array; readonly answer: (answer: PredictAnswer) => void }[] = []
  fails: Error | undefined

  readonly tried: PredictRequest[] = []

  met = 0
  async meet(): Promise<void> {
    this.met++
  }

  async tryAll(requests: readonly PredictRequest[], _: Int32Array, onEach: (index: number, found: unknown) => void): Promise<void> {
    for (const [index, one] of requests.entries()) {
      this.tried.push(one)
      onEach(index, one)
    }
  }

  predict(request: PredictRequest, stop: Int32Array): Promise<PredictAnswer> {
    if (this.fails) return Promise.reject(this.fails)
    return new Promise((answer) => this.asked.push({ request, stop, answer }))
  }
}
const workers: HandWorker[] = []
vi.mock('comlink', () => ({
  wrap: () => {
    workers.push(new HandWorker())
    return workers.at(-1)
  },
  proxy: (own: unknown) => own,
  transfer: (own: unknown) => own,
}))
vi.stubGlobal('Worker', class {})
vi.stubGlobal('navigator', { hardwareConcurrency: 2 })
const { PredictionPool } = await import('./predictionPool')

const request = (fileName: string): PredictRequest => ({ fileName }) as PredictRequest
const done = (): PredictAnswer => ({ kind: 'done' }) as PredictAnswer
/** Lets promises that are kept already be heard. */
const heard = (): Promise<void> => new Promise((resolve) => setTimeout(resolve))

let pool: InstanceType<typeof PredictionPool>
let answers: string[]
const submit = (id: string, file = id): void =>
  pool.submit(id, request(file), { onProgress: () => {}, onAnswer: ({ kind }) => answers.push(`${id} ${kind}`) })
const running = (): string[] => workers.map(({ asked }) => asked.at(-1)?.request.fileName ?? '')

beforeEach(() => {
  workers.length = 0
  answers = []
  pool = new PredictionPool()
})

describe('the pool of workers', () => {
  it('makes its workers known to each other, to help', () => {
    expect(workers.map(({ met }) => met)).toEqual([1, 1])
  })

  it('has two lanes at least, and keeps what is more waiting', async () => {
    for (const id of ['a', 'b', 'c']) submit(id)
    expect(running()).toEqual(['a', 'b'])
    workers[1]!.asked[0]!.answer(done())
    await heard()
    expect(answers).toEqual(['b done'])
    expect(running()).toEqual(['a', 'c'])
  })

  it('lets a newer request take the place of an older one: waiting it is dropped, running it is stopped', async () => {
    for (const id of ['a', 'b', 'c']) submit(id)
    submit('c', 'c again')
    expect(answers).toEqual(['c cancelled'])
    submit('a', 'a again')
    expect(Atomics.load(workers[0]!.asked[0]!.stop, 0)).toBe(1)
    expect(Atomics.load(workers[1]!.asked[0]!.stop, 0)).toBe(0)
    workers[0]!.asked[0]!.answer({ kind: 'cancelled' })
    await heard()
    // The lane that computed `a` takes it up again before anything that is new to it.
    expect(running()).toEqual(['a again', 'b'])
  })

  it('returns a candidate to the worker that remembers its stages', async () => {
    submit('a')
    submit('b')
    workers[1]!.asked[0]!.answer(done())
    workers[0]!.asked[0]!.answer(done())
    await heard()
    submit('b', 'b again')
    expect(running()).toEqual(['a', 'b again'])
    expect(pool.workerOf('b')).toBe(workers[1])
    expect(pool.workerOf('nobody')).toBe(workers[0])
  })

  it('does not let a free lane idle while a candidate’s own one is busy', async () => {
    submit('a')
    submit('b')
    workers[0]!.asked[0]!.answer(done())
    await heard()
    submit('c')
    workers[1]!.asked[0]!.answer(done())
    await heard()
    // `a` belongs to the first lane, which is busy with `c`: the second takes it.
    submit('a', 'a again')
    expect(running()).toEqual(['c', 'a again'])
  })

  it('turns an error of a worker into a refusal with a way out, and goes on', async () => {
    workers[0]!.fails = new Error('out of memory')
    const refusals: PredictAnswer[] = []
    pool.submit('a', request('a.stl'), { onProgress: () => {}, onAnswer: (answer) => refusals.push(answer) })
    await heard()
    expect(refusals).toEqual([
      expect.objectContaining({ kind: 'refused', where: 'a.stl', message: expect.stringContaining('out of memory') }),
    ])
    workers[0]!.fails = undefined
    submit('b')
    expect(running()).toEqual(['b', ''])
  })

  it('tries a list on all workers, each a run of neighbours, and tells every place in the list', async () => {
    const tried = ['a', 'b', 'c', 'd', 'e']
    const told: string[] = []
    const stop = new Int32Array(1)
    await pool.tryAll(tried.map(request), stop, (index, prediction) =>
      told.push(`${index} ${(prediction as unknown as PredictRequest).fileName}`),
    )
    expect(workers.map(({ tried }) => tried.map(({ fileName }) => fileName))).toEqual([
      ['a', 'b', 'c'],
      ['d', 'e'],
    ])
    expect(told.sort()).toEqual(tried.map((name, i) => `${i} ${name}`))
    await pool.tryAll([], stop, () => told.push('nothing'))
    expect(told).not.toContain('nothing')
  })

  it('stops what is cancelled and says so of what was waiting', () => {
    for (const id of ['a', 'b', 'c']) submit(id)
    pool.cancel('c')
    pool.cancel('a')
    expect(answers).toEqual(['c cancelled'])
    expect(Atomics.load(workers[0]!.asked[0]!.stop, 0)).toBe(1)
  })
})
