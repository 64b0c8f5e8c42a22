import { type Contours, ContoursBuilder } from '../geometry/contours'
import type { PolygonKernel } from '../geometry/polygon'
import { ringMiddles } from '../geometry/ringMiddle'
import { fitWalls } from './fitWalls'
import { NarrowLines } from './narrowLines'
import { type CertainWalls, PlainWalls } from './plainWalls'
import { countAcross, WIDEST_LINE } from './sideBySide'
import { leastOf, type WallSettings, type Walls, widthOn } from './walls'

/** A ring of narrow place takes in so many of the walls around it when that makes lines of one count fit all along. */
const WALLS_TAKEN_IN = 1
/** From the middle to the surface, more lines than this would no longer follow every point of it. */
const MOST_FROM_SURFACE = 3

/** Collects what is laid, layer by layer. */
export class WallsBuilder {
  readonly narrow: NarrowLines
  readonly inside = new ContoursBuilder()
  private readonly walls: readonly ContoursBuilder[]
  private readonly plain = new PlainWalls()

  constructor(
    most: number,
    private readonly kernel: PolygonKernel,
  ) {
    this.walls = Array.from({ length: most }, () => new ContoursBuilder())
    this.narrow = new NarrowLines(most)
  }

  /** Lays one layer with the same settings everywhere. Returns the area that is too thin for any line, mm². */
  lay(outlines: Contours, layer: number, settings: WallSettings): number {
    const { walls, inside, narrow } = this
    const width = widthOn(layer, settings)
    const certain = this.plain.lay(outlines, layer, settings, width)
    if (certain.inside) {
      this.writeWalls(certain, certain.walls.length)
      certain.inside.write(inside)
      return 0
    }
    if (settings.thinLines === 'filled') {
      for (let from = certain.walls.length; from >= Math.max(0, certain.walls.length - WALLS_TAKEN_IN); from--)
        if (this.layRings(certain, from, settings, width)) return 0
    }
    this.writeWalls(certain, certain.walls.length)
    return this.kernel.run((ops) => {
      const fitted = fitWalls(ops, ops.of(certain.free), certain.walls.length, width, settings, narrow)
      for (const [i, wall] of fitted.walls.entries()) ops.write(wall, walls[certain.walls.length + i]!)
      ops.write(fitted.inside, inside)
      return fitted.lost
    })
  }

  /** One wall, and nothing within it. */
  laySpiral({ xy }: Contours): void {
    this.walls[0]!.addPolygon(xy)
  }

  /** Lays lines side by side within so many walls, where what these leave are rings that take the same count all along. */
  private layRings(certain: CertainWalls, from: number, settings: WallSettings, width: number): boolean {
    const widths = { width, least: leastOf(settings, width) }
    const room = 2 * (settings.wallCount - from) + 1
    const most = from === 0 ? Math.min(room, MOST_FROM_SURFACE) : room
    const free = this.plain.leftBy(certain, from, width)
    const rings = free && ringMiddles(free, widths.least, most * WIDEST_LINE * width)
    if (!rings) return false
    const counts = rings.map((ring) => countAcross(ring.width, widths, most))
    if (counts.includes(undefined)) return false
    this.writeWalls(certain, from)
    for (const [i, ring] of rings.entries()) this.narrow.lay(ring, counts[i]!, from)
    return true
  }

  private writeWalls(certain: CertainWalls, count: number): void {
    for (let depth = 0; depth < count; depth++) certain.walls[depth]!.write(this.walls[depth]!)
  }

  endGroup(): void {
    for (const wall of this.walls) wall.endGroup()
    this.narrow.endGroup()
    this.inside.endGroup()
  }

  /** Ends a layer that is the same as the one before it, or as one farther back. */
  repeatGroup(back: number): void {
    for (const wall of this.walls) wall.repeatGroup(back)
    this.narrow.repeatGroup(back)
    this.inside.repeatGroup(back)
  }

  finish(): Omit<Walls, 'lost'> {
    return { walls: this.walls.map((wall) => wall.finish()), ...this.narrow.finish(), inside: this.inside.finish() }
  }
}
