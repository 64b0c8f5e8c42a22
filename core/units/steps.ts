/** Work that yields the share of it that is done, 0–1, so that whoever drives it may tell it, breathe, or stop. */
export type Steps<T> = Generator<number, T>

/** Runs to the end without telling how far it is. */
export function runToEnd<T>(work: Steps<T>): T {
  for (;;) {
    const step = work.next()
    if (step.done) return step.value
  }
}

/** Work that is a part of another: its shares lie between two of the whole. */
export function* within<T>(work: Steps<T>, from: number, to: number): Steps<T> {
  for (;;) {
    const step = work.next()
    if (step.done) return step.value
    yield from + (to - from) * step.value
  }
}
