import type { Scopes } from '../profile/overrides'
import { greyAt } from '../profile/speedPicture'

/** Nearer to each other than this, mm, lines are not divided for a picture: no machine would follow. */
const SHORTEST_PIECE = 0.2

type Pictured = ReturnType<Scopes['picturesAt']>[number]

/**
 * The row of a picture that lies on one layer.
 *
 * The picture reads from left to right for who looks at the part from outside: wrapped, its middle is on the front (−y) of the
 * place's own axes; laid, it is as wide as the box, and lies on the half of it that faces the front.
 */
export class PictureRow {
  readonly of: number
  private readonly isWrapped: boolean
  /** Greys along the row, repeats and all. */
  private readonly greys: Uint8Array
  private readonly x: number
  private readonly y: number
  private readonly cos: number
  private readonly sin: number
  private readonly width: number

  /** @param z height of the layer's middle, mm, within the place */
  constructor({ of, override: { picture, fromZ, toZ, box } }: Pictured, z: number) {
    this.of = of
    this.isWrapped = picture.lay === 'wrapped'
    const row = Math.max(0, Math.min(picture.rows - 1, Math.floor(((toZ - z) / (toZ - fromZ)) * picture.rows)))
    const times = this.isWrapped ? picture.times : 1
    this.greys = Uint8Array.from({ length: picture.columns * times }, (_, i) => greyAt(picture, i % picture.columns, row))
    this.x = box ? (box.minX + box.maxX) / 2 : 0
    this.y = box ? (box.minY + box.maxY) / 2 : 0
    this.width = box ? box.maxX - box.minX : Infinity
    const turn = ((box?.turn ?? 0) * Math.PI) / 180
    this.cos = Math.cos(turn)
    this.sin = Math.sin(turn)
  }

  /** Grey at a point of the layer; nothing where the picture does not lie. */
  greyAt(x: number, y: number): number | undefined {
    const column = this.columnAt(x, y)
    return column === undefined ? undefined : this.greys[column]
  }

  /** Which column a point of the layer lies in, repeats and all; nothing where the picture does not lie. */
  columnAt(x: number, y: number): number | undefined {
    const [u, v] = this.own(x, y)
    const count = this.greys.length
    if (this.isWrapped) return Math.min(count - 1, Math.floor(this.round(u, v) * count))
    const share = u / this.width + 0.5
    return v < 0 && share >= 0 && share < 1 ? Math.floor(share * count) : undefined
  }

  /** How many columns lie between two, the shorter way round. */
  columnsBetween(a = 0, b = a): number {
    const off = Math.abs(a - b)
    return this.isWrapped ? Math.min(off, this.greys.length - off) : off
  }

  /** Shares of a straight way at which the grey changes, ascending. */
  cutsOf(x0: number, y0: number, x1: number, y1: number): number[] {
    const [u0, v0] = this.own(x0, y0)
    const [u1, v1] = this.own(x1, y1)
    const cuts = this.isWrapped ? this.wrappedCuts(u0, v0, u1, v1) : this.laidCuts(u0, v0, u1, v1)
    const least = SHORTEST_PIECE / Math.hypot(u1 - u0, v1 - v0)
    let last = 0
    return cuts
      .sort((a, b) => a - b)
      .filter((cut) => {
        if (cut - last < least || 1 - cut < least) return false
        last = cut
        return true
      })
  }

  private own(x: number, y: number): [u: number, v: number] {
    const [dx, dy] = [x - this.x, y - this.y]
    return [dx * this.cos + dy * this.sin, dy * this.cos - dx * this.sin]
  }

  /** Share of the way round from the back, as seen from above counter-clockwise. */
  private round(u: number, v: number): number {
    const share = Math.atan2(v, u) / (2 * Math.PI) + 0.75
    return share - Math.floor(share)
  }

  private laidCuts(u0: number, v0: number, u1: number, v1: number): number[] {
    const cuts = v0 < 0 === v1 < 0 ? [] : [v0 / (v0 - v1)]
    if (u0 === u1) return cuts
    const count = this.greys.length
    const columnOf = (u: number): number => (u / this.width + 0.5) * count
    const [low, high] = [Math.min(columnOf(u0), columnOf(u1)), Math.max(columnOf(u0), columnOf(u1))]
    for (let at = Math.max(0, Math.floor(low) + 1); at < high && at <= count; at++) {
      if (at > 0 && at < count && this.greys[at] === this.greys[at - 1]) continue
      cuts.push(((at / count - 0.5) * this.width - u0) / (u1 - u0))
    }
    return cuts
  }

  private wrappedCuts(u0: number, v0: number, u1: number, v1: number): number[] {
    const count = this.greys.length
    const start = this.round(u0, v0)
    const sweep = Math.atan2(u0 * v1 - v0 * u1, u0 * u1 + v0 * v1) / (2 * Math.PI)
    const [low, high] = [Math.min(start, start + sweep) * count, Math.max(start, start + sweep) * count]
    const cuts: number[] = []
    // Counted on past where the picture begins: a way may cross that.
    for (let at = Math.floor(low) + 1; at < high; at++) {
      const column = ((at % count) + count) % count
      if (this.greys[column] === this.greys[(column + count - 1) % count]) continue
      const angle = 2 * Math.PI * (at / count - 0.75)
      const [x, y] = [Math.cos(angle), Math.sin(angle)]
      const [a, b] = [u0 * y - v0 * x, u1 * y - v1 * x]
      if (a !== b) cuts.push(a / (a - b))
    }
    return cuts.filter((share) => share > 0 && share < 1)
  }
}
