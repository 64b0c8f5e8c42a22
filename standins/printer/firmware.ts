import type { Machine } from './machine'

/** What is told when nobody spoke for so long while a heater is on, seconds on its own clock. */
const SILENCE_S = 600
/** While it waits it says that it lives, seconds on its own clock. */
const BUSY_EVERY_S = 2

/**
 * Speaks as open firmware does: lines with numbers and checksums, each answered by `ok` when it is taken, by `Resend` when it is
 * damaged or out of order; `busy` while it waits.
 */
export class Firmware {
  /** Number of the line that is awaited. */
  private expected = 1
  private readonly waiting: string[] = []
  private lastHeardAt = 0
  private lastBusyAt = 0
  private isHalted = false
  /** Temperatures are told by themselves, seconds on its own clock; never where it is 0. */
  private reportEveryS = 0
  private lastReportAt = 0
  /** The next line is thrown away as if the wire had lost it. */
  loseNext = false

  constructor(
    readonly machine: Machine,
    private readonly send: (line: string) => void,
  ) {
    this.send('start')
  }

  /** A line as it came over the wire. */
  receive(line: string): void {
    this.lastHeardAt = this.machine.clock
    // What stops a machine does not wait in a line.
    if (/^(N\d+\s*)?M112\b/.test(line.trim())) {
      this.waiting.length = 0
      this.isHalted = true
      this.machine.halt()
      this.send('Error:Printer halted. Heaters are off.')
      return
    }
    this.waiting.push(line)
    this.work()
  }

  /** Lets the machine's clock run, and answers what can be answered by then. */
  advance(seconds: number): void {
    const { machine } = this
    machine.advance(seconds)
    this.work()
    if (machine.isWaiting && machine.clock - this.lastBusyAt >= BUSY_EVERY_S) {
      this.lastBusyAt = machine.clock
      this.send(`echo:busy: processing`)
      this.send(this.temperatures())
    }
    if (this.reportEveryS > 0 && machine.clock - this.lastReportAt >= this.reportEveryS) {
      this.lastReportAt = machine.clock
      this.send(` ${this.temperatures()}`)
    }
    const isHot = machine.nozzle.target > 0 || machine.bed.target > 0
    if (isHot && machine.isIdle && this.waiting.length === 0 && machine.clock - this.lastHeardAt > SILENCE_S) {
      machine.halt()
      this.send(`echo:Nobody spoke for ${SILENCE_S} s. Heaters are off.`)
    }
  }

  private work(): void {
    while (this.waiting.length > 0) {
      // Questions are answered at once; what moves waits for room.
      const [line] = this.waiting as [string]
      if (!isQuestion(line) && !this.machine.isReady) return
      this.waiting.shift()
      this.take(line)
    }
  }

  private take(raw: string): void {
    if (this.loseNext) {
      this.loseNext = false
      return
    }
    for (const line of this.answerTo(raw)) this.send(line)
  }

  private answerTo(raw: string): readonly string[] {
    if (this.isHalted) return ['Error:Printer halted. Switch it off and on.']
    const text = raw.replace(/;.*/, '').trim()
    if (text === '') return ['ok']
    const numbered = /^N(-?\d+)\s*(.*?)\s*\*(\d+)$/.exec(text)
    if (text.startsWith('N') || text.includes('*')) {
      if (!numbered || checksumOf(text.slice(0, text.lastIndexOf('*'))) !== Number(numbered[3])) return this.resend('checksum mismatch')
      const number = Number(numbered[1])
      if (/^M110\b/.test(numbered[2]!)) {
        this.expected = number + 1
        return ['ok']
      }
      if (number !== this.expected) return this.resend('line number is not the one after the last')
      this.expected++
    }
    const [word = '', ...rest] = (numbered ? numbered[2]! : text).split(/\s+/)
    return this.run(word.toUpperCase(), rest)
  }

  private run(word: string, rest: readonly string[]): readonly string[] {
    const { machine } = this
    const told = (values: readonly number[]): string => ['X', 'Y', 'Z', 'E'].map((axis, i) => `${axis}${values[i]!.toFixed(2)}`).join(' ')
    if (word === 'M105') return [`ok ${this.temperatures()}`]
    if (word === 'M114') {
      const { x, y, z, e } = machine.at
      return [`X:${x.toFixed(2)} Y:${y.toFixed(2)} Z:${z.toFixed(2)} E:${e.toFixed(2)}`, 'ok']
    }
    if (word === 'M31') return [`echo:Print time: ${machine.printS.toFixed(1)} s`, 'ok']
    if (word === 'M155') {
      this.reportEveryS = Number(rest.find((part) => /^S\d/i.test(part))?.slice(1) ?? 0)
      return ['ok']
    }
    if (word === 'M503') {
      const { speed, acceleration } = machine.limits
      return [`echo:  M203 ${told(speed)}`, `echo:  M201 ${told(acceleration)}`, 'ok']
    }
    machine.run(word, valuesOf(rest))
    return ['ok']
  }

  private resend(why: string): readonly string[] {
    return [`Error:${why}, expected ${this.expected}`, `Resend: ${this.expected}`, 'ok']
  }

  private temperatures(): string {
    const { nozzle, bed } = this.machine
    return `T:${nozzle.celsius.toFixed(1)} /${nozzle.target.toFixed(1)} B:${bed.celsius.toFixed(1)} /${bed.target.toFixed(1)}`
  }
}

/** A command's words as letters with their numbers; whatever is none is passed over. */
export const valuesOf = (words: readonly string[]): Record<string, number> =>
  Object.fromEntries(words.flatMap((part) => (/^[A-Z]-?[\d.]+$/i.test(part) ? [[part[0]!.toUpperCase(), Number(part.slice(1))]] : [])))

const isQuestion = (line: string): boolean => /^(N\d+\s*)?M(105|114|503|110)\b/.test(line.trim()) && !/^N/.test(line.trim())

/** XOR of all characters before the star. */
export function checksumOf(text: string): number {
  let sum = 0
  for (let i = 0; i < text.length; i++) sum ^= text.charCodeAt(i)
  return sum & 0xff
}
