import type { MachineState } from '@sable/contract/machines'
import { LineStream } from '@sable/core/program/lineStream'
import type { Address } from '@sable/core/shelf/address'
import type { OpenTransport, Transport } from './transport'

/** What becomes of a print on a machine, as it happens. */
export interface RunEvents {
  /** So many lines were accepted: kept now and then, and whenever the run stops for whatever reason. */
  readonly onProgress: (accepted: number) => void
  /** It came to its end, after so many seconds on the machine's own clock. */
  readonly onDone: (seconds: number | undefined) => void
  readonly onBroken: (why: string) => void
}

export interface Run extends RunEvents {
  readonly print: string
  readonly lines: readonly string[]
}

/** Temperatures are told so often, s. */
const REPORT_S = 2
/** A machine that answers nothing for so long is nudged, ms: a long move may take its time, a lost line is none. */
const SILENT_MS = 30_000
const LOST_MS = 1000
const KEEP_EVERY_MS = 1000
/** What is waited for is waited for no longer, ms. */
const ANSWER_MS = 15_000
const HEATING_MS = 1_200_000

/**
 * One machine at the end of a wire: it runs one program at a time. Nothing here heats or moves but by a program that a person has
 * started; a wire that comes back takes nothing up by itself.
 */
export class MachineLink {
  private transport: Transport | undefined
  private stream: LineStream | undefined
  private run: Run | undefined
  private temperatures = { nozzle: { now: 0, target: 0 }, bed: { now: 0, target: 0 } }
  private z = 0
  private heardAt = 0
  private keptAt = 0
  private message = ''
  private isFinishing = false
  /** It goes on with a print that broke off, and is not there yet. */
  private isTakingUp = false
  private answers: { readonly until: RegExp; readonly done: (line: string) => void }[] = []
  private timer: NodeJS.Timeout | undefined

  constructor(
    readonly address: Address,
    private readonly open: OpenTransport,
  ) {}

  get state(): MachineState {
    const { stream, run } = this
    return {
      address: `${this.address.host}:${this.address.port}`,
      phase: !this.transport ? 'away' : !stream ? 'idle' : stream.isHeld ? 'held' : 'printing',
      ...this.temperatures,
      z: this.z,
      ...(run ? { print: run.print } : {}),
      accepted: stream?.accepted ?? 0,
      total: stream?.total ?? 0,
      message: this.message,
    }
  }

  async connect(): Promise<void> {
    if (this.transport) return
    this.message = ''
    this.transport = await this.open(this.address, { onLine: (line) => this.hear(line), onClose: (why) => this.lost(why) })
    this.timer = setInterval(() => this.tick(), 500)
    await this.ask(`M155 S${REPORT_S}`)
  }

  close(): void {
    this.transport?.close()
  }

  /** Runs a program, or goes on with it after so many lines. */
  async print(run: Run, accepted?: number): Promise<void> {
    if (!this.transport || this.stream) throw new Error('The machine is not free.')
    if (accepted === undefined) await this.ask('M75')
    this.run = run
    this.message = ''
    this.heardAt = Date.now()
    this.stream = new LineStream(run.lines, (line) => this.send(line), accepted)
    if (accepted === undefined) this.stream.begin()
    else {
      // Which line it awaits is learned first, with nothing sent on: a machine that has forgotten is not heated.
      this.isTakingUp = true
      this.stream.pause()
      this.stream.takeUp()
    }
  }

  /** Brings a machine that may have cooled down to what its program had asked for, then goes on. */
  private async warmUp(stream: LineStream, lines: readonly string[]): Promise<void> {
    this.message = 'Heats up again before it goes on.'
    for (const line of heatBefore(lines, stream.accepted)) await this.ask(line, /^ok\b/, HEATING_MS)
    if (this.stream !== stream) return
    this.isTakingUp = false
    this.message = ''
    this.resume()
  }

  pause(): void {
    this.stream?.pause()
    this.keep()
  }

  resume(): void {
    if (this.isTakingUp) return
    this.heardAt = Date.now()
    this.stream?.resume()
  }

  /** Ends a print in order: nothing more of it is sent, heaters off, the nozzle up and away from it. */
  async end(): Promise<void> {
    this.stop('The print was ended here.')
    for (const line of ['M104 S0', 'M140 S0', 'M107', 'G91', 'G1 Z5 F600', 'G90', 'M77']) await this.ask(line)
  }

  /** Everything stops at once, heaters too. The machine must be switched off and on afterwards. */
  halt(): void {
    this.send('M112')
    this.stop('Stopped at once. Switch the machine off and on before it prints again.')
  }

  private stop(why: string): void {
    const { run } = this
    this.keep()
    this.isTakingUp = false
    this.stream = undefined
    this.run = undefined
    this.message = why
    run?.onBroken(why)
  }

  private hear(line: string): void {
    const heat = /T:(-?[\d.]+)\s*\/(-?[\d.]+)\s+B:(-?[\d.]+)\s*\/(-?[\d.]+)/.exec(line)
    if (heat) {
      const [nozzle, goal, bed, bedGoal] = heat.slice(1).map(Number) as [number, number, number, number]
      this.temperatures = { nozzle: { now: nozzle, target: goal }, bed: { now: bed, target: bedGoal } }
    }
    const [waited] = this.answers
    if (waited?.until.test(line)) {
      this.answers.shift()
      waited.done(line)
      return
    }
    const { stream } = this
    if (!stream) {
      if (this.message === '' && /^(Error|echo:Nobody)/.test(line)) this.message = line.replace(/^(Error|echo):/, '')
      return
    }
    const before = stream.accepted
    if (/busy/.test(line)) this.heardAt = Date.now()
    if (!stream.receive(line)) {
      if (/^Error:Printer halted/.test(line)) this.stop('The machine halted itself and turned its heaters off.')
      return
    }
    this.heardAt = Date.now()
    if (this.isTakingUp && !stream.awaitsLost && !stream.hasForgotten) void this.warmUp(stream, this.run!.lines)
    if (stream.hasForgotten) {
      this.stop('The machine was switched off in between and knows nothing of this print any more.')
      return
    }
    for (let i = before; i < stream.accepted; i++) this.z = heightIn(this.run!.lines[i]!) ?? this.z
    if (stream.isDone) void this.finish()
    else if (Date.now() - this.keptAt > KEEP_EVERY_MS) this.keep()
  }

  private async finish(): Promise<void> {
    if (this.isFinishing) return
    this.isFinishing = true
    const { run } = this
    try {
      this.keep()
      await this.ask('M77')
      const told = await this.ask('M31', /Print time: ([\d.]+) s/)
      const seconds = /Print time: ([\d.]+) s/.exec(told)?.[1]
      this.stream = undefined
      this.run = undefined
      run?.onDone(seconds === undefined ? undefined : Number(seconds))
    } finally {
      this.isFinishing = false
    }
  }

  /** Sends a line beside the program and waits for its answer; only while none runs. Empty where none came. */
  private ask(line: string, until = /^ok\b/, patienceMs = ANSWER_MS): Promise<string> {
    return new Promise((done) => {
      const entry = { until, done }
      this.answers.push(entry)
      this.send(line)
      setTimeout(() => {
        const at = this.answers.indexOf(entry)
        if (at === -1) return
        this.answers.splice(at, 1)
        done('')
      }, patienceMs).unref()
    })
  }

  private tick(): void {
    const { stream } = this
    if (!stream || stream.isHeld || Date.now() - this.heardAt < (stream.awaitsLost ? LOST_MS : SILENT_MS)) return
    this.heardAt = Date.now()
    stream.nudge()
  }

  private keep(): void {
    if (!this.stream || !this.run) return
    this.keptAt = Date.now()
    this.run.onProgress(this.stream.accepted)
  }

  private send(line: string): void {
    this.transport?.send(line)
  }

  private lost(why: string): void {
    clearInterval(this.timer)
    this.transport = undefined
    for (const { done } of this.answers.splice(0)) done('')
    if (this.stream) this.stop(`The connection broke off: ${why}`)
    else this.message = why
  }
}

/** What heats a machine to what its program had asked for after so many lines: both at once, then waited for. */
export function heatBefore(lines: readonly string[], accepted: number): string[] {
  const last = (commands: RegExp): number => {
    for (let i = accepted - 1; i >= 0; i--) {
      const found = commands.exec(lines[i]!)
      if (found) return Number(found[1])
    }
    return 0
  }
  const [bed, nozzle] = [last(/^M1[49]0\b.*?\b[SR]([\d.]+)/), last(/^M10[49]\b.*?\b[SR]([\d.]+)/)]
  return [
    ...(bed > 0 ? [`M140 S${bed}`] : []),
    ...(nozzle > 0 ? [`M104 S${nozzle}`] : []),
    ...(bed > 0 ? [`M190 S${bed}`] : []),
    ...(nozzle > 0 ? [`M109 S${nozzle}`] : []),
  ]
}

const heightIn = (line: string): number | undefined => {
  const found = /^G[01]\b.*?\bZ(-?[\d.]+)/.exec(line)
  return found ? Number(found[1]) : undefined
}
