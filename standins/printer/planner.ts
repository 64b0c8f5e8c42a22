/** A straight move as a machine plans it: mm, mm/s, mm/s². */
export interface PlannedMove {
  readonly length: number
  /** Unit vector of x, y and z; nothing for filament alone. */
  readonly along: readonly [number, number, number]
  readonly speed: number
  readonly acceleration: number
  /** Highest speed at which it may be entered from the move before. */
  readonly entry: number
  /** Filament that it feeds, mm. */
  readonly feed: number
  readonly z: number
  readonly from: readonly [x: number, y: number]
  readonly to: readonly [x: number, y: number]
}

/** Largest change of speed that a corner may ask of an axis at once, mm/s. */
const INSTANT = 8
/** A machine never plans to crawl slower than this, mm/s. */
const CRAWL = 0.5

/** Speed at which a corner between two directions is passed: the change of each axis stays within what it bears at once. */
export function cornerSpeed(before: Pick<PlannedMove, 'along' | 'speed'> | undefined, along: PlannedMove['along'], speed: number): number {
  if (!before) return CRAWL
  let most = Math.min(before.speed, speed)
  for (const axis of [0, 1, 2] as const) {
    const change = Math.abs(before.along[axis] - along[axis])
    if (change > 1e-9) most = Math.min(most, INSTANT / change)
  }
  return Math.max(CRAWL, most)
}

/** Moves that wait to be run: a machine looks ahead no farther than these. */
export class MoveBuffer {
  private moves: PlannedMove[] = []
  /** Speed at which the last move that ran ended. */
  private left = 0

  constructor(private readonly size: number) {}

  get isFull(): boolean {
    return this.moves.length >= this.size
  }

  get isEmpty(): boolean {
    return this.moves.length === 0
  }

  add(move: PlannedMove): void {
    this.moves.push(move)
  }

  clear(): void {
    this.moves = []
    this.left = 0
  }

  /** Takes the next move out, with the seconds that it takes and the fastest that it goes, mm/s, as far as is known by then of what follows. */
  next(): { readonly move: PlannedMove; readonly seconds: number; readonly peak: number } | undefined {
    const move = this.moves.shift()
    if (!move) return undefined
    const exit = Math.min(this.mostAtStart(), Math.sqrt(this.left ** 2 + 2 * move.acceleration * move.length), move.speed)
    const entry = Math.min(this.left, move.speed, Math.sqrt(exit ** 2 + 2 * move.acceleration * move.length))
    this.left = exit
    return { move, ...runOf(move, entry, exit) }
  }

  /** Highest speed at which what is in the buffer can be entered so that it can stand still at its end. */
  private mostAtStart(): number {
    let speed = 0
    for (let i = this.moves.length - 1; i >= 0; i--) {
      const { entry, acceleration, length } = this.moves[i]!
      speed = Math.min(entry, Math.sqrt(speed ** 2 + 2 * acceleration * length))
    }
    return speed
  }
}

/** A move with even acceleration up, even speed, and down: its time, and its fastest speed. */
function runOf({ length, speed, acceleration }: PlannedMove, entry: number, exit: number): { seconds: number; peak: number } {
  if (length === 0) return { seconds: 0, peak: 0 }
  const peak = Math.min(speed, Math.sqrt((2 * acceleration * length + entry ** 2 + exit ** 2) / 2))
  const up = (peak ** 2 - entry ** 2) / (2 * acceleration)
  const down = (peak ** 2 - exit ** 2) / (2 * acceleration)
  const even = Math.max(0, length - up - down)
  return { seconds: (peak - entry) / acceleration + (peak - exit) / acceleration + even / Math.max(CRAWL, peak), peak }
}
