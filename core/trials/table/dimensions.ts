import type { Evidence } from '../../learning/evidence'
import { resolveSettings } from '../../setup/resolve'
import { expansionOf, heatOf } from '../../shelf/heat'
import { measure, numberIn } from '../spec/question'
import type { Advice, TrialKind } from './kind'

/** Sides and thickness of the plate, and the box of one line, mm. */
const [LONG, SHORT, THICK, BOX] = [80, 30, 6, 20]
/** Diameters of the holes from left to right, mm. */
const HOLES = [5, 8, 12] as const
/** Sides of the thin box, each with a caliper reading of its own. */
const WALLS = ['front', 'right', 'back', 'left'] as const
/** Walls of one box that differ by more than this share of a line are not told by a mean. Assumed. */
const UNEVEN = 0.1
/** Temperature at which things are measured, °C: as `physics/fit/fit.ts` has it. */
const ROOM = 25
/** What a caliper on plastic scatters by: of shrinkage and of what a hole lacks as logarithms, of a wall's thickness likewise. Assumed. */
const [SHRINK_NOISE, HOLE_NOISE, FLARE_NOISE, WALL_NOISE] = [0.25, 0.3, 0.3, 0.02]

export const dimensions: TrialKind = {
  id: 'dimensions',
  name: 'Dimensions',
  tells: 'how much it shrinks, how much narrower holes come out, and whether flow is right',
  how: 'Let it cool, then weigh it, then measure with a caliper: the long and the short side well above the foot, the foot itself, the holes, and the wall of the thin box on all four sides.',
  narrows: ['fit.shrinkage', 'fit.pull', 'fit.flare', 'print.flow'],
  advises: ['flow'],
  owner: 'spool',
  size: { band: THICK, foot: 0, length: LONG },
  bandsRun: 'up',
  seenFrom: 'above',
  values: () => ({ wallCount: 3, infillDensity: 20, topLayers: 4, bottomLayers: 4, supports: 'off', brim: 'none' }),
  shape(kit, spec, setup) {
    const { lineWidth } = resolveSettings(setup, spec.values).settings
    const holes = HOLES.map((diameter, i) => kit.cone(diameter / 2, diameter / 2, THICK + 2).at((i - 1) * 24, 0, -1))
    const plate = kit.box(LONG, SHORT, THICK).minus(...holes)
    const thin = kit.box(BOX, BOX, 14).minus(kit.box(BOX - 2 * lineWidth, BOX - 2 * lineWidth, 14).at(0, 0, 0.8))
    return plate.plus(thin.at(0, SHORT / 2 + BOX / 2 + 5, 0))
  },
  questions: {
    band: [],
    whole: [
      measure('long', `Long side (${LONG})`, 'mm', LONG - 5, LONG + 5),
      measure('short', `Short side (${SHORT})`, 'mm', SHORT - 5, SHORT + 5),
      measure('foot', 'Short side at its foot', 'mm', SHORT - 5, SHORT + 5),
      ...HOLES.map((hole) => measure(`hole${hole}`, `Hole of ${hole}`, 'mm', hole - 3, hole + 2)),
      ...WALLS.map((side) => measure(`wall-${side}`, `Thin box, ${side} wall`, 'mm', 0.05, 5)),
      measure('weight', 'Weight of the whole', 'g', 0.1, 5000),
    ],
  },
  judge({ spec, setup, whole, foretold }) {
    const { lineWidth, flow } = resolveSettings(setup, spec.values).settings
    const [long, short, foot] = ['long', 'short', 'foot'].map((id) => numberIn(whole, id))
    const walls = WALLS.flatMap((side) => numberIn(whole, `wall-${side}`) ?? [])
    const wall = walls.length === 0 ? undefined : walls.reduce((sum, own) => sum + own, 0) / walls.length
    const evidence: Evidence[] = []
    const advice: Advice[] = []
    const words: string[] = []
    const warnings: string[] = []
    if (long !== undefined && short !== undefined) {
      // What both sides lack alike is lines that are too wide or too thin; what grows with the length is shrinkage.
      const share = (LONG - long - (SHORT - short)) / (LONG - SHORT)
      words.push(`shrinks by ${(100 * share).toFixed(2)} %`)
      const expected = expansionOf(setup.material) * Math.max(1, heatOf(setup.material).softening - ROOM)
      if (share > 0) evidence.push({ on: 'constant', constant: 'fit.shrinkage', values: [share / expected], noise: SHRINK_NOISE })
      else warnings.push('The long side lacks no more than the short one: measure both again.')
    }
    if (short !== undefined && foot !== undefined) {
      const flare = (foot - short) / 2
      words.push(`its foot spreads by ${flare.toFixed(2)} mm`)
      if (flare > 0.01) evidence.push({ on: 'constant', constant: 'fit.flare', values: [flare], noise: FLARE_NOISE })
    }
    const pulls = HOLES.flatMap((hole) => {
      const measured = numberIn(whole, `hole${hole}`)
      if (measured === undefined) return []
      words.push(`a hole of ${hole} comes out ${(hole - measured).toFixed(2)} mm narrower`)
      return [(hole - measured) / (1 + lineWidth / hole)]
    }).filter((pull) => pull > 0.01)
    if (pulls.length > 0) evidence.push({ on: 'constant', constant: 'fit.pull', values: pulls, noise: HOLE_NOISE })
    const weight = numberIn(whole, 'weight')
    if (weight !== undefined && foretold) {
      words.push(`it weighs ${weight} g for ${foretold.massG.toFixed(1)} foretold`)
      // As it would be with nothing known of its flow: that is what the scale is asked about.
      evidence.push({ on: 'weight', predictedG: foretold.massG / (foretold.inForce['print.flow'] ?? 1), weighedG: weight })
    }
    if (wall !== undefined) {
      const factor = wall / lineWidth
      words.push(`flow is ${(100 * factor).toFixed(1)} % of what was asked`)
      evidence.push({ on: 'constant', constant: 'print.flow', values: walls.map((own) => own / lineWidth), noise: WALL_NOISE })
      if (Math.max(...walls) - Math.min(...walls) > UNEVEN * lineWidth)
        warnings.push('Its four walls differ by more than a tenth: the axes pull unevenly, or the caliper tilted. Measure again.')
      const right = Math.round(flow / factor)
      if (Math.abs(factor - 1) > 0.02) advice.push({ of: 'spool', setting: 'flow', value: Math.min(150, Math.max(50, right)) })
      if (Math.abs(factor - 1) > 0.1)
        warnings.push('More than a tenth off: check the extruder’s steps and the filament’s diameter before the flow.')
    }
    const found = words.join('; ')
    return {
      found: words.length === 0 ? 'Nothing was measured.' : `${found[0]!.toUpperCase()}${found.slice(1)}.`,
      ...(words.length === 0 ? {} : { short: wall === undefined ? 'measured' : `flow ${((100 * wall) / lineWidth).toFixed(0)} %` }),
      evidence,
      advice,
      next: { kind: 'barsLying', why: 'Its size is known: how strong it is.' },
      warnings,
    }
  },
}
