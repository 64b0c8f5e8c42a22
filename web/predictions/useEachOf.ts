import { useEffect, useState } from 'react'

/** Asks for all of a list and tells each answer by its place in it, until the first entry of `stop` is 1. */
export type AskEach<Request, Answer> = (all: readonly Request[], stop: Int32Array, onEach: (i: number, answer: Answer) => void) => void

const none: readonly never[] = []

/**
 * Answers to a list, by their places in it, as far as they are there: never those of the list before. The list must keep its identity for as long as
 * it says the same.
 *
 * @param ask the same function every time
 */
export function useEachOf<Request, Answer>(all: readonly Request[], ask: AskEach<Request, Answer>): readonly (Answer | undefined)[] {
  const [found, setFound] = useState<{ readonly of: readonly Request[]; readonly answers: readonly (Answer | undefined)[] }>()
  useEffect(() => {
    if (all.length === 0) return
    const stop = new Int32Array(new SharedArrayBuffer(4))
    ask(all, stop, (i, answer) => {
      if (Atomics.load(stop, 0) !== 0) return
      setFound((before) => ({ of: all, answers: Object.assign(before?.of === all ? [...before.answers] : [], { [i]: answer }) }))
    })
    return () => {
      Atomics.store(stop, 0, 1)
    }
  }, [all, ask])
  return found?.of === all ? found.answers : none
}
