import { type Contours, ContoursBuilder } from '../geometry/contours'
import type { PolygonKernel } from '../geometry/polygon'
import { ringMiddles } from '../geometry/ringMiddle'
import { StrandsBuilder } from '../geometry/strands'
import { fitWalls } from './fitWalls'
import { addThin } from './layThin'
import { PlainWalls } from './plainWalls'
import { type WallSettings, type Walls, widthOn } from './walls'

/** Collects what is laid, layer by layer. */
export class WallsBuilder {
  readonly thin = new StrandsBuilder()
  readonly inside = new ContoursBuilder()
  private readonly walls: readonly ContoursBuilder[]
  private readonly plain = new PlainWalls()

  constructor(
    most: number,
    private readonly kernel: PolygonKernel,
  ) {
    this.walls = Array.from({ length: most }, () => new ContoursBuilder())
  }

  /** Lays one layer with the same settings everywhere. Returns the area that is too thin for any line, mm². */
  lay(outlines: Contours, layer: number, settings: WallSettings): number {
    const { walls, inside, thin } = this
    const width = widthOn(layer, settings)
    const certain = this.plain.lay(outlines, layer, settings, width)
    for (const [depth, wall] of certain.walls.entries()) wall.write(walls[depth]!)
    if (certain.inside) {
      certain.inside.write(inside)
      return 0
    }
    if (settings.thinLines === 'filled') {
      const leastWidth = Math.min(settings.leastLineWidth, width)
      // Narrower than this all round, there is no room for a wall on either side of what is left.
      const rings = ringMiddles(certain.free, leastWidth, 2 * width + (certain.walls.length > 0 ? leastWidth : 0))
      if (rings) {
        for (const ring of rings) addThin(ring, width, thin)
        return 0
      }
    }
    return this.kernel.run((ops) => {
      const fitted = fitWalls(ops, ops.of(certain.free), certain.walls.length, width, settings, thin)
      for (const [i, wall] of fitted.walls.entries()) ops.write(wall, walls[certain.walls.length + i]!)
      ops.write(fitted.inside, inside)
      return fitted.lost
    })
  }

  endGroup(): void {
    for (const wall of this.walls) wall.endGroup()
    this.thin.endGroup()
    this.inside.endGroup()
  }

  /** Ends a layer that is the same as the one before it. */
  repeatGroup(): void {
    for (const wall of this.walls) wall.repeatGroup()
    this.thin.repeatGroup()
    this.inside.repeatGroup()
  }

  finish(): Omit<Walls, 'wallParts' | 'lost'> {
    return { walls: this.walls.map((wall) => wall.finish()), thin: this.thin.finish(), inside: this.inside.finish() }
  }
}
