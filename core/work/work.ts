import type { PolygonKernel } from '../geometry/polygon'
import type { Stage } from '../profile/table/setting'

/** What a thread has at hand to do a piece. */
export interface Host {
  readonly kernel: PolygonKernel
  /** To be told how much of the piece is done, 0–1. Throws `Cancelled` when nobody wants it any more. */
  readonly tick: (share: number) => void
}

/**
 * A function that any thread can run: what goes in and comes out can be posted between threads. It has a name, by which a
 * thread finds it in its own copy of the program. It may write to shared memory that it is given a part of for its own.
 */
export interface Task<I, R> {
  readonly name: string
  readonly run: (input: I, host: Host) => R
}

/** One run of a task that waits for no other. */
export interface Piece<R = unknown> {
  readonly task: Task<never, R>
  readonly input: unknown
}

/** Pieces that can be done at once. */
export interface Bundle {
  readonly pieces: readonly Piece[]
  readonly told?: Told | undefined
}

/** Under which stage the progress of a bundle is told, and which shares of that it covers; all of it unless told otherwise. */
export interface Told {
  readonly stage: Stage
  readonly from?: number
  readonly to?: number
}

/**
 * Work that falls into pieces now and then: a generator that hands out bundles and is resumed with what their pieces gave,
 * in their order. It neither knows nor cares how many threads do them: `doAlone` and `Crew` run it.
 */
export type Work<T> = Generator<Bundle, T, readonly unknown[]>

/** Runs one task on several inputs at once. */
export function* onEach<I, R>(task: Task<I, R>, inputs: readonly I[], told?: Told): Work<readonly R[]> {
  return (yield { pieces: inputs.map((input) => pieceOf(task, input)), told }) as readonly R[]
}

/** Runs a task by itself. */
export function* justOne<I, R>(task: Task<I, R>, input: I, told?: Told): Work<R> {
  return (yield* onEach(task, [input], told))[0]!
}

/** Goes on with several works side by side: what they hand out at the same time is done at once. */
export function* atOnce<W extends readonly Work<unknown>[]>(...works: W): Work<{ [K in keyof W]: W[K] extends Work<infer T> ? T : never }> {
  const steps = works.map((work) => work.next([]))
  while (steps.some(({ done }) => !done)) {
    const bundles = steps.map((step) => (step.done ? undefined : step.value))
    const results = yield {
      pieces: bundles.flatMap((bundle) => bundle?.pieces ?? []),
      told: bundles.find((bundle) => bundle?.told)?.told,
    }
    let at = 0
    for (const [i, bundle] of bundles.entries()) {
      if (!bundle) continue
      steps[i] = works[i]!.next(results.slice(at, at + bundle.pieces.length))
      at += bundle.pieces.length
    }
  }
  return steps.map(({ value }) => value) as { [K in keyof W]: W[K] extends Work<infer T> ? T : never }
}

export const pieceOf = <I, R>(task: Task<I, R>, input: I): Piece<R> => ({ task, input })

/** Progress of a whole stage, from that of one of a bundle's pieces. */
export const toldShare = ({ from = 0, to = 1 }: Told, done: number, of: number): number => from + ((to - from) * done) / of

export const runPiece = ({ task, input }: Piece, host: Host): unknown => task.run(input as never, host)
