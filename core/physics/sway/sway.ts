import type { Constants } from '../../constants/constants'
import type { Settings } from '../../profile/settings'
import type { Printer } from '../../shelf/printer'
import { code, isOfPart, layerTop, type Toolpath } from '../../toolpath/toolpath'

/** A part that gives way by more than this share of a line's width prints a feathered edge; semi-empirical. */
const FEATHERS = 0.25

/** One layer: area and second moment about its centroid, mm² and mm⁴, and what is drawn in it. */
export interface LayerSection {
  readonly z: number
  readonly thickness: number
  readonly area: number
  /** The smaller of the two principal second moments. */
  readonly least: number
  /** Line that is laid, mm, and strokes: pairs of corners sharper than a right angle's half. */
  readonly laid: number
  readonly strokes: number
}

export interface SwayFigures {
  /** How far the part gives way under the nozzle where it gives way most, mm, and where. */
  readonly mostMm: number
  readonly atZMm: number
  /** From this height on it gives way by more than a quarter of a line; absent where it never does, mm. */
  readonly slowAboveZMm?: number
  /** From this height on it cannot be printed: it gives way by a whole line, or its foot comes off the bed. */
  readonly falls?: { readonly aboveZMm: number; readonly by: 'sway' | 'foot' }
  /** Moment that its foot bears on the bed over the largest that pushes it. */
  readonly footMargin: number
  /** Whether it is so many times as high as its upper half's thinnest section is wide that bodies of it may stand alone and sway. */
  readonly isSlender: boolean
  /** The layer that sways most: how fast it is drawn, mm/s, how long it takes, s, and the force on it, N. */
  readonly worst: { readonly speedMmS: number; readonly timeS: number; readonly forceN: number }
}

/** Sections of every layer, from the lines that are laid; infill counts with its own volume. */
export function layerSections(path: Toolpath): LayerSection[] {
  const sections: LayerSection[] = []
  let below = 0
  for (let layer = 0; layer < path.layerStart.length - 1; layer++) {
    const top = layerTop(path, layer)
    const thickness = top - below
    if (!(thickness > 0)) continue
    below = top
    const section = sectionOf(path, layer, thickness)
    if (section) sections.push({ z: top, thickness, ...section })
  }
  return sections
}

/** A corner that turns by more than this ends a stroke: its cosine. */
const STROKE = Math.cos(Math.PI / 4)

/** Layer by layer, so that the compiler meets a small loop often. Nothing where nothing of the part is laid. */
function sectionOf(
  { x, y, area, width, feature, layerStart }: Toolpath,
  layer: number,
  thickness: number,
): Omit<LayerSection, 'z' | 'thickness'> | undefined {
  let a = 0
  let sx = 0
  let sy = 0
  let sxx = 0
  let syy = 0
  let sxy = 0
  let laid = 0
  let corners = 0
  let [lastX, lastY] = [0, 0]
  for (let m = layerStart[layer]!; m < layerStart[layer + 1]!; m++) {
    if (!isOfPart(feature[m]!) || feature[m] === code.ironing) continue
    const dx = x[m + 1]! - x[m]!
    const dy = y[m + 1]! - y[m]!
    const length = Math.sqrt(dx * dx + dy * dy)
    if (length === 0) continue
    if (dx * lastX + dy * lastY < STROKE * length) corners++
    lastX = dx / length
    lastY = dy / length
    laid += length
    const own = (area[m]! * length) / thickness
    const u = x[m]! + dx / 2
    const v = y[m]! + dy / 2
    // A line is a rectangle: its length and its width add to its moments about its middle.
    const along = own / 12
    const across = (own * width[m]! * width[m]!) / (12 * length * length)
    a += own
    sx += own * u
    sy += own * v
    sxx += own * u * u + along * dx * dx + across * dy * dy
    syy += own * v * v + along * dy * dy + across * dx * dx
    sxy += own * u * v + (along - across) * dx * dy
  }
  if (a === 0) return undefined
  const ixx = sxx - (sx * sx) / a
  const iyy = syy - (sy * sy) / a
  const ixy = sxy - (sx * sy) / a
  const mean = (ixx + iyy) / 2
  return { area: a, least: Math.max(0, mean - Math.hypot((ixx - iyy) / 2, ixy)), laid, strokes: corners / 2 }
}

/**
 * Deflection of a standing part under a side force at each height, δ(z) = ∫ F·(z − s)²/(E·I(s)) ds (Euler–Bernoulli, by unit
 * load; any handbook), I the smaller principal second moment of each layer.
 *
 * @param modulus MPa
 * @param force N
 * @returns mm per layer
 */
export function deflections(
  sections: readonly Pick<LayerSection, 'z' | 'thickness' | 'least'>[],
  modulus: number,
  force: number,
): Float64Array {
  // ∫ (z − s)²/I ds = z²·A0 − 2z·A1 + A2 with running sums of s^k/I, exact within each layer.
  let [a0, a1, a2] = [0, 0, 0]
  return Float64Array.from(sections, ({ z, thickness, least }) => {
    const low = z - thickness
    const per = least > 0 ? 1 / least : 0
    a0 += per * thickness
    a1 += (per * (z * z - low * low)) / 2
    a2 += (per * (z * z * z - low * low * low)) / 3
    return (force / modulus) * Math.max(0, z * z * a0 - 2 * z * a1 + a2)
  })
}

/** A part whose top is still soft gives way by so many times as much at most: what is under that has set; semi-empirical. */
const SOFTEST = 2

/** How a layer is drawn, and what stands under it. */
export interface Drawn {
  readonly timeS: number
  /** Layer time over the time that it needs to set; infinite where it needs none. */
  readonly margin: number
}

/** What of a candidate a standing part answers to. */
export interface Standing {
  readonly modulus: number
  /** g/cm³ */
  readonly density: number
  readonly lineWidth: number
  readonly lift: Settings['lift']
  /** How many of it are drawn in each layer. */
  readonly together: number
  /** How far a brim widens its foot, mm. */
  readonly brim: number
  readonly printer: Pick<Printer, 'table' | 'kinematics'>
  /** Of the bed where that moves under the part, mm/s². */
  readonly acceleration: number
}

type SwayConstants = Constants['sway']

/** The side force was assumed at this speed, mm/s. */
const AT_SPEED = 50

/** Side force of the nozzle, N: grows with speed, with knocks where it does not lift, and on a table that shakes. */
export function sideForce(
  speed: number,
  { lift, printer }: Pick<Standing, 'lift' | 'printer'>,
  { sideForce, pace, knock, table }: SwayConstants,
): number {
  const shakes = printer.table === 'shaky' ? table : printer.table === 'steady' ? 1 / table : 1
  return sideForce * (speed / AT_SPEED) ** pace * (lift === 'never' ? 1 + knock : 1) * shakes
}

/**
 * Moment that a foot bears before its edge comes off the bed, N·mm: adhesion · I/c, as of an ellipse of the same area and
 * second moment, whose half axes a brim widens.
 */
export function footMoment({ area, least }: Pick<LayerSection, 'area' | 'least'>, brim: number, adhesion: number): number {
  if (!(area > 0 && least > 0)) return 0
  const half = 2 * Math.sqrt(least / area)
  const other = area / (Math.PI * half)
  return (adhesion * Math.PI * (other + brim) * (half + brim) ** 2) / 4
}

/** Share of a cantilever's mass that swings with its tip: what makes its first frequency 0.56·√(EI/ρAL⁴) Hz (any handbook). */
const SWINGING = 0.2427

/**
 * By how much strokes of the nozzle rock a part beyond what they would push it: of one mass with damping (any handbook), and
 * never less at a faster pace, since slow strokes are among fast ones.
 */
export function amplified(strokesPerS: number, frequency: number, damping: number): number {
  const ratio = Math.min(strokesPerS / frequency, Math.sqrt(Math.max(0, 1 - 2 * damping * damping)))
  return 1 / Math.hypot(1 - ratio * ratio, 2 * damping * ratio)
}

/**
 * How far a standing part gives way at every layer, mm: the nozzle's force, and on a moving bed the part's own inertia, on
 * its deflection; more where strokes meet its own frequency, and where the layer is still soft.
 */
export function swayOf(sections: readonly LayerSection[], drawn: (section: number) => Drawn, of: Standing, constants: SwayConstants) {
  const perNewton = deflections(sections, of.modulus, 1)
  let mass = 0
  return sections.map(({ area, thickness, laid, strokes }, i) => {
    mass += area * thickness * of.density * 1e-9
    const { timeS, margin } = drawn(i)
    const speed = timeS > 0 ? (of.together * laid) / timeS : 0
    const swinging = SWINGING * mass
    const inertia = of.printer.kinematics === 'movingBed' ? swinging * of.acceleration : 0
    const frequency = Math.sqrt(1 / (perNewton[i]! * swinging)) / (2 * Math.PI)
    const rocking = perNewton[i]! > 0 && timeS > 0 ? amplified((of.together * strokes) / timeS, frequency, constants.damping) : 1
    const forceN = (sideForce(speed, of, constants) + inertia) * rocking
    return { forceN, speedMmS: speed, timeS, mm: forceN * perNewton[i]! * Math.min(SOFTEST, Math.max(1, 1 / margin)) }
  })
}

/** What `swayOf` tells of a layer. */
export type LayerSway = ReturnType<typeof swayOf>[number]

export function swayFigures(
  sections: readonly LayerSection[],
  given: readonly LayerSway[],
  of: Pick<Standing, 'brim' | 'lineWidth'>,
  { adhesion }: Pick<SwayConstants, 'adhesion'>,
): SwayFigures {
  if (given.length === 0)
    return { mostMm: 0, atZMm: 0, footMargin: Infinity, isSlender: false, worst: { speedMmS: 0, timeS: 0, forceN: 0 } }
  const most = given.reduce((at, { mm }, i) => (mm > given[at]!.mm ? i : at), 0)
  const holds = footMoment(sections[0]!, of.brim, adhesion)
  const from = (is: (section: number) => boolean): number => given.findIndex((_, i) => is(i))
  const pushed = given.reduce((most, { forceN }, i) => Math.max(most, forceN * sections[i]!.z), 0)
  const slow = from((i) => given[i]!.mm > FEATHERS * of.lineWidth)
  const [sways, loose] = [from((i) => given[i]!.mm > of.lineWidth), from((i) => given[i]!.forceN * sections[i]!.z > holds)]
  const falls =
    sways >= 0 && (loose < 0 || sways <= loose)
      ? ({ at: sways, by: 'sway' } as const)
      : loose >= 0
        ? ({ at: loose, by: 'foot' } as const)
        : undefined
  const { speedMmS, timeS, forceN, mm } = given[most]!
  return {
    mostMm: mm,
    atZMm: sections[most]!.z,
    ...(slow < 0 ? {} : { slowAboveZMm: sections[slow]!.z }),
    ...(falls ? { falls: { aboveZMm: sections[falls.at]!.z, by: falls.by } } : {}),
    footMargin: pushed > 0 ? holds / pushed : Infinity,
    isSlender: isSlender(sections),
    worst: { speedMmS, timeS, forceN },
  }
}

function isSlender(sections: readonly LayerSection[]): boolean {
  const thinnest = sections.slice(Math.floor(sections.length / 2)).reduce((least, { area }) => Math.min(least, area), Infinity)
  return sections.at(-1)!.z > SLENDER * Math.sqrt(thinnest)
}
/** Assumed. */
const SLENDER = 5

/** The same at the top of each layer, mm; not a number where nothing stands. */
export function swayByLayer(sections: readonly LayerSection[], tops: Float64Array, given: readonly LayerSway[]): Float64Array {
  const at = new Map(sections.map(({ z }, i) => [z.toFixed(4), given[i]!.mm]))
  return tops.map((z) => at.get(z.toFixed(4)) ?? Number.NaN)
}
