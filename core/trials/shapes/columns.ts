import type { Solid, SolidKit } from '../solids/solidKernel'
import type { TrialSpec } from '../spec/trial'
import { middleFor, tower, withNumber } from './tower'

/** Of a column, and from one to the next, mm. */
const [WIDTH, DEPTH, APART] = [10, 7, 26]
/** Thickness of the bars between them, mm. */
const BAR = 1.2
/** The nozzle crosses open air three times a layer, over so much of it, mm. */
export const waysIn = (layers: number): { readonly count: number; readonly way: number } => ({ count: 3 * layers, way: APART - DEPTH })

/**
 * Three columns on a triangular foot, a bar across each band from one to the next: travel over open air in every layer. One
 * column may carry a wedge that hangs out by 45° in each band.
 */
export function columns(kit: SolidKit, spec: TrialSpec, wedge = false): Solid {
  const places = [
    [-APART / 2, 0],
    [APART / 2, 0],
    [0, APART * 0.8],
  ] as const
  const { band, foot } = spec.size
  const pad = kit.hull(...places.map(([x, y]) => kit.box(WIDTH + 6, DEPTH + 6, Math.max(foot, 0.6)).at(x, y, 0)))
  return tower(spec, pad, (label) => {
    const posts = places.map(([x, y]) => kit.post(WIDTH, DEPTH, band).at(x, y, 0))
    const [first, ...rest] = posts as [Solid, ...Solid[]]
    const bar = kit.box(APART, 3, BAR).at(0, 0, band - BAR)
    const numbered = withNumber(kit, first.plus(bar, ...rest), label, {
      depth: DEPTH,
      foot: middleFor(band),
      x: -APART / 2,
      room: WIDTH - 1,
    })
    return wedge ? numbered.plus(hanging(kit, 3).at(APART / 2 + WIDTH / 2, 0, band - 3 - BAR)) : numbered
  })
}

/** A wedge that hangs out of a wall facing +x by 45°, so high and so far, as deep as a column. */
const hanging = (kit: SolidKit, size: number): Solid =>
  kit
    .prism(
      [
        [0, 0],
        [size, size],
        [0, size],
      ],
      DEPTH,
    )
    .turned(90, 0, 0)
    .at(0, DEPTH / 2, 0)
