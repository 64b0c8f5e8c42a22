/** What a move is for. The position in this list is the code stored per move. */
export const features = ['travel', 'retract', 'pushBack', 'outerWall', 'innerWall', 'skin', 'infill'] as const
export type Feature = (typeof features)[number]

export const code = Object.fromEntries(features.map((feature, i) => [feature, i])) as { readonly [F in Feature]: number }

/** Features that lay plastic. */
export const laidFeatures = ['outerWall', 'innerWall', 'skin', 'infill'] as const satisfies readonly Feature[]
export const isLaid = (feature: number): boolean => feature >= code.outerWall

/**
 * Everything the nozzle does, as one unbroken chain of points: move i runs from point i to point i + 1.
 *
 * ```
 * x, y, z     position of each point, mm (moves + 1 entries)
 * feature     code of each move
 * area        cross-section laid by each move, mm²; 0 where nothing is laid
 * layerStart  layer → its first move; one more entry than layers
 * ```
 * `retract` and `pushBack` stay in place. A layer begins with the move up to its height.
 */
export interface Toolpath {
  readonly x: Float64Array
  readonly y: Float64Array
  readonly z: Float64Array
  readonly feature: Uint8Array
  readonly area: Float32Array
  readonly layerStart: Uint32Array
}

export const moveCount = (path: Toolpath): number => path.feature.length

/** Collects moves one after another. */
export class ToolpathBuilder {
  private capacity = 1 << 14
  private moves = 0
  private x = new Float64Array(this.capacity + 1)
  private y = new Float64Array(this.capacity + 1)
  private z = new Float64Array(this.capacity + 1)
  private feature = new Uint8Array(this.capacity)
  private area = new Float32Array(this.capacity)
  private readonly layerStart: number[] = []

  get atX(): number {
    return this.x[this.moves]!
  }

  get atY(): number {
    return this.y[this.moves]!
  }

  /** Sets where the nozzle stands before the first move. */
  startAt(x: number, y: number, z: number): void {
    this.x[0] = x
    this.y[0] = y
    this.z[0] = z
  }

  startLayer(): void {
    this.layerStart.push(this.moves)
  }

  moveTo(x: number, y: number, feature: number, area: number): void {
    this.push(x, y, this.z[this.moves]!, feature, area)
  }

  rise(z: number): void {
    this.push(this.atX, this.atY, z, code.travel, 0)
  }

  /** A move that goes nowhere: filament is pulled back or pushed forward. */
  inPlace(feature: number): void {
    this.push(this.atX, this.atY, this.z[this.moves]!, feature, 0)
  }

  finish(): Toolpath {
    const points = this.moves + 1
    return {
      x: this.x.slice(0, points),
      y: this.y.slice(0, points),
      z: this.z.slice(0, points),
      feature: this.feature.slice(0, this.moves),
      area: this.area.slice(0, this.moves),
      layerStart: Uint32Array.from([...this.layerStart, this.moves]),
    }
  }

  private push(x: number, y: number, z: number, feature: number, area: number): void {
    if (this.moves === this.capacity) this.grow()
    this.feature[this.moves] = feature
    this.area[this.moves] = area
    this.moves++
    this.x[this.moves] = x
    this.y[this.moves] = y
    this.z[this.moves] = z
  }

  private grow(): void {
    this.capacity *= 2
    const grown = <A extends Float64Array | Float32Array | Uint8Array>(old: A, fresh: A): A => {
      fresh.set(old)
      return fresh
    }
    this.x = grown(this.x, new Float64Array(this.capacity + 1))
    this.y = grown(this.y, new Float64Array(this.capacity + 1))
    this.z = grown(this.z, new Float64Array(this.capacity + 1))
    this.feature = grown(this.feature, new Uint8Array(this.capacity))
    this.area = grown(this.area, new Float32Array(this.capacity))
  }
}
