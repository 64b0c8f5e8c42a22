import { asCheck, type Check } from '../checks/check'
import type { Purpose } from '../physics/strength/purpose'
import type { Prediction } from '../pipeline/predict'
import { formatForce } from '../units/format'
import { solvedLoad, statedLoad } from './table/stated'

/** Where finite elements say less than this share of what sections say, something is there that sections do not see. Assumed. */
const UNSEEN = 0.8
/** More of the plastic than this that hangs on nothing is told. */
const HANGING = 0.03

/** What a solved load shows that no setting does by itself: layers that part first, walls that buckle, what sections do not see. */
export function solvedChecks(p: Prediction, purpose: Purpose): Check[] {
  return [...swayChecks(p), ...loadChecks(p, purpose)]
}

/** What stands and sways more than its sections say: leaning, hollow, or several bodies of which the nozzle pushes one. */
function swayChecks({ sway, solvedSway, settings: { lineWidth } }: Prediction): Check[] {
  const { part } = solvedSway ?? {}
  // What the beam tells already is told.
  if (!part || part.mm <= lineWidth / 4 || sway.slowAboveZMm !== undefined) return []
  return [
    asCheck(
      { id: 'sways-more-than-a-beam', severity: 'caution' },
      {
        atZMm: part.atZMm,
        evidence: `Solved, it gives way under the nozzle by ${part.mm.toFixed(2)} mm at z ${part.atZMm.toFixed(0)} mm, ${part.overBeam.toFixed(1)} × what its sections say.`,
        means:
          part.bodies > 1
            ? `${part.bodies} bodies stand alone up there, and the nozzle pushes one of them at a time.`
            : 'It leans, or is weaker than its level cuts look: its edge feathers there.',
        todo: 'Lift on travel, give each layer more time, lay it down, or join the bodies.',
      },
    ),
  ]
}

function loadChecks(p: Pick<Prediction, 'solved' | 'strength' | 'oblique' | 'own'>, purpose: Purpose): Check[] {
  const solved = solvedLoad(p, purpose)
  if (!solved) return []
  const { by, at, failureN, factor, dropped } = solved
  const borne = Number.isNaN(failureN) ? `${factor.toFixed(2)} × its loads` : formatForce(failureN)
  const place = `x ${at[0].toFixed(0)}, y ${at[1].toFixed(0)}, z ${at[2].toFixed(0)} mm`.replaceAll('-', '−')
  const wanted = purpose.limits.minLoadN
  const misses = wanted !== undefined && failureN < wanted
  const sections = purpose.cases.length === 0 ? statedLoad(p, purpose) : undefined
  return [
    ...(by === 'layers'
      ? [
          asCheck(
            { id: 'layers-part-first', severity: misses ? 'caution' : 'note' },
            {
              evidence: `Solved, its layers part first, at ${borne}.`,
              means: `At ${place} the load pulls them apart or shears them, and only their bond bears it.`,
              todo: 'Lay it so that layers run along the load (the six orientations tell by how much), or print hotter, with less fan.',
              atZMm: at[2],
            },
          ),
        ]
      : []),
    ...(by === 'buckling'
      ? [
          asCheck(
            { id: 'buckles', severity: misses ? 'caution' : 'note' },
            {
              evidence: `Pressed, it buckles at ${borne} before it is crushed.`,
              means: `It gives way sideways at ${place}.`,
              todo: 'One wall more, or infill that props the walls.',
              atZMm: at[2],
            },
          ),
        ]
      : []),
    ...(sections && !sections.unfit && failureN < UNSEEN * sections.loadN
      ? [
          asCheck(
            { id: 'more-than-a-beam', severity: 'note' },
            {
              evidence: `Solved, it bears ${borne}; its sections say ${formatForce(sections.loadN)}.`,
              means: `A notch, a corner, a thin web or a twist at ${place} bears more than it would in a straight beam.`,
              todo: 'Look at the place in Load; round it, or give it a place of its own with more walls.',
              atZMm: at[2],
            },
          ),
        ]
      : []),
    ...(dropped > HANGING
      ? [
          asCheck(
            { id: 'hangs-on-nothing', severity: 'note' },
            {
              evidence: `${(100 * dropped).toFixed(0)} % of the plastic hangs on nothing that is held.`,
              means: 'It was left out of what was solved.',
              todo: 'Bodies that only touch, or lines that meet nothing: look at the layers there.',
            },
          ),
        ]
      : []),
  ]
}
