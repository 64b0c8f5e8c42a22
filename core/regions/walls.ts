import type { Contours } from '../geometry/contours'
import type { RimMeasure } from '../geometry/rims'
import type { Strands } from '../geometry/strands'
import { WIDEST_LINE } from './sideBySide'

export interface WallSettings {
  readonly lineWidth: number
  /** 0 follows `lineWidth`. */
  readonly firstLayerWidth: number
  readonly wallCount: number
  readonly thinLines: 'filled' | 'left'
  readonly leastLineWidth: number
}

export interface Walls {
  /** Centre lines: outermost first; one group a layer of the block, as in everything here, mm. */
  readonly walls: readonly Contours[]
  /**
   * Walls with widths of their own: of narrow places where they share the room, and of places with settings of their own, cut
   * where these end. Outermost first.
   */
  readonly wallParts: readonly Strands[]
  /** Single lines of varying width where no full line fits: thin places of the part and gaps between walls. */
  readonly thin: Strands
  /** What the walls leave for tops, bottoms and infill. */
  readonly inside: Contours
  /** Area of each layer that is too thin for any line, mm². */
  readonly lost: Float64Array
}

/** Inner walls are hidden and may cut corners by this share of a line's width; only the outer wall keeps every point. */
export const HIDDEN_TOLERANCE = 1 / 16
/** Tops and bottoms follow a fill of straight lines, so their rim needs no more than this share of a line's width. */
export const SKIN_TOLERANCE = 1 / 8
/** In places of the inside narrower than this many line widths a fill would turn at every line; a line along them lies better. */
export const LEAST_INSIDE = 1.2
/** A place has vanished under an inset when the rim is shorter than foretold by this many line widths and this share. */
const VANISHED_WIDTHS = 3
const VANISHED_SHARE = 0.003

export const widthOn = (layer: number, { lineWidth, firstLayerWidth }: Pick<WallSettings, 'lineWidth' | 'firstLayerWidth'>): number =>
  layer === 0 && firstLayerWidth > 0 ? firstLayerWidth : lineWidth

/** What is thinner than asked for by no more than this share is as thin as asked for: rims are not more exact. */
const LEAST_SLACK = 0.02

/** The thinnest line that is laid, mm; a full line always may be. */
export const leastOf = ({ leastLineWidth }: WallSettings, width: number): number => Math.min(leastLineWidth, width) * (1 - LEAST_SLACK)

/** A strip too thin for a line of its own must not be left, so walls keep room for one; unless narrow places are left anyhow. */
export const spareFor = (settings: WallSettings, width: number): number =>
  settings.thinLines === 'left' ? 0 : leastOf(settings, width) / 2

/** Where a place has room for walls on both sides here and there, but is nowhere wider than this, mm, its lines lie along its middle. */
export const widestNarrow = (settings: WallSettings, width: number): number =>
  Math.max(2 * WIDEST_LINE * width, 2 * width + leastOf(settings, width))

/** Whether a rim has become shorter under an inset than its corners say: then a place has vanished. */
export const isShort = (before: RimMeasure, by: number, after: number, width: number): boolean =>
  before.length - by * before.fall - after > VANISHED_WIDTHS * width + VANISHED_SHARE * before.length
