import type { PolygonOps, Region } from './polygon'

/** How far a place lies from the rim is told to this, mm. */
export const DEPTH_STEP = 0.5

/** Insets of a region, each made once, and how deep places lie in it. */
export class Insets {
  private readonly made = new Map<number, Region>()

  constructor(
    private readonly ops: PolygonOps,
    readonly own: Region,
  ) {}

  by(distance: number): Region {
    const made = this.made.get(distance) ?? this.ops.offset(this.own, -distance)
    this.made.set(distance, made)
    return made
  }

  /** How far from the rim the deepest point of a place lies, mm, to the next step. */
  depthOf(place: Region): number {
    const reaches = (steps: number): boolean => {
      const inset = this.by(steps * DEPTH_STEP)
      return !this.ops.isEmpty(inset) && !this.ops.isEmpty(this.ops.intersect(inset, place))
    }
    let deep = 0
    let beyond = 1
    while (reaches(beyond)) {
      deep = beyond
      beyond *= 2
    }
    while (beyond - deep > 1) {
      const middle = (deep + beyond) >> 1
      if (reaches(middle)) deep = middle
      else beyond = middle
    }
    return beyond * DEPTH_STEP
  }
}
