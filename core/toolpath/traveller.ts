import type { Contours } from '../geometry/contours'
import { insideRoute } from './insideRoute'
import { leavesPart } from './leavesPart'
import { code, type ToolpathBuilder } from './toolpath'

export interface TravelSettings {
  readonly retractMinTravel: number
  readonly retractAtLayer: 'off' | 'on'
  readonly travelInside: 'on' | 'off'
  readonly wipeLength: number
  readonly coastLength: number
  readonly lift: 'never' | 'overPrinted' | 'always'
  readonly liftHeight: number
}

/** Takes the nozzle from where one line ends to where the next begins, and decides what the filament does on the way. */
export class Traveller {
  private retracted = false
  private begun = true
  private outlines: Contours | undefined
  private layer = 0
  private lane: Contours | undefined

  constructor(private readonly out: ToolpathBuilder) {}

  /**
   * From now on travels are judged by this layer's outline.
   *
   * @param lane contours along which they may go round: the middle of the outermost wall, where there are walls
   */
  enter(outlines: Contours, lane: Contours | undefined, layer: number): void {
    this.outlines = outlines
    this.layer = layer
    this.lane = lane
  }

  /** The path begins with its first line: no way leads there. */
  beginAtFirstLine(): void {
    this.begun = false
  }

  /** Up to the next layer. */
  rise(z: number, settings: TravelSettings): void {
    if (settings.retractAtLayer === 'on' && z > this.out.atZ && this.out.atZ > 0 && this.begun) this.pull(settings)
    this.out.rise(z)
  }

  /** To the beginning of a line, ready to lay it. */
  goTo(x: number, y: number, settings: TravelSettings): void {
    const { out } = this
    if (!this.begun) {
      out.stoodAt(x, y)
      this.begun = true
      return
    }
    const outlines = this.outlines as Contours
    const distance = Math.hypot(x - out.atX, y - out.atY)
    if (distance > 1e-9) {
      const leaves = !this.retracted && distance >= settings.retractMinTravel && leavesPart(outlines, this.layer, out.atX, out.atY, x, y)
      const route = leaves && settings.travelInside === 'on' ? this.findRoute(x, y) : undefined
      if (route) for (let i = 0; i < route.length; i += 2) out.moveTo(route[i]!, route[i + 1]!)
      else this.goStraight(x, y, leaves, settings)
    }
    if (this.retracted) out.inPlace(code.pushBack)
    this.retracted = false
  }

  private goStraight(x: number, y: number, leaves: boolean, settings: TravelSettings): void {
    const { out } = this
    if (leaves) this.pull(settings)
    const lifts = this.retracted && (settings.lift === 'always' || (settings.lift === 'overPrinted' && this.crossesPrinted(x, y)))
    const z = out.atZ
    if (lifts) out.rise(z + settings.liftHeight)
    out.moveTo(x, y)
    if (lifts) out.rise(z)
  }

  /** Pulls filament back, after coasting and with a wipe where asked. */
  private pull({ coastLength, wipeLength }: TravelSettings): void {
    const { out } = this
    if (coastLength > 0) out.coast(coastLength)
    const wipe = wipeLength > 0 ? out.backAlong(wipeLength) : []
    out.inPlace(code.retract)
    let length = 0
    for (let i = 0, x = out.atX, y = out.atY; i < wipe.length; i += 2) {
      length += Math.hypot(wipe[i]! - x, wipe[i + 1]! - y)
      x = wipe[i]!
      y = wipe[i + 1]!
    }
    for (let i = 0; i < wipe.length; i += 2) out.moveTo(wipe[i]!, wipe[i + 1]!, code.wipe, length)
    this.retracted = true
  }

  private findRoute(x: number, y: number): number[] | undefined {
    const outlines = this.outlines as Contours
    return this.lane && insideRoute(this.lane, outlines, this.layer, this.out.atX, this.out.atY, x, y)
  }

  /** Whether a travel comes over the part again after it has left it, and before its end. */
  private crossesPrinted(x: number, y: number): boolean {
    return countCrossings(this.outlines as Contours, this.layer, this.out.atX, this.out.atY, x, y) > 2
  }
}

function countCrossings({ xy, polygonStart, groupStart }: Contours, group: number, x0: number, y0: number, x1: number, y1: number): number {
  const dx = x1 - x0
  const dy = y1 - y0
  let count = 0
  for (let p = groupStart[group]!; p < groupStart[group + 1]!; p++) {
    const to = polygonStart[p + 1]!
    for (let i = polygonStart[p]!, j = to - 1; i < to; j = i++) {
      const ax = xy[2 * j]!
      const ay = xy[2 * j + 1]!
      const ex = xy[2 * i]! - ax
      const ey = xy[2 * i + 1]! - ay
      if (dx * (ay - y0) - dy * (ax - x0) > 0 === dx * (ay + ey - y0) - dy * (ax + ex - x0) > 0) continue
      if (ex * (y0 - ay) - ey * (x0 - ax) > 0 !== ex * (y1 - ay) - ey * (x1 - ax) > 0) count++
    }
  }
  return count
}
