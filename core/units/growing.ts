type Numbers = Float64Array | Uint32Array | Int32Array

/**
 * Numbers of which nobody knows beforehand how many there will be, in typed memory: a plain list of millions of them takes
 * several times as much, and ends the program where it passes what its engine can hold.
 */
export class Growing<A extends Numbers> {
  length = 0
  private constructor(
    private room: A,
    private readonly make: (length: number) => A,
  ) {}

  static ofDoubles = (): Growing<Float64Array> => new Growing(new Float64Array(16), (length) => new Float64Array(length))
  static ofIndices = (): Growing<Uint32Array> => new Growing(new Uint32Array(16), (length) => new Uint32Array(length))

  push(value: number): void {
    if (this.length === this.room.length) {
      const larger = this.make(2 * this.length)
      larger.set(this.room as never)
      this.room = larger
    }
    this.room[this.length++] = value
  }

  at(index: number): number {
    return this.room[index]!
  }

  /** What is there now. Shares memory with what is pushed later. */
  get values(): A {
    return this.room.subarray(0, this.length) as A
  }
}
