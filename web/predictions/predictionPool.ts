import type { MatrixCell } from '@sable/core/matrix/matrix'
import type { Purpose } from '@sable/core/physics/strength/purpose'
import type { Prediction } from '@sable/core/pipeline/predict'
import type { Stage } from '@sable/core/profile/table/setting'
import { InputError } from '@sable/core/units/errors'
import * as Comlink from 'comlink'
import type { PredictWorker } from './worker/predictWorker'
import type { PredictAnswer, PredictRequest } from './worker/request'
import { endOfLife, newLife } from './worker/workerLife'

interface Job {
  readonly candidateId: string
  readonly request: PredictRequest
  readonly stop: Int32Array
  readonly onProgress: (stage: Stage, share: number) => void
  readonly onAnswer: (answer: PredictAnswer) => void
  /** Its worker ended without a word; it is computed again by another one. */
  readonly onLost: () => void
  /** Workers that ended while they were at it. */
  losses: number
}

interface Lane {
  readonly worker: Comlink.Remote<PredictWorker>
  readonly life: string
  /** Never kept; broken when the worker ends. */
  readonly lost: Promise<never>
  job: Job | undefined
}

const MOST_LANES = 4
/** A job at which so many workers ended is not tried again: it is what ends them. */
const MOST_LOSSES = 2

/** Two at least, so that one slow column does not hold up the others; one core is left for the page itself. */
const laneCount = (): number => Math.min(MOST_LANES, Math.max(2, navigator.hardwareConcurrency - 1))

const workerEnded = (where: string): InputError =>
  new InputError(
    'worker-ended',
    'The computation ended without a word, most likely for lack of memory.',
    where,
    'Try again with fewer candidates, thicker layers or a coarser mesh; the other columns are not affected.',
  )

/**
 * Runs predictions in workers. A candidate has one wanted request: a newer one takes the place of an older, running or
 * waiting. A candidate returns to the worker that computed it last, where its stages are still remembered. Workers that
 * have nothing to do help the others. A worker that ends is replaced, and what it was at is computed again.
 */
export class PredictionPool {
  private lanes: readonly Lane[]
  private readonly waiting = new Map<string, Job>()
  private readonly lastLane = new Map<string, Lane>()

  constructor() {
    this.lanes = []
    for (let i = 0; i < laneCount(); i++) this.addLane()
  }

  /** A worker more, made known to the others. */
  private addLane(): void {
    const worker = Comlink.wrap<PredictWorker>(new Worker(new URL('./worker/predictWorker.ts', import.meta.url), { type: 'module' }))
    const life = newLife()
    let breakOff: (error: InputError) => void = () => {}
    const lost = new Promise<never>((_, reject) => {
      breakOff = reject
    })
    lost.catch(() => {})
    const lane: Lane = { worker, life, lost, job: undefined }
    for (const other of this.lanes) {
      const { port1, port2 } = new MessageChannel()
      void other.worker.meet(Comlink.transfer(port1, [port1]), life)
      void worker.meet(Comlink.transfer(port2, [port2]), other.life)
    }
    this.lanes = [...this.lanes, lane]
    void worker
      .live(life)
      .then(() => endOfLife(life))
      .then(() => {
        breakOff(workerEnded(''))
        this.replace(lane)
      })
  }

  private replace(lane: Lane): void {
    this.lanes = this.lanes.filter((other) => other !== lane)
    for (const { worker } of this.lanes) void worker.lost(lane.life)
    for (const [candidateId, last] of this.lastLane) if (last === lane) this.lastLane.delete(candidateId)
    this.addLane()
    this.fill()
  }

  get anyWorker(): Comlink.Remote<PredictWorker> {
    return heard(this.lanes[0] as Lane)
  }

  /** The worker that computed a candidate last, where its stages are still remembered. */
  workerOf(candidateId: string): Comlink.Remote<PredictWorker> {
    return heard(this.lastLane.get(candidateId) ?? (this.lanes[0] as Lane))
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
    await this.onAllLanes(requests, (worker, own, first) =>
      worker.tryAll(
        own,
        stop,
        Comlink.proxy((index: number, prediction: Prediction | undefined) => onEach(first + index, prediction)),
      ),
    )
  }

  /**
   * Figures of requests on all workers, beside their columns; each takes a run of neighbours, as `tryAll` does.
   *
   * @param stop set its first entry to 1 to give up
   */
  async figuresOfAll(
    requests: readonly PredictRequest[],
    purpose: Purpose,
    stop: Int32Array,
    onEach: (index: number, cell: MatrixCell) => void,
  ): Promise<void> {
    await this.onAllLanes(requests, (worker, own, first) =>
      worker.figuresOfAll(
        own,
        purpose,
        stop,
        Comlink.proxy((index: number, cell: MatrixCell) => onEach(first + index, cell)),
      ),
    )
  }

  private async onAllLanes(
    requests: readonly PredictRequest[],
    work: (worker: Lane['worker'], own: readonly PredictRequest[], first: number) => Promise<void>,
  ): Promise<void> {
    const run = Math.ceil(requests.length / this.lanes.length)
    await Promise.all(
      this.lanes.map(({ worker, lost }, lane) => {
        const first = lane * run
        const own = requests.slice(first, first + run)
        return own.length === 0 ? undefined : Promise.race([work(worker, own, first), lost])
      }),
    )
  }

  submit(candidateId: string, request: PredictRequest, handlers: Pick<Job, 'onProgress' | 'onAnswer' | 'onLost'>): void {
    this.cancel(candidateId)
    this.waiting.set(candidateId, { candidateId, request, stop: new Int32Array(new SharedArrayBuffer(4)), losses: 0, ...handlers })
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
      answer = await Promise.race([lane.worker.predict(job.request, job.stop, Comlink.proxy(job.onProgress)), lane.lost])
    } catch (error) {
      const isLost = error instanceof InputError && error.code === 'worker-ended'
      if (isLost && Atomics.load(job.stop, 0) === 1) answer = { kind: 'cancelled' }
      else if (isLost && ++job.losses < MOST_LOSSES) {
        job.onLost()
        // A newer request of the same candidate takes its place.
        if (!this.waiting.has(job.candidateId)) this.waiting.set(job.candidateId, job)
        this.fill()
        return
      } else if (isLost) {
        const { message, remedy } = workerEnded('')
        answer = { kind: 'refused', message, where: job.request.fileName, remedy }
      } else
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

/** A worker whose every answer is given up when it ends: nobody waits for it for ever. */
const heard = ({ worker, lost }: Lane): Comlink.Remote<PredictWorker> =>
  new Proxy(worker, {
    get:
      (target, name) =>
      (...args: unknown[]) =>
        Promise.race([(target as unknown as Record<PropertyKey, (...args: unknown[]) => Promise<unknown>>)[name]!(...args), lost]),
  })
