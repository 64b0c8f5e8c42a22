import type { Prediction } from '@sable/core/predict'
import type { Stage } from '@sable/core/profile/setting'
import * as Comlink from 'comlink'
import type { PredictAnswer, PredictRequest, PredictWorker } from '../workers/predictWorker'

interface Job {
  readonly candidateId: string
  readonly request: PredictRequest
  readonly stop: Int32Array
  readonly onProgress: (stage: Stage, share: number) => void
  readonly onAnswer: (answer: PredictAnswer) => void
}

interface Lane {
  readonly worker: Comlink.Remote<PredictWorker>
  job: Job | undefined
}

const MOST_LANES = 4

/** Two at least, so that one slow column does not hold up the others; one core is left for the page itself. */
const laneCount = (): number => Math.min(MOST_LANES, Math.max(2, navigator.hardwareConcurrency - 1))

/**
 * Runs predictions in workers. A candidate has one wanted request: a newer one takes the place of an older, running or
 * waiting. A candidate returns to the worker that computed it last, where its stages are still remembered. Workers that
 * have nothing to do help the others.
 */
export class PredictionPool {
  private readonly lanes: Lane[]
  private readonly waiting = new Map<string, Job>()
  private readonly lastLane = new Map<string, Lane>()

  constructor() {
    this.lanes = Array.from({ length: laneCount() }, () => ({
      worker: Comlink.wrap<PredictWorker>(new Worker(new URL('../workers/predictWorker.ts', import.meta.url), { type: 'module' })),
      job: undefined,
    }))
    for (const [i, { worker }] of this.lanes.entries()) {
      for (const other of this.lanes.slice(i + 1)) {
        const { port1, port2 } = new MessageChannel()
        void worker.meet(Comlink.transfer(port1, [port1]))
        void other.worker.meet(Comlink.transfer(port2, [port2]))
      }
    }
  }

  get anyWorker(): Comlink.Remote<PredictWorker> {
    return (this.lanes[0] as Lane).worker
  }

  /** The worker that computed a candidate last, where its stages are still remembered. */
  workerOf(candidateId: string): Comlink.Remote<PredictWorker> {
    return (this.lastLane.get(candidateId) ?? (this.lanes[0] as Lane)).worker
  }

  /**
   * Tries requests on all workers, beside their columns. Each takes a run of neighbours in the list, since those have most
   * stages in common.
   *
   * @param stop set its first entry to 1 to give up
   * @param onEach told the place in the list and what was found there; nothing where it cannot be printed
   */
  async tryAll(
    requests: readonly PredictRequest[],
    stop: Int32Array,
    onEach: (index: number, prediction: Prediction | undefined) => void,
  ): Promise<void> {
    const run = Math.ceil(requests.length / this.lanes.length)
    await Promise.all(
      this.lanes.map(({ worker }, lane) => {
        const first = lane * run
        const own = requests.slice(first, first + run)
        if (own.length === 0) return undefined
        return worker.tryAll(
          own,
          stop,
          Comlink.proxy((index: number, prediction: Prediction | undefined) => onEach(first + index, prediction)),
        )
      }),
    )
  }

  submit(candidateId: string, request: PredictRequest, handlers: Pick<Job, 'onProgress' | 'onAnswer'>): void {
    this.cancel(candidateId)
    this.waiting.set(candidateId, { candidateId, request, stop: new Int32Array(new SharedArrayBuffer(4)), ...handlers })
    this.fill()
  }

  cancel(candidateId: string): void {
    const waiting = this.waiting.get(candidateId)
    if (waiting) {
      this.waiting.delete(candidateId)
      waiting.onAnswer({ kind: 'cancelled' })
    }
    for (const { job } of this.lanes) if (job?.candidateId === candidateId) Atomics.store(job.stop, 0, 1)
  }

  private fill(): void {
    for (const lane of this.lanes) {
      if (lane.job) continue
      const next = this.nextFor(lane)
      if (next) void this.run(lane, next)
    }
  }

  /** What this lane did last comes first; then what no lane has done; then anything, since an idle lane helps nobody. */
  private nextFor(lane: Lane): Job | undefined {
    const jobs = [...this.waiting.values()]
    return (
      jobs.find(({ candidateId }) => this.lastLane.get(candidateId) === lane) ??
      jobs.find(({ candidateId }) => !this.lastLane.has(candidateId)) ??
      jobs.find(({ candidateId }) => this.lastLane.get(candidateId)?.job !== undefined)
    )
  }

  private async run(lane: Lane, job: Job): Promise<void> {
    this.waiting.delete(job.candidateId)
    this.lastLane.set(job.candidateId, lane)
    lane.job = job
    let answer: PredictAnswer
    try {
      answer = await lane.worker.predict(job.request, job.stop, Comlink.proxy(job.onProgress))
    } catch (error) {
      answer = {
        kind: 'refused',
        message: `The computation met an error it does not know (${error instanceof Error ? error.message : String(error)}).`,
        where: job.request.fileName,
        remedy: 'Change a value to try again; the other columns are not affected.',
      }
    }
    lane.job = undefined
    job.onAnswer(answer)
    this.fill()
  }
}
