const WIDTH = 60

/** Tells on a terminal how far something is, on one line that is wiped in the end; silent where nobody looks. */
export class Progress {
  private told = 0

  constructor(private readonly out: NodeJS.WriteStream = process.stderr) {}

  tell(what: string, share: number): void {
    const now = performance.now()
    if (!this.out.isTTY || now - this.told < 100) return
    this.told = now
    this.out.write(`\r${`${what} ${Math.round(100 * share)} %`.slice(0, WIDTH).padEnd(WIDTH)}`)
  }

  end(): void {
    if (this.told > 0) this.out.write(`\r${' '.repeat(WIDTH)}\r`)
  }
}
