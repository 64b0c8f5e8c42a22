import type { Contours } from '../geometry/contours'
import { RimCheck } from '../geometry/rimCheck'
import { Rims, thin } from '../geometry/rims'
import { RimShifter } from '../geometry/shiftRims'
import { WIDEST_LINE } from './sideBySide'
import { HIDDEN_TOLERANCE, isShort, SKIN_TOLERANCE, spareFor, type WallSettings } from './walls'

/** Walls that have room everywhere; without `inside` there is not enough of it for the others. */
export interface CertainWalls {
  readonly walls: readonly Rims[]
  /** What they leave. */
  readonly free: Rims
  readonly outline: Rims
  readonly inside: Rims | undefined
}

/** Walls by inset upon inset, as long as there is room for them and a line more and no rim meets another. */
export class PlainWalls {
  private readonly shifter = new RimShifter()
  private readonly check = new RimCheck()
  private readonly thinned = new Rims()
  private readonly outline = new Rims()
  private readonly free = new Rims()
  private readonly inside = new Rims()
  private readonly room = new Rims()
  private readonly walls: Rims[] = []

  lay(outlines: Contours, layer: number, settings: WallSettings, width: number): CertainWalls {
    const { wallCount } = settings
    const outline = this.outline.read(outlines, layer)
    if (wallCount === 0) return { walls: [], free: outline, outline, inside: outline }
    let laid = 0
    for (; laid < wallCount; laid++) {
      this.walls[laid] ??= new Rims()
      const wall = this.walls[laid]!
      // The surface keeps every point; what lies behind it is hidden.
      const hasRoom =
        laid === 0
          ? this.shrink(outline, width / 2, width, wall)
          : this.shrinkThinned(this.walls[laid - 1]!, width, HIDDEN_TOLERANCE, width, wall)
      if (!hasRoom) break
    }
    if (
      laid === wallCount &&
      this.shrinkThinned(this.walls[laid - 1]!, width / 2, SKIN_TOLERANCE, width, this.inside) &&
      this.shrink(this.inside, (WIDEST_LINE / 2) * width, width, this.room)
    )
      return { walls: this.walls.slice(0, laid), free: this.inside, outline, inside: this.inside }
    // The innermost may be laid only if a line fits within it, or the gap that it leaves would stay open.
    if (laid > 0 && !this.shrink(this.walls[laid - 1]!, width / 2 + spareFor(settings, width), width, this.room)) laid--
    if (laid > 0 && !this.shrink(this.walls[laid - 1]!, width / 2, width, this.free)) laid = 0
    return { walls: this.walls.slice(0, laid), free: laid > 0 ? this.free : outline, outline, inside: undefined }
  }

  /** What the outermost so many of some certain walls leave; undefined where that cannot be told. */
  leftBy({ walls, free, outline }: CertainWalls, count: number, width: number): Rims | undefined {
    if (count === walls.length) return free
    if (count === 0) return outline
    return this.shrink(walls[count - 1]!, width / 2, width, this.inside) ? this.inside : undefined
  }

  private shrinkThinned(edge: Rims, by: number, tolerance: number, width: number, into: Rims): boolean {
    const thinned = thin(edge, width * tolerance, this.thinned)
    // A rim narrower than the tolerance falls flat, and what has fallen flat has no room within.
    return thinned.count === edge.count && this.shrink(thinned, by, width, into)
  }

  private shrink(edge: Rims, by: number, width: number, into: Rims): boolean {
    const before = this.shifter.shift(edge, by, into)
    return before !== undefined && !isShort(before, by, into.length, width) && this.check.boundSolid(into)
  }
}
