/** XOR of all characters of a numbered line before its star, as open firmware checks it. */
export function checksumOf(text: string): number {
  let sum = 0
  for (let i = 0; i < text.length; i++) sum ^= text.charCodeAt(i)
  return sum & 0xff
}

export const numbered = (number: number, text: string): string => {
  const line = `N${number} ${text}`
  return `${line}*${checksumOf(line)}`
}

/** Lines that may be on their way at once: a machine's serial buffer holds about as many. Common practice. */
const WINDOW = 4

/** What a machine's line says to a stream. */
const RESEND = /^(?:Resend|rs):?\s*N?(\d+)/i

/**
 * Sends a program line by line with numbers and checksums: never more on their way than a machine buffers, and from where it asks
 * when a line was damaged or lost. A line that it has accepted is never run a second time: its number tells.
 */
export class LineStream {
  /** Lines that the machine has accepted. */
  private taken: number
  /** Lines that were sent, and how many of what was sent is not answered yet. */
  private sent: number
  private onTheirWay = 0
  /** Answers to come that are of no accepted line: each request to send again ends with one. */
  private emptyOks = 0
  /** The machine awaits a line that it has had: it was switched off in between, and knows nothing of this print any more. */
  hasForgotten = false
  /** Nothing is sent until all that is on its way was answered: what was sent after a lost line is asked for again line by line. */
  private isDraining = false
  private isPaused = false

  /**
   * @param lines the program, the first being line 1 of the machine's count
   * @param from lines that the machine has already accepted
   */
  constructor(
    private readonly lines: readonly string[],
    private readonly send: (line: string) => void,
    from = 0,
  ) {
    this.taken = from
    this.sent = from
  }

  get accepted(): number {
    return this.taken
  }

  get total(): number {
    return this.lines.length
  }

  get isDone(): boolean {
    return this.taken >= this.lines.length
  }

  /** It was asked to send again, and something of what was on its way has no answer yet. */
  get awaitsLost(): boolean {
    return this.isDraining
  }

  get isHeld(): boolean {
    return this.isPaused
  }

  /** Sets the machine's count, and begins. */
  begin(): void {
    this.emptyOks = 1
    this.onTheirWay = 1
    this.isDraining = true
    this.send(numbered(this.taken, 'M110'))
  }

  /**
   * Goes on after whoever sent before was gone: the machine's count is left as it is, and a line that it does not await is sent on
   * purpose, so that it says which one it does.
   */
  takeUp(): void {
    this.onTheirWay = 1
    this.isDraining = true
    this.send(numbered(0, 'M105'))
  }

  pause(): void {
    this.isPaused = true
  }

  resume(): void {
    this.isPaused = false
    this.fill()
  }

  /** Takes what the machine said. Returns whether that was meant for the stream. */
  receive(line: string): boolean {
    const again = RESEND.exec(line)
    if (again) {
      // What it asks for it has not taken; all before it has.
      if (Number(again[1]) - 1 < this.taken) {
        this.hasForgotten = true
        this.isPaused = true
      }
      this.taken = Math.max(this.taken, Math.min(Number(again[1]) - 1, this.lines.length))
      this.emptyOks++
      this.isDraining = true
      return true
    }
    if (!/^ok\b/.test(line)) return false
    this.onTheirWay = Math.max(0, this.onTheirWay - 1)
    if (this.emptyOks > 0) this.emptyOks--
    else if (this.taken < this.sent) this.taken++
    if (this.isDraining && this.onTheirWay === 0) this.startAgain()
    this.fill()
    return true
  }

  /** Nothing came back for long: sends once more what was not answered. Its number keeps it from being run twice. */
  nudge(): void {
    if (this.isDone || this.isPaused) return
    this.onTheirWay = 0
    this.emptyOks = 0
    this.startAgain()
    this.fill()
  }

  private startAgain(): void {
    this.isDraining = false
    this.sent = this.taken
  }

  private fill(): void {
    while (!this.isPaused && !this.isDraining && this.sent < this.lines.length && this.sent - this.taken < WINDOW) {
      this.sent++
      this.onTheirWay++
      this.send(numbered(this.sent, this.lines[this.sent - 1]!))
    }
  }
}

/** Lines of a program that a machine is sent: comments and empty ones are left out. */
export const programLines = (text: string): string[] =>
  text.split(/\r?\n/).flatMap((line) => {
    const plain = line.replace(/;.*/, '').trim()
    return plain === '' ? [] : [plain]
  })
