import type { Solid, SolidKit } from '../solids/solidKernel'
import { heightsOf, type TrialSpec } from '../spec/trial'
import { digit, raised } from './strokes'

/** How far strokes stand out of a wall, mm. */
const RELIEF = 0.6

/** A body with a number on its front, which lies at y = −depth/2. `foot` is where the number's foot stands, mm. */
export function withNumber(
  kit: SolidKit,
  body: Solid,
  text: string,
  { depth, foot, x = 0, room }: { depth: number; foot: number; x?: number; room?: number },
): Solid {
  const number = raised(kit, text, RELIEF, room)
  return number ? body.plus(number.at(x, -depth / 2, foot)) : body
}

/** A body with a number cut into its back, which lies at y = depth/2: whether fine grooves stay open. */
export function withSunkNumber(
  kit: SolidKit,
  body: Solid,
  text: string,
  { depth, foot, x, room }: { depth: number; foot: number; x: number; room: number },
): Solid {
  const number = raised(kit, text, RELIEF, room)
  return number ? body.minus(number.turned(0, 0, 180).at(x, depth / 2, foot)) : body
}

/** Bands one above the other on a foot. */
export const tower = (spec: TrialSpec, foot: Solid, band: (label: string, index: number) => Solid): Solid =>
  foot.plus(...spec.bands.map(({ label }, i) => band(label, i).at(0, 0, heightsOf(spec, i).fromZ)))

/** Where a number stands in a band: in its middle. */
export const middleFor = (band: number): number => (band - digit.height) / 2

/**
 * A hollow shell of two lines with bands and their numbers: what is read on its walls. Where bands are too low for a number,
 * one stands at every so many.
 */
export function shell(kit: SolidKit, spec: TrialSpec, width: number, depth: number, lineWidth: number): Solid {
  const {
    size: { band, foot },
    bands,
  } = spec
  const height = foot + bands.length * band
  const wall = 2 * lineWidth
  const body = kit.box(width, depth, height).minus(kit.box(width - 2 * wall, depth - 2 * wall, height).at(0, 0, foot))
  const every = Math.max(1, Math.ceil((digit.height + 1) / band))
  return bands.reduce(
    (all, { label }, i) =>
      i % every === 0 && heightsOf(spec, i).fromZ + digit.height < height
        ? withNumber(kit, all, label, { depth, foot: heightsOf(spec, i).fromZ + Math.max(0, middleFor(band)), x: -width / 2 + 8 })
        : all,
    body,
  )
}
