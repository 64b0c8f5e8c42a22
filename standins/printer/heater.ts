/** A heater as a first-order system: it goes towards what is asked, and cools towards the room. */
export class Heater {
  private value: number
  target = 0

  constructor(
    private readonly room: number,
    private readonly tauS: number,
    /** What it would reach with full power, °C. */
    private readonly most: number,
  ) {
    this.value = room
  }

  advance(seconds: number): void {
    const goal =
      this.target > 0 ? Math.min(this.most, this.target + (this.target > this.value ? 0.4 * (this.most - this.target) : 0)) : this.room
    const next = goal + (this.value - goal) * Math.exp(-seconds / this.tauS)
    this.value = this.target > 0 && this.value <= this.target === next > this.target ? this.target : next
  }

  get celsius(): number {
    return this.value
  }

  /** Close enough to print by. */
  get isThere(): boolean {
    return this.target === 0 || Math.abs(this.value - this.target) < 1
  }
}
