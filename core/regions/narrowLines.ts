import type { MiddleLine } from '../geometry/middleLine'
import { type Strands, StrandsBuilder } from '../geometry/strands'
import { type LineWidths, sideBySide, stretchesOf } from './sideBySide'

/** Collects the lines of varying width that fill narrow places: those that lie beside each other are walls, a single one is thin. */
export class NarrowLines {
  readonly thin = new StrandsBuilder()
  /** Outermost first. */
  readonly walls: readonly StrandsBuilder[]

  /** @param most walls at most */
  constructor(most: number) {
    this.walls = Array.from({ length: most }, () => new StrandsBuilder())
  }

  /** Fills the place about a middle line with one or two lines, by its width. @param depth of the walls around it */
  fill(line: MiddleLine, widths: LineWidths, depth: number): void {
    for (const stretch of stretchesOf(line, widths)) this.lay(stretch.line, stretch.count, depth)
  }

  /** Fills the place about a middle line with so many lines side by side. */
  lay(line: MiddleLine, count: number, depth: number): void {
    for (const [i, { xy, width, closed }] of sideBySide(line, count).entries()) {
      const isMiddle = 2 * i + 1 === count
      const into = isMiddle ? this.thin : (this.walls[depth + Math.min(i, count - 1 - i)] ?? this.thin)
      into.add(xy, width, closed)
    }
  }

  endGroup(): void {
    for (const builder of [this.thin, ...this.walls]) builder.endGroup()
  }

  /** Ends a group that is the same as the one before it, or as one farther back. */
  repeatGroup(back: number): void {
    for (const builder of [this.thin, ...this.walls]) builder.repeatGroup(back)
  }

  finish(): { readonly thin: Strands; readonly wallParts: readonly Strands[] } {
    return { thin: this.thin.finish(), wallParts: this.walls.map((wall) => wall.finish()) }
  }
}
