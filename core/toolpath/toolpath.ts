import type { OverrideSets } from '../profile/overrides'
/** Features that lay plastic. */
export const laidFeatures = [
  'outerWall',
  'innerWall',
  'thin',
  'topBottom',
  'bridge',
  'ironing',
  'infill',
  'support',
  'supportTop',
  'foot',
] as const
export type LaidFeature = (typeof laidFeatures)[number]

/** What a move is for. The position in this list is the code stored per move. */
export const features = ['travel', 'retract', 'pushBack', 'wipe', 'coast', ...laidFeatures] as const
export type Feature = (typeof features)[number]

export const code = Object.fromEntries(features.map((feature, i) => [feature, i])) as { readonly [F in Feature]: number }

export const isLaid = (feature: number): boolean => feature >= code.outerWall
/** 1 for features whose lines are judged by what lies under them, by feature code. */
export const mindsAir = Uint8Array.from(features, (feature) => (['outerWall', 'innerWall', 'thin', 'topBottom'].includes(feature) ? 1 : 0))
/** Whether a feature stays on the part: supports and what lies around its foot are taken off. */
export const isOfPart = (feature: number): boolean => feature >= code.outerWall && feature < code.support

/**
 * Everything the nozzle does, as one unbroken chain of points: move i runs from point i to point i + 1.
 *
 * ```
 * x, y, z     position of each point, mm (moves + 1 entries)
 * feature     code of each move
 * area        cross-section laid by each move, mm²; 0 where nothing is laid
 * width       of the line laid by each move, mm; of a wipe, the length of the whole wipe
 * air         share of each line that has nothing under it, 0–255
 * scope       which of `sets` of overrides is in force for each move; 0 for none
 * layerStart  layer → its first move; one more entry than layers
 * rank        layer → which of its own part's layers it is: what is printed after another part begins at 0 again
 * ```
 * `retract` and `pushBack` stay in place. A layer begins with the move up to its height.
 */
export interface Toolpath {
  readonly x: Float64Array
  readonly y: Float64Array
  readonly z: Float64Array
  readonly feature: Uint8Array
  readonly area: Float32Array
  readonly width: Float32Array
  readonly air: Uint8Array
  readonly scope: Uint16Array
  readonly sets: OverrideSets
  readonly layerStart: Uint32Array
  readonly rank: Uint32Array
}

export const moveCount = (path: Toolpath): number => path.feature.length

/** Height at which a layer is laid, mm; that at which its last line ends where it rises; 0 where nothing is. */
export function layerTop(path: Toolpath, layer: number): number {
  for (let m = path.layerStart[layer + 1]! - 1; m >= path.layerStart[layer]!; m--) if (path.area[m]! > 0) return path.z[m + 1]!
  return 0
}

/** Collects moves one after another. */
export class ToolpathBuilder {
  private capacity: number
  private moves = 0
  private x: Float64Array
  private y: Float64Array
  private z: Float64Array
  private feature: Uint8Array
  private area: Float32Array
  private width: Float32Array
  private air: Uint8Array
  private scope: Uint16Array
  private readonly layerStart: number[] = []
  private readonly ranks: number[] = []
  private line = 0
  private lineArea = 0
  private lineWidth = 0
  /** Scope of the moves that follow. */
  scopeNow = 0

  /**
   * @param moves that are expected, about
   * @param room where they are kept
   */
  constructor(
    moves = 1 << 14,
    private readonly room: (bytes: number) => ArrayBufferLike = (bytes) => new ArrayBuffer(bytes),
  ) {
    this.capacity = moves
    this.x = new Float64Array(room(8 * (moves + 1)))
    this.y = new Float64Array(room(8 * (moves + 1)))
    this.z = new Float64Array(room(8 * (moves + 1)))
    this.feature = new Uint8Array(room(moves))
    this.area = new Float32Array(room(4 * moves))
    this.width = new Float32Array(room(4 * moves))
    this.air = new Uint8Array(room(moves))
    this.scope = new Uint16Array(room(2 * moves))
  }

  get atX(): number {
    return this.x[this.moves]!
  }

  get atY(): number {
    return this.y[this.moves]!
  }

  get atZ(): number {
    return this.z[this.moves]!
  }

  /** Sets where the nozzle stands before the first move. */
  startAt(x: number, y: number, z: number): void {
    this.x[0] = x
    this.y[0] = y
    this.z[0] = z
  }

  /** Sets where on its layers the nozzle has stood so far; it may have risen, but no more. */
  stoodAt(x: number, y: number): void {
    this.x.fill(x, 0, this.moves + 1)
    this.y.fill(y, 0, this.moves + 1)
  }

  /** @param rank which of its own part's layers it is */
  startLayer(rank = this.layerStart.length): void {
    this.layerStart.push(this.moves)
    this.ranks.push(rank)
  }

  /** What the lines that follow are like; told apart from where they go, since few of them differ. */
  setLine(feature: number, area: number, width: number): void {
    this.line = feature
    this.lineArea = area
    this.lineWidth = width
  }

  /** Lays a line as it was set. @param air share with nothing under it, 0–255 */
  drawTo(x: number, y: number, air: number): void {
    const m = this.push(x, y, this.line)
    this.area[m] = this.lineArea
    this.width[m] = this.lineWidth
    this.air[m] = air
  }

  /** Lays a line of its own. */
  layTo(x: number, y: number, feature: number, area: number, width: number, air = 0): void {
    this.setLine(feature, area, width)
    this.drawTo(x, y, air)
  }

  /** A move that lays nothing. */
  moveTo(x: number, y: number, feature: number = code.travel, width = 0): void {
    this.width[this.push(x, y, feature)] = width
  }

  rise(z: number): void {
    if (z === this.atZ) return
    this.push(this.atX, this.atY, code.travel)
    this.z[this.moves] = z
  }

  /** How many moves there are. */
  get count(): number {
    return this.moves
  }

  /** Lets what was laid since some move rise evenly to a height. */
  riseSince(move: number, z: number): void {
    const lengths: number[] = []
    let whole = 0
    for (let m = move; m < this.moves; m++) {
      whole += Math.hypot(this.x[m + 1]! - this.x[m]!, this.y[m + 1]! - this.y[m]!)
      lengths.push(whole)
    }
    const from = this.z[move]!
    for (const [i, length] of lengths.entries()) this.z[move + i + 1] = length === whole ? z : from + ((z - from) * length) / whole
  }

  /** A move that goes nowhere: filament is pulled back or pushed forward. */
  inPlace(feature: number): void {
    this.push(this.atX, this.atY, feature)
  }

  /** The last `length` mm of what was just laid are run without pushing. */
  coast(length: number): void {
    let left = length
    for (let m = this.moves - 1; m >= 0 && left > 1e-6 && isLaid(this.feature[m]!); m--) {
      const dx = this.x[m + 1]! - this.x[m]!
      const dy = this.y[m + 1]! - this.y[m]!
      const l = Math.sqrt(dx * dx + dy * dy)
      if (l > left) {
        const share = 1 - left / l
        this.insertPoint(m, this.x[m]! + dx * share, this.y[m]! + dy * share)
        m++
      }
      this.feature[m] = code.coast
      this.area[m] = 0
      left -= l
    }
  }

  /** Points run back along what was just laid, for `length` mm, from where the nozzle stands: x, y … */
  backAlong(length: number): number[] {
    const xy: number[] = []
    let left = length
    for (let m = this.moves - 1; m >= 0 && left > 1e-6 && (isLaid(this.feature[m]!) || this.feature[m] === code.coast); m--) {
      const dx = this.x[m]! - this.x[m + 1]!
      const dy = this.y[m]! - this.y[m + 1]!
      const l = Math.sqrt(dx * dx + dy * dy)
      if (l === 0) continue
      const share = Math.min(1, left / l)
      xy.push(this.x[m + 1]! + dx * share, this.y[m + 1]! + dy * share)
      left -= l
    }
    return xy
  }

  /**
   * Goes on with a path that begins where the nozzle stands, on the layer that was started last.
   *
   * @param scopes what each scope of that path is called here
   */
  append(path: Toolpath, scopes: readonly number[]): void {
    const count = moveCount(path)
    for (let layer = 1; layer < path.layerStart.length - 1; layer++) {
      this.ranks.push(this.layerStart.length)
      this.layerStart.push(this.moves + path.layerStart[layer]!)
    }
    if (count === 0) return
    while (this.moves + count > this.capacity) this.grow()
    for (const member of ['feature', 'area', 'width', 'air'] as const) this[member].set(path[member], this.moves)
    for (const member of ['x', 'y', 'z'] as const) this[member].set(path[member], this.moves)
    for (let m = 0; m < count; m++) this.scope[this.moves + m] = scopes[path.scope[m]!]!
    this.moves += count
  }

  /** What was collected: the builder's own memory, so nothing may be added any more. @param sets that its scopes are of */
  finish(sets: OverrideSets = [[]]): Toolpath {
    const { moves } = this
    return {
      x: this.x.subarray(0, moves + 1),
      y: this.y.subarray(0, moves + 1),
      z: this.z.subarray(0, moves + 1),
      feature: this.feature.subarray(0, moves),
      area: this.area.subarray(0, moves),
      width: this.width.subarray(0, moves),
      air: this.air.subarray(0, moves),
      scope: this.scope.subarray(0, moves),
      sets,
      layerStart: Uint32Array.from([...this.layerStart, moves]),
      rank: Uint32Array.from(this.ranks),
    }
  }

  /** A move at the height of the last one, that lays nothing yet. Returns its number. */
  private push(x: number, y: number, feature: number): number {
    if (this.moves === this.capacity) this.grow()
    const m = this.moves++
    this.feature[m] = feature
    this.area[m] = 0
    this.width[m] = 0
    this.air[m] = 0
    this.scope[m] = this.scopeNow
    this.x[m + 1] = x
    this.y[m + 1] = y
    this.z[m + 1] = this.z[m]!
    return m
  }

  /** Divides a move of the line that was laid last. */
  private insertPoint(move: number, x: number, y: number): void {
    this.push(this.atX, this.atY, code.travel)
    for (let m = this.moves - 1; m > move; m--) {
      for (const values of [this.feature, this.area, this.width, this.air, this.scope]) values[m] = values[m - 1]!
      for (const values of [this.x, this.y, this.z]) values[m + 1] = values[m]!
    }
    this.x[move + 1] = x
    this.y[move + 1] = y
  }

  private grow(): void {
    this.capacity = 2 * this.capacity + 64
    const { room, capacity } = this
    const grown = <A extends Float64Array | Float32Array | Uint16Array | Uint8Array>(old: A, fresh: A): A => {
      fresh.set(old)
      return fresh
    }
    this.x = grown(this.x, new Float64Array(room(8 * (capacity + 1))))
    this.y = grown(this.y, new Float64Array(room(8 * (capacity + 1))))
    this.z = grown(this.z, new Float64Array(room(8 * (capacity + 1))))
    this.feature = grown(this.feature, new Uint8Array(room(capacity)))
    this.area = grown(this.area, new Float32Array(room(4 * capacity)))
    this.width = grown(this.width, new Float32Array(room(4 * capacity)))
    this.air = grown(this.air, new Uint8Array(room(capacity)))
    this.scope = grown(this.scope, new Uint16Array(room(2 * capacity)))
  }
}
