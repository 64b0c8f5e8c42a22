import type { Contours } from '../geometry/contours'
import { NearIndex } from '../geometry/nearIndex'

/** Lines are judged in pieces of this length, mm; rims farther than this do not matter. */
export const AIR_STEP = 1

/** Tells which share of a line has nothing under it, from the outline of the layer below. */
export class AirSense {
  private readonly rims: NearIndex
  private last = Number.NaN
  /** What lies nearer to the start of y than this lies on the belt, mm. */
  private belt = -Infinity

  /** @param width widest line, mm */
  constructor(outlines: Contours, width: number) {
    // Of two points a step apart on either side of a rim, one is within half a step of it.
    this.rims = new NearIndex(outlines, 0, Math.max(0.51 * AIR_STEP, 0.51 * width))
  }

  /** From now on lines are laid over this layer. @param belt y at which a tilted belt bears them too, mm */
  enter(layer: number, belt = -Infinity): void {
    this.rims.enter(layer)
    this.belt = belt
  }

  /** A line that is not joined to the last one begins. */
  begin(): void {
    this.last = Number.NaN
  }

  /**
   * Share (0–255) of a line of `width` with its middle at this point that hangs over air (models §6). Far from any rim a
   * line is where it was at the last point: it cannot have crossed a rim unseen.
   */
  share(x: number, y: number, width: number): number {
    if (y < this.belt + width / 2) return 0
    const distance = this.rims.signedDistance(x, y)
    if (Number.isNaN(distance)) {
      if (Number.isNaN(this.last)) this.last = this.rims.holds(x, y) ? -1 : 1
      return this.last > 0 ? 255 : 0
    }
    this.last = distance
    const share = distance / width + 0.5
    return share <= 0 ? 0 : share >= 1 ? 255 : Math.round(255 * share)
  }
}
