/**
 * Straight pieces of line to be drawn flat.
 *
 * ```
 * ends   ax, ay, bx, by of one piece after another, mm
 * width  mm
 * move   which move each piece is of
 * ```
 */
export interface Pieces {
  readonly ends: Float32Array
  readonly width: Float32Array
  readonly move: Uint32Array
}

/** Collects pieces without knowing their number beforehand. */
export class PieceList {
  private ends: Float32Array
  private width: Float32Array
  private move: Uint32Array
  private count = 0

  constructor(capacity: number) {
    this.ends = new Float32Array(4 * capacity)
    this.width = new Float32Array(capacity)
    this.move = new Uint32Array(capacity)
  }

  add(ax: number, ay: number, bx: number, by: number, width: number, move: number): void {
    if (this.count === this.width.length) this.grow()
    const at = 4 * this.count
    this.ends[at] = ax
    this.ends[at + 1] = ay
    this.ends[at + 2] = bx
    this.ends[at + 3] = by
    this.width[this.count] = width
    this.move[this.count] = move
    this.count++
  }

  finish(): Pieces {
    return {
      ends: this.ends.subarray(0, 4 * this.count),
      width: this.width.subarray(0, this.count),
      move: this.move.subarray(0, this.count),
    }
  }

  private grow(): void {
    const [ends, width, move] = [this.ends, this.width, this.move]
    this.ends = new Float32Array(2 * ends.length + 4)
    this.width = new Float32Array(2 * width.length + 1)
    this.move = new Uint32Array(2 * move.length + 1)
    this.ends.set(ends)
    this.width.set(width)
    this.move.set(move)
  }
}
