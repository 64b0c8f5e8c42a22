/**
 * A refusal that a person can act on: what was wrong, where, and the way out.
 * Every entry point (browser, server, command line) shows these three parts as they are.
 */
export class InputError extends Error {
  override readonly name = 'InputError'

  constructor(
    /** Stable machine-readable word, e.g. `stl-truncated`. */
    readonly code: string,
    /** What is wrong, as one sentence. */
    message: string,
    /** File, line, triangle or setting; empty where there is no narrower place. */
    readonly where: string,
    /** What the person can do about it, as one sentence. */
    readonly remedy: string,
  ) {
    super(message)
  }

  /** The whole refusal as text: sentence, place, way out. */
  get sentence(): string {
    return [this.where === '' ? this.message : `${this.where}: ${this.message}`, this.remedy].join(' ')
  }
}

/** Thrown by a progress callback to stop a computation that nobody waits for any more. */
export class Cancelled extends Error {
  override readonly name = 'Cancelled'
}
