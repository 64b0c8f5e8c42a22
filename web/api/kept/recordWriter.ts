import { saysTheSame } from '@sable/contract/saysTheSame'

/** What is to be stored of one record, and the revision that the next write starts from. */
interface Wanted<R> {
  record: R
  revision: number
  sending: Promise<void> | undefined
  /** What was sent without an answer: it may be stored all the same. */
  unsure?: R | undefined
}

export interface Sending<R> {
  /** Stores a record over the revision that it was read at, and gives the revision that it then has. */
  readonly send: (id: string, record: R, revision: number) => Promise<number>
  /** Whether an error means that nobody answers just now: the write is then tried again by itself. */
  readonly isAway: (error: unknown) => boolean
  /** What is stored by now, when an error means that somebody else was first: what is wanted is then given up to whoever asks the user. */
  readonly staleOf: (error: unknown) => { readonly record: R; readonly revision: number } | undefined
  /** Called whenever what is wanted of a record has changed. */
  readonly onChange: () => void
  readonly retryMs?: number
}

/**
 * Stores records one write at a time each, with the revision that the write before got. What is typed while an answer is
 * under way waits for it, all in one; what could not be stored stays wanted, and in sight.
 */
export class RecordWriter<R extends object> {
  private readonly wanted = new Map<string, Wanted<R>>()

  constructor(private readonly sending: Sending<R>) {}

  /** What a record is to say once all is stored; undefined where nothing waits. */
  wantedOf(id: string): R | undefined {
    return this.wanted.get(id)?.record
  }

  /**
   * Changes a record.
   *
   * @param stored what is known to be stored, and its revision; asked for only when nothing of this record is under way
   * @param change gets what is wanted by now
   * @returns when everything that is wanted of this record is stored. @throws what sending threw
   */
  write(id: string, stored: () => { readonly record: R; readonly revision: number }, change: (latest: R) => R): Promise<void> {
    const known = this.wanted.get(id)
    const { record, revision } = known ?? stored()
    const entry: Wanted<R> = known ?? { record, revision, sending: undefined }
    const next = change(entry.record)
    const isNew = !saysTheSame(next, entry.record)
    if (!known && !isNew) return Promise.resolve()
    entry.record = next
    this.wanted.set(id, entry)
    if (isNew) this.sending.onChange()
    entry.sending ??= this.run(id, entry).finally(() => {
      entry.sending = undefined
    })
    return entry.sending
  }

  private async run(id: string, entry: Wanted<R>): Promise<void> {
    for (;;) {
      const { record } = entry
      try {
        entry.revision = await this.sending.send(id, record, entry.revision)
        entry.unsure = undefined
      } catch (error) {
        const stale = this.sending.staleOf(error)
        if (stale && entry.unsure && saysTheSame(stale.record, entry.unsure)) {
          // Nobody else was first: this page itself was, and never heard of it.
          entry.revision = stale.revision
          entry.unsure = undefined
          continue
        }
        if (stale) this.wanted.delete(id)
        else if (this.sending.isAway(error)) {
          entry.unsure = record
          this.tryAgain(id)
        }
        throw error
      }
      if (entry.record !== record) continue
      this.wanted.delete(id)
      this.sending.onChange()
      return
    }
  }

  private tryAgain(id: string): void {
    setTimeout(() => {
      const entry = this.wanted.get(id)
      if (!entry || entry.sending) return
      // Who asked for it was told already that it waits.
      this.write(
        id,
        () => entry,
        (latest) => latest,
      ).catch(() => {})
    }, this.sending.retryMs ?? 2000)
  }
}
