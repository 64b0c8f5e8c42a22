import type { Job, JobKindName, JobState } from '@sable/contract/job'
import type { JobStore, Progress } from './jobStore'

/** What a job that runs is told and tells. */
export interface Control {
  readonly id: string
  /** Whether it is to go on; else it comes back as soon as what it has found is kept. */
  readonly isWanted: () => boolean
  /** Calls once it is not. */
  readonly onStop: (listener: () => void) => void
  /** Keeps how it stands, and tells whoever listens what was found since. */
  readonly tell: (progress: Progress, fresh: readonly unknown[], secondsLeft?: number) => Promise<void>
}

/** How jobs of one kind are run, and what is told of them. */
export interface JobKind {
  /**
   * Runs a job, or goes on with one: all that it found before is kept, and what it asks for next depends on nothing else.
   *
   * @returns whether it came to its end
   */
  readonly run: (control: Control) => Promise<boolean>
  /** What listeners hear: how the job stands, with what was found since they were told last. */
  readonly event: (id: string, fresh: readonly unknown[], secondsLeft?: number) => Promise<object>
  /** All that was found so far. */
  readonly found: (id: string) => Promise<readonly unknown[]>
}

export type JobKinds = Readonly<Record<JobKindName, JobKind>>
type Listener = (event: object) => void

/** The job that is being run: what it was told to do instead of going on. */
interface Running {
  readonly id: string
  wanted: 'run' | 'pause' | 'cancel' | 'leave'
  readonly over: Promise<void>
  readonly onStop: Set<() => void>
}

function endAs(running: Running, wanted: 'pause' | 'cancel' | 'leave'): void {
  running.wanted = wanted
  for (const listener of running.onStop) listener()
}

/** Runs jobs one after another. One that was paused, or broken off with the server, goes on from what it has kept. */
export class JobRunner {
  private readonly queue: string[] = []
  private readonly listeners = new Map<string, Set<Listener>>()
  private running: Running | undefined
  private idle: Promise<void> = Promise.resolve()

  constructor(
    private readonly store: JobStore,
    private readonly kinds: JobKinds,
  ) {}

  /** Goes on with what the server left when it ended. */
  async resumeUnfinished(): Promise<void> {
    for (const id of await this.store.unfinished()) this.enqueue(id)
  }

  enqueue(id: string): void {
    if (this.queue.includes(id) || (this.running?.id === id && this.running.wanted === 'run')) return
    this.queue.push(id)
    this.idle = this.idle.then(() => this.runNext())
  }

  async resume(id: string): Promise<void> {
    const { state } = await this.store.get(id)
    if (state === 'paused' || state === 'failed') await this.put(id, { state: 'waiting', problem: null })
    // One that says it runs may have been left so by a database that was away.
    if (state !== 'done' && state !== 'cancelled') this.enqueue(id)
  }

  pause(id: string): Promise<void> {
    return this.stop(id, 'pause', 'paused')
  }

  /** Ends a job; what it has found stays. */
  cancel(id: string): Promise<void> {
    return this.stop(id, 'cancel', 'cancelled')
  }

  /** Tells how a job goes on; begins with everything that is known of it. Returns how to stop listening. */
  async watch(id: string, listener: Listener): Promise<() => void> {
    const kind = await this.kindOf(id)
    const own = this.listeners.get(id) ?? new Set()
    this.listeners.set(id, own)
    own.add(listener)
    listener(await kind.event(id, await kind.found(id)))
    return () => {
      own.delete(listener)
      if (own.size === 0) this.listeners.delete(id)
    }
  }

  /** Leaves what is running, to be resumed at the next start. */
  async close(): Promise<void> {
    this.queue.length = 0
    if (this.running) endAs(this.running, 'leave')
    await this.idle
  }

  private async kindOf(id: string): Promise<JobKind> {
    return this.kinds[(await this.store.get(id)).kind]
  }

  private async stop(id: string, wanted: 'pause' | 'cancel', state: JobState): Promise<void> {
    const at = this.queue.indexOf(id)
    if (at >= 0) this.queue.splice(at, 1)
    const job = await this.store.get(id)
    if (this.running?.id === id) {
      endAs(this.running, wanted)
      await this.running.over
    } else if (job.state === 'waiting' || job.state === 'paused' || job.state === 'running') await this.put(id, { state })
  }

  private async runNext(): Promise<void> {
    const id = this.queue.shift()
    if (id === undefined) return
    let end = (): void => {}
    const over = new Promise<void>((resolve) => {
      end = resolve
    })
    const running: Running = { id, wanted: 'run', over, onStop: new Set() }
    this.running = running
    try {
      const { kind } = await this.put(id, { state: 'running' })
      const finished = await this.kinds[kind].run({
        id,
        isWanted: () => running.wanted === 'run',
        onStop: (listener) => running.onStop.add(listener),
        tell: async (progress, fresh, secondsLeft) => {
          await this.put(id, progress, fresh, secondsLeft)
        },
      })
      if (finished) await this.put(id, { state: 'done' })
      else if (running.wanted === 'pause') await this.put(id, { state: 'paused' })
      else if (running.wanted === 'cancel') await this.put(id, { state: 'cancelled' })
    } catch (error) {
      console.error(error)
      const problem = error instanceof Error ? error.message : String(error)
      // A database that is away cannot be told of it: the job is taken up at the next start.
      await this.put(id, { state: 'failed', problem }).catch(() => {})
    } finally {
      this.running = undefined
      end()
    }
  }

  private async put(id: string, progress: Progress, fresh: readonly unknown[] = [], secondsLeft?: number): Promise<Job> {
    const job = await this.store.update(id, progress)
    const listeners = this.listeners.get(id)
    if (listeners && listeners.size > 0) {
      const event = await this.kinds[job.kind].event(id, fresh, secondsLeft)
      for (const listener of listeners) listener(event)
    }
    return job
  }
}
