/** Pace is read off so long, ms: what was slow before, while nothing was remembered, no longer counts. */
const WINDOW_MS = 8000
/** Less than this says nothing of the pace, ms. */
const LEAST_MS = 2500

/** How long the rest of a job takes, by the pace of the last seconds. */
export class TimeLeft {
  private readonly noted: { readonly atMs: number; readonly done: number }[] = []

  /**
   * @param atMs now
   * @param done what was really computed so far, and not known before
   * @returns seconds; undefined as long as there is no pace to read
   */
  of(atMs: number, done: number, left: number): number | undefined {
    this.noted.push({ atMs, done })
    // One that is older than the window stays, so that the window is whole.
    while (this.noted.length > 2 && this.noted[1]!.atMs <= atMs - WINDOW_MS) this.noted.shift()
    const first = this.noted[0]!
    const spentMs = atMs - first.atMs
    if (spentMs < LEAST_MS || done === first.done) return undefined
    return (left * spentMs) / (done - first.done) / 1000
  }
}
