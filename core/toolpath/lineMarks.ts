import { code, type Toolpath } from './toolpath'

/** Where lines of a part leave a mark: at corners, where they begin and end, and over air. */
export interface LineMarks {
  /** Of the outer wall: its length, mm, its corners of more than 45°, and its closed loops, each of which has a seam. */
  readonly wallMm: number
  readonly corners: number
  readonly loops: number
  /** Of tops and bottoms: their length, mm, and how many separate lines they are made of. */
  readonly topBottomMm: number
  readonly topBottomLines: number
  /** Share of a hanging line that has nothing under it, so that nineteen twentieths of what hangs by half or more hang by less; 0 where none does. */
  readonly hanging: number
  /** Scope in which most of the outer wall is laid. */
  readonly scope: number
}

/** A line that hangs by less than this, of 255, rests on the one below. */
const HANGS = 128
const MOST_HANG = 0.95
const SHARP = Math.SQRT1_2

export function lineMarks(path: Toolpath): LineMarks {
  const { x, y, feature, air } = path
  let [wallMm, corners, loops, topBottomMm, topBottomLines] = [0, 0, 0, 0, 0]
  let [lastX, lastY] = [0, 0]
  const hangs = new Float64Array(256)
  const inScope = new Float64Array(path.sets.length)
  for (let m = 0; m < feature.length; m++) {
    const kind = feature[m]!
    const onWall = kind === code.outerWall
    if (!onWall && kind !== code.topBottom) continue
    const [dx, dy] = [x[m + 1]! - x[m]!, y[m + 1]! - y[m]!]
    const length = Math.sqrt(dx * dx + dy * dy)
    if (length === 0) continue
    const begins = m === 0 || feature[m - 1] !== kind
    if (air[m]! >= HANGS) hangs[air[m]!]! += length
    if (onWall) {
      wallMm += length
      inScope[path.scope[m]!]! += length
      if (begins) loops++
      else if (lastX * dx + lastY * dy < SHARP * length) corners++
      lastX = dx / length
      lastY = dy / length
    } else {
      topBottomMm += length
      if (begins) topBottomLines++
    }
  }
  return {
    wallMm,
    corners,
    loops,
    topBottomMm,
    topBottomLines,
    hanging: quantileOf(hangs, MOST_HANG) / 255,
    scope: Math.max(0, inScope.indexOf(Math.max(...inScope))),
  }
}

/** Bin below which a share of the weights lies. */
function quantileOf(weights: Float64Array, share: number): number {
  const all = weights.reduce((sum, own) => sum + own, 0)
  let below = 0
  for (let bin = 0; bin < weights.length; bin++) {
    below += weights[bin]!
    if (all > 0 && below >= share * all) return bin
  }
  return 0
}
