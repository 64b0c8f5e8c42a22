import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { PredictAnswer, PredictRequest } from './worker/request'

/** A worker that answers when it is told to. */
class HandWorker {
  readonly asked: { readonly request: PredictRequest; readonly stop: Int32Array; readonly answer: (answer: PredictAnswer) => void }[] = []
  fails: Error | undefined

  readonly tried: PredictRequest[] = []

  met = 0
  async meet(): Promise<void> {
    this.met++
  }

  life = ''
  async live(life: string): Promise<void> {
    this.life = life
  }

  readonly gone: string[] = []
  async lost(life: string): Promise<void> {
    this.gone.push(life)
  }

  readonly place = workers.length
  meshForView(): Promise<unknown> {
    return this.place === 0 ? Promise.resolve(this) : new Promise(() => {})
  }
  async drawMoves(): Promise<unknown> {
    return this
  }

  /** What the browser does when a worker ends, however it ends. */
  end(): void {
    ends.get(this.life)!()
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
const ends = new Map<string, () => void>()
/** Locks that are held until their worker ends: only then the page gets them. */
const requestLock = (life: string, run: () => void): Promise<void> =>
  new Promise((resolve) =>
    ends.set(life, () => {
      run()
      resolve()
    }),
  )
vi.stubGlobal('navigator', { hardwareConcurrency: 2, locks: { request: requestLock } })
const { PredictionPool } = await import('./predictionPool')

const request = (fileName: string): PredictRequest => ({ fileName }) as PredictRequest
const done = (): PredictAnswer => ({ kind: 'done' }) as PredictAnswer
/** Lets promises that are kept already be heard. */
const heard = (): Promise<void> => new Promise((resolve) => setTimeout(resolve))

let pool: InstanceType<typeof PredictionPool>
let answers: string[]
const submit = (id: string, file = id): void =>
  pool.submit(id, request(file), {
    onProgress: () => {},
    onAnswer: ({ kind }) => answers.push(`${id} ${kind}`),
    onLost: () => answers.push(`${id} lost`),
  })
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
    expect(await pool.workerOf('b').drawMoves(request('b'))).toBe(workers[1])
    expect(await pool.workerOf('nobody').drawMoves(request('b'))).toBe(workers[0])
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
    pool.submit('a', request('a.stl'), { onProgress: () => {}, onLost: () => {}, onAnswer: (answer) => refusals.push(answer) })
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

  it('replaces a worker that ends without a word, tells the others, and computes again what it was at', async () => {
    for (const id of ['a', 'b', 'c']) submit(id)
    await heard()
    workers[1]!.end()
    await heard()
    expect(answers).toEqual(['b lost'])
    expect(workers.length).toBe(3)
    expect(workers[0]!.gone).toEqual([workers[1]!.life])
    // The new one takes what waited longest.
    expect(running()).toEqual(['a', 'b', 'c'])
    workers[2]!.asked[0]!.answer(done())
    await heard()
    expect(running()[2]).toBe('b')
    workers[2]!.asked[1]!.answer(done())
    await heard()
    expect(answers).toEqual(['b lost', 'c done', 'b done'])
  })

  it('gives up what ends a worker twice, in a sentence, and goes on with the rest', async () => {
    submit('a')
    await heard()
    workers[0]!.end()
    await heard()
    const second = workers.findIndex(({ asked }, i) => i > 0 && asked.length > 0)
    workers[second]!.end()
    await heard()
    expect(answers).toEqual(['a lost', 'a refused'])
    submit('b')
    expect(running().at(-1) === 'b' || running().includes('b')).toBe(true)
  })

  it('lets nobody wait for a worker that has ended', async () => {
    await heard()
    submit('a')
    submit('b')
    const waiting = pool.workerOf('b').meshForView(request('b'))
    workers[1]!.end()
    await expect(waiting).rejects.toThrow(/ended without a word/)
  })
})
