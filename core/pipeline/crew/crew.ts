import type { PolygonKernel } from '../../geometry/polygon'
import { Cancelled } from '../../units/errors'
import { doPiece, type OnProgress } from '../../work/doAlone'
import type { Bundle, Work } from '../../work/work'
import { buffersOf } from './buffersOf'
import { tasks } from './tasks'

/** A line to another thread, on which both lead and help. Hosts make it of what they have: message ports mostly. */
export interface Line {
  post(message: CrewMessage, transfer: readonly ArrayBuffer[]): void
  /** Called once, before anything is posted. */
  listen(onMessage: (message: CrewMessage) => void): void
}

export type CrewMessage = Call | Answer

/** A call for help with a bundle. */
interface Call {
  readonly kind: 'call'
  readonly bundle: number
  readonly pieces: readonly { readonly task: string; readonly input: unknown }[]
  readonly control: Int32Array
  /** Number of the one who is called, from 1 on, by which it marks what it takes. */
  readonly you: number
}

interface Answer {
  readonly kind: 'answer'
  readonly bundle: number
  readonly index: number
  /** Absent where the piece failed: then the one who called does it and meets the error. */
  readonly result?: unknown
  readonly failed?: true
}

/**
 * Entries of `control`, which all threads of a bundle see: the first piece that nobody has taken, 1 when nobody wants them any
 * more, and from there on for each piece the number of the helper that took it.
 */
const NEXT = 0
const STOPPED = 1
const TAKEN_BY = 2

/** A bundle that is not done yet, as its leader sees it. */
interface Open {
  readonly onAnswer: (answer: Answer) => void
  readonly onLost: (line: Line) => void
}

/**
 * Threads that help one another. Whoever has work leads it: it calls the others, and everybody takes pieces one by one until
 * none is left. A thread that is busy simply comes too late, so nobody ever waits for one that does something else.
 *
 * Needs shared memory; without it, and without lines, work is done alone.
 */
export class Crew {
  private lastBundle = 0
  private readonly open = new Map<number, Open>()

  constructor(
    private readonly openKernel: () => Promise<PolygonKernel>,
    private lines: readonly Line[] = [],
  ) {
    for (const line of lines) this.listenTo(line)
  }

  /** A line more, to a thread that helps and is helped. */
  join(line: Line): void {
    this.lines = [...this.lines, line]
    this.listenTo(line)
  }

  /** The thread at the other end has ended: what it has taken and not done is taken back. */
  leave(line: Line): void {
    this.lines = this.lines.filter((other) => other !== line)
    for (const { onLost } of this.open.values()) onLost(line)
  }

  /**
   * Does work together with whoever is free.
   *
   * @param onProgress may throw, to stop
   */
  async do<T>(work: Work<T>, onProgress: OnProgress = () => {}): Promise<T> {
    const kernel = await this.openKernel()
    let step = work.next([])
    while (!step.done) step = work.next(await this.doBundle(step.value, kernel, onProgress))
    return step.value
  }

  private async doBundle(bundle: Bundle, kernel: PolygonKernel, onProgress: OnProgress): Promise<unknown[]> {
    const { pieces } = bundle
    const run = (i: number): unknown => doPiece(bundle, i, kernel, onProgress)
    const { lines } = this
    const isShared = pieces.length > 1 && lines.length > 0 && typeof SharedArrayBuffer !== 'undefined'
    if (!isShared) return pieces.map((_, i) => run(i))
    const control = new Int32Array(new SharedArrayBuffer(4 * (TAKEN_BY + pieces.length)))
    const number = ++this.lastBundle
    const results = new Array<unknown>(pieces.length)
    /** Pieces whose results are not there yet, once this thread has done its own. */
    const left = new Set(pieces.keys())
    const failed: number[] = []
    try {
      const answered = new Promise<void>((resolve) => {
        const isDone = (index: number): void => {
          left.delete(index)
          if (left.size === 0) resolve()
        }
        this.open.set(number, {
          onAnswer({ index, result, failed: hasFailed }) {
            if (hasFailed) failed.push(index)
            else results[index] = result
            isDone(index)
          },
          onLost(line) {
            const lost = lines.indexOf(line) + 1
            // Who ended between taking a piece and marking it has left no mark.
            const taken = [...left].filter((index) => index < control[NEXT]! && [0, lost].includes(control[TAKEN_BY + index]!))
            for (const index of taken) {
              failed.push(index)
              isDone(index)
            }
          },
        })
      })
      const asked = pieces.map(({ task, input }) => ({ task: task.name, input }))
      for (const [i, line] of lines.entries()) line.post({ kind: 'call', bundle: number, control, pieces: asked, you: i + 1 }, [])
      for (let i = Atomics.add(control, NEXT, 1); i < pieces.length; i = Atomics.add(control, NEXT, 1)) {
        results[i] = run(i)
        left.delete(i)
      }
      if (left.size > 0) await answered
      for (const i of failed) results[i] = run(i)
      return results
    } finally {
      Atomics.store(control, STOPPED, 1)
      this.open.delete(number)
    }
  }

  private listenTo(line: Line): void {
    line.listen((message) => {
      if (message.kind === 'answer') this.open.get(message.bundle)?.onAnswer(message)
      // Who cannot help does not: its own work will tell what is wrong.
      else this.help(message, line).catch(() => {})
    })
  }

  private async help({ bundle, pieces, control, you }: Call, line: Line): Promise<void> {
    const isOver = (): boolean => Atomics.load(control, STOPPED) === 1 || Atomics.load(control, NEXT) >= pieces.length
    if (isOver()) return
    const kernel = await this.openKernel()
    const tick = (): void => {
      if (Atomics.load(control, STOPPED) === 1) throw new Cancelled('nobody waits any more')
    }
    while (!isOver()) {
      const index = Atomics.add(control, NEXT, 1)
      const piece = pieces[index]
      if (!piece) return
      control[TAKEN_BY + index] = you
      try {
        const result = tasks.get(piece.task)!.run(piece.input as never, { kernel, tick })
        const given = buffersOf(piece.input)
        line.post(
          { kind: 'answer', bundle, index, result },
          [...buffersOf(result)].filter((buffer) => !given.has(buffer)),
        )
      } catch {
        line.post({ kind: 'answer', bundle, index, failed: true }, [])
      }
    }
  }
}
