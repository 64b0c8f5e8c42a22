import type { Solid, SolidKit } from '../solids/solidKernel'
import type { TrialSpec } from '../spec/trial'
import { middleFor, tower, withNumber } from './tower'
import { wedge } from './wedge'

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
export function columns(kit: SolidKit, spec: TrialSpec, hangs: 'nothing' | 'wedge' = 'nothing'): Solid {
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
    return hangs === 'wedge' ? numbered.plus(wedge(kit, 3, 3, DEPTH).at(APART / 2 + WIDTH / 2, 0, band - 3 - BAR)) : numbered
  })
}
