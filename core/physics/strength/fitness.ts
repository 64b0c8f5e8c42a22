import type { Cuts, Spans } from './beam'
import type { LoadKind } from './sectionLoads'

/** Why sections say nothing about a load. */
export type Unfit = 'apart' | 'turnsBack' | 'frame' | 'stub'

/** Limbs that run beside each other for longer than so many times their thickness bend each by itself. */
const LONG = 3
/** Limbs that spread by more than this share along their run are bowed, and bend when they are pulled. */
const BOWED = 0.25
/** An arm shorter than this share of the thickness that is bent, or of the width, is no beam. */
const [STUBBY, BROAD] = [0.5, 0.25] as const

/**
 * Whether the sections of a part are those of a beam, as their formulas ask: one piece, from hold to load, in one limb, and
 * longer than it is thick or very wide. Nothing where they are.
 */
export function unfitFor(cuts: Cuts, kind: LoadKind, spans: Spans): Unfit | undefined {
  const judged = [...cuts.at.keys()].filter((i) => spans.to[i]! > spans.from[i]! + 1e-9)
  if (judged.length === 0 || judged.some((i) => !(cuts.area[i]! > 0))) return 'apart'
  if (cuts.bearing?.reaches === false) return 'turnsBack'
  const bends = kind !== 'pull' && kind !== 'crush'
  if (cuts.bearing && isFrame(cuts, cuts.bearing, judged, spans, bends)) return 'frame'
  return bends && isStub(cuts, judged, spans) ? 'stub' : undefined
}

function isFrame(
  cuts: Cuts,
  { limbs, solid }: NonNullable<Cuts['bearing']>,
  judged: readonly number[],
  { from, to }: Spans,
  bends: boolean,
) {
  const spread = (i: number): number => Math.sqrt((cuts.second[0][i]! + cuts.second[1][i]!) / cuts.area[i]!)
  let run = { length: 0, thickness: 0, least: Infinity, most: 0 }
  for (const i of judged) {
    if (limbs[i]! < 2) {
      run = { length: 0, thickness: 0, least: Infinity, most: 0 }
      continue
    }
    run = {
      length: run.length + to[i]! - from[i]!,
      thickness: Math.max(run.thickness, Math.sqrt(solid[i]! / limbs[i]!)),
      least: Math.min(run.least, spread(i)),
      most: Math.max(run.most, spread(i)),
    }
    if (run.length > LONG * run.thickness && (bends || run.least < (1 - BOWED) * run.most)) return true
  }
  return false
}

function isStub({ second: [uu, vv], reach }: Cuts, judged: readonly number[], { low, high }: Spans): boolean {
  return judged.some((i) => {
    const [thick, wide] = uu[i]! < vv[i]! ? [reach[0][i]!, reach[2][i]!] : [reach[2][i]!, reach[0][i]!]
    return high - low < 2 * Math.max(STUBBY * thick, BROAD * wide)
  })
}
