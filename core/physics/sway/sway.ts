import { code, isOfPart, layerTop, type Toolpath } from '../../toolpath/toolpath'

/** A part that gives way by more than this share of a line's width prints a feathered edge; semi-empirical. */
export const TOLERABLE = 0.25

/** Area and second moments of one layer about its centroid, mm² and mm⁴. */
export interface LayerSection {
  readonly z: number
  readonly thickness: number
  readonly area: number
  /** The smaller of the two principal second moments. */
  readonly least: number
}

export interface SwayFigures {
  /** How far the part gives way under the nozzle at its top, mm. */
  readonly topMm: number
  /** From this height on it gives way by more than is tolerable; absent where it never does, mm. */
  readonly slowAboveZMm?: number
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

/** Layer by layer, so that the compiler meets a small loop often. Nothing where nothing of the part is laid. */
function sectionOf(
  { x, y, area, width, feature, layerStart }: Toolpath,
  layer: number,
  thickness: number,
): Pick<LayerSection, 'area' | 'least'> | undefined {
  let a = 0
  let sx = 0
  let sy = 0
  let sxx = 0
  let syy = 0
  let sxy = 0
  for (let m = layerStart[layer]!; m < layerStart[layer + 1]!; m++) {
    if (!isOfPart(feature[m]!) || feature[m] === code.ironing) continue
    const dx = x[m + 1]! - x[m]!
    const dy = y[m + 1]! - y[m]!
    const length = Math.sqrt(dx * dx + dy * dy)
    if (length === 0) continue
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
  return { area: a, least: Math.max(0, mean - Math.hypot((ixx - iyy) / 2, ixy)) }
}

/**
 * Deflection of a standing part under a side force at each height, δ(z) = ∫ F·(z − s)²/(E·I(s)) ds (Euler–Bernoulli, by unit
 * load; any handbook), I the smaller principal second moment of each layer.
 *
 * @param modulus MPa
 * @param force N
 * @returns mm per layer
 */
export function deflections(sections: readonly LayerSection[], modulus: number, force: number): Float64Array {
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

export function swayFigures(sections: readonly LayerSection[], modulus: number, force: number, lineWidth: number): SwayFigures {
  const given = deflections(sections, modulus, force)
  const first = given.findIndex((mm) => mm > TOLERABLE * lineWidth)
  return { topMm: given[given.length - 1] ?? 0, ...(first < 0 ? {} : { slowAboveZMm: sections[first]!.z }) }
}

/** Deflection at the top of each layer, mm; not a number where nothing stands. */
export function swayByLayer(sections: readonly LayerSection[], tops: Float64Array, modulus: number, force: number): Float64Array {
  const given = deflections(sections, modulus, force)
  const at = new Map(sections.map(({ z }, i) => [z.toFixed(4), given[i]!]))
  return tops.map((z) => at.get(z.toFixed(4)) ?? Number.NaN)
}
