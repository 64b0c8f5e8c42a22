import type { Scopes } from '../profile/overrides'
import { isIn, type Patch } from '../profile/patch'
import { AIR_STEP, type AirSense } from './airSense'
import type { PictureRow } from './pictureRow'
import { code, mindsAir, type ToolpathBuilder } from './toolpath'
import type { Traveller, TravelSettings } from './traveller'

/** No line is cut into shorter pieces than this, mm. */
const SHORTEST = 1e-4

/**
 * Lays lines of one layer: divides them where what lies under them or the overrides in force change, so that every move
 * has one answer to both.
 */
export class Pen {
  private patches: readonly Patch[] = []
  private pictures: readonly PictureRow[] = []
  private isPictured = false
  private layerScope = 0
  private air: AirSense | undefined
  private width = 0
  /** The air sense, for lines that mind what lies under them. */
  private sensed: AirSense | undefined
  /** Height of the layer, mm. */
  height = 0

  constructor(
    private readonly out: ToolpathBuilder,
    private readonly traveller: Traveller,
    private readonly travelSettings: () => TravelSettings,
    private readonly scopes: Scopes,
  ) {}

  get atX(): number {
    return this.out.atX
  }

  get atY(): number {
    return this.out.atY
  }

  /**
   * @param scope of the overrides that cover the whole layer
   * @param patches overrides that cover a part of it
   * @param pictures that lie on it
   */
  enter(height: number, air: AirSense | undefined, scope: number, patches: readonly Patch[], pictures: readonly PictureRow[] = []): void {
    this.height = height
    this.air = air
    this.layerScope = scope
    this.patches = patches
    this.pictures = pictures
    this.out.scopeNow = scope
  }

  goTo(x: number, y: number): void {
    this.traveller.goTo(x, y, this.travelSettings())
    this.air?.begin()
  }

  /** What the lines that follow are like: their width and cross-section, mm and mm². */
  setLine(feature: number, area: number, width: number): void {
    this.out.setLine(feature, area, width)
    this.width = width
    this.isPictured = feature === code.outerWall && this.pictures.length > 0
    this.sensed = mindsAir[feature] === 1 ? this.air : undefined
  }

  /** Lays a straight line from where the nozzle stands. */
  lay(x: number, y: number): void {
    const x0 = this.out.atX
    const y0 = this.out.atY
    if (x === x0 && y === y0) return
    if (this.patches.length === 0 && !this.isPictured) {
      this.layOver(x, y)
      return
    }
    const cuts = [0, ...this.cutsOf(x0, y0, x, y), 1]
    for (let i = 0; i + 1 < cuts.length; i++) {
      const middle = (cuts[i]! + cuts[i + 1]!) / 2
      this.out.scopeNow = this.inPicture(x0 + (x - x0) * middle, y0 + (y - y0) * middle)
      const last = i + 2 === cuts.length
      this.layOver(last ? x : x0 + (x - x0) * cuts[i + 1]!, last ? y : y0 + (y - y0) * cuts[i + 1]!)
    }
    this.out.scopeNow = this.layerScope
  }

  /** The same, rising evenly. */
  layRising(x: number, y: number, z: number): void {
    const from = this.out.count
    this.lay(x, y)
    this.out.riseSince(from, z)
  }

  /** Scope of a place of this layer. */
  scopeAt(x: number, y: number): number {
    let scope = this.layerScope
    for (const patch of this.patches) if (isIn(patch, x, y)) scope = this.scopes.with(scope, patch.of)
    return scope
  }

  /** Scope of a place of the outer wall, by the pictures on it. */
  private inPicture(x: number, y: number): number {
    const scope = this.scopeAt(x, y)
    if (!this.isPictured) return scope
    return this.pictures.reduce((own, picture) => {
      const grey = picture.greyAt(x, y)
      // The box that a picture lies in is a patch, and its rim a cut.
      return grey === undefined || !this.scopes.sets[scope]!.includes(picture.of) ? own : this.scopes.withGrey(own, picture.of, grey)
    }, scope)
  }

  private layOver(x: number, y: number): void {
    const { sensed: air, out, width } = this
    if (!air) {
      out.drawTo(x, y, 0)
      return
    }
    const x0 = out.atX
    const y0 = out.atY
    const dx = x - x0
    const dy = y - y0
    const pieces = Math.max(1, Math.ceil(Math.sqrt(dx * dx + dy * dy) / AIR_STEP))
    let share = air.share(x0 + (dx * 0.5) / pieces, y0 + (dy * 0.5) / pieces, width)
    for (let k = 1; k < pieces; k++) {
      const next = air.share(x0 + (dx * (k + 0.5)) / pieces, y0 + (dy * (k + 0.5)) / pieces, width)
      // Quarters are the classes that speeds are given for; within one a line stays whole.
      if (next >> 6 === share >> 6) continue
      out.drawTo(x0 + (dx * k) / pieces, y0 + (dy * k) / pieces, share)
      share = next
    }
    out.drawTo(x, y, share)
  }

  /** Shares of the way at which it crosses the rim of a patch, ascending. */
  private cutsOf(x0: number, y0: number, x1: number, y1: number): number[] {
    const cuts: number[] = []
    for (const { sides } of this.patches) {
      for (const { across, most } of sides) {
        const from = x0 * across[0] + y0 * across[1]
        const share = (most - from) / (x1 * across[0] + y1 * across[1] - from)
        if (share > 1e-9 && share < 1 - 1e-9) cuts.push(share)
      }
    }
    if (this.isPictured) for (const picture of this.pictures) cuts.push(...picture.cutsOf(x0, y0, x1, y1))
    // Overrides that lie side by side share a rim: the piece between would have no length, and the nozzle would stop for it.
    const least = SHORTEST / Math.hypot(x1 - x0, y1 - y0)
    return cuts.sort((a, b) => a - b).filter((cut, i) => i === 0 || cut - cuts[i - 1]! > least)
  }
}
