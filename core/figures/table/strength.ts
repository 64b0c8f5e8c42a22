import type { Unfit } from '../../physics/strength/fitness'
import { offAxisStrength } from '../../physics/strength/oblique'
import { wholeCases } from '../../physics/strength/pickedCases'
import type { Purpose } from '../../physics/strength/purpose'
import type { LoadKind } from '../../physics/strength/sectionLoads'
import { type LoadCase, type LoadFigure, loadCases } from '../../physics/strength/strengthFigures'
import { formatForce, splitForce, threeDigits } from '../../units/format'
import { asPercent, atHeight, type Figure, type FigureRow, fixed, mm, percent, row, type Told } from './figure'
import { solvedReason } from './solvedReason'
import { solvedLoad, statedLoad } from './stated'

const kindWords: Readonly<Record<LoadKind, readonly [label: string, help: string]>> = {
  pull: ['Pull', 'Gripped at both ends of this axis and pulled until the weakest section gives.'],
  bend: ['Bend', 'Held at the low end of this axis and pressed sideways at the far end, in the weaker direction.'],
  bendHigh: ['Bend, held high', 'Held at the high end of this axis and pressed sideways at the low end, in the weaker direction.'],
  threePoint: ['Three points', 'Resting on both ends of this axis and pressed in the middle, in the weaker direction.'],
  crush: ['Crush', 'Pressed together along this axis until a section gives or the part buckles.'],
}

/** "bend along Y" */
export const wordsOf = ({ kind, along }: { readonly kind: LoadKind; readonly along: string }): string =>
  `${kindWords[kind][0].toLowerCase()} along ${along}`

/** "bend along Y", or the name of the case. */
export const solvedWords = ({ axis, name }: { readonly axis?: string; readonly name?: string }, { load }: Purpose): string =>
  name ?? wordsOf({ kind: load.kind, along: axis?.toUpperCase() ?? '' })

const loadEquations: Readonly<Record<LoadKind, string>> = {
  pull: '1/F = (1/A + K·e·c/I) / σ, least along the part',
  bend: 'F = σ·I / (c·arm), at most A·τ/1.5, least along the part',
  bendHigh: 'F = σ·I / (c·arm), at most A·τ/1.5, least along the part',
  threePoint: 'F = 2·σ·I / (c·distance to the nearer support), at most 2·A·τ/1.5, least along the part',
  crush: '1/F = (1/A + K·e·c/I) / σ, less what buckles: F·(1 − F·L²/(4π²·E·I))',
}

const loadWords: Readonly<Record<LoadKind, string>> = {
  pull: 'pulled, gripped at both ends,',
  bend: 'held at the low end, pressed at the far one,',
  bendHigh: 'held at the high end, pressed at the low one,',
  threePoint: 'on two supports, pressed in the middle,',
  crush: 'pressed together',
}

const noteOf = ({ by, unfit }: LoadFigure): Pick<Told, 'note'> =>
  unfit ? { note: unfitWords[unfit][0] } : by === 'buckling' ? { note: 'buckles' } : by === 'deflection' ? { note: 'gives way' } : {}

const load = (id: LoadCase): FigureRow => {
  const [kind, axis] = [id.slice(0, -1) as LoadKind, id.slice(-1)]
  return {
    id,
    label: `${kindWords[kind][0]} ${axis}`,
    help: kindWords[kind][1],
    base: 'N',
    better: 'more',
    of: (p) => ({
      value: p.strength[id].loadN,
      ...splitForce(p.strength[id].loadN),
      ...noteOf(p.strength[id]),
      basis: p.strength[id].basis,
    }),
  }
}

/** Why sections say nothing about a load: beside the dash, and in full. */
export const unfitWords: Readonly<Record<Unfit, readonly [note: string, why: string]>> = {
  apart: ['in pieces', 'It is not in one piece from hold to load.'],
  turnsBack: ['turns back', 'It turns back on itself between hold and load, so sections across that way are not those of a beam.'],
  frame: [
    'a frame',
    'Limbs run beside each other from hold to load, as in a ring, a frame or an open shell; each bends by itself, and sections through all of them say too much.',
  ],
  stub: ['no beam', 'It is shorter along this load than it is thick or wide, so it does not bend as a beam.'],
}

const stiffness = (perMm: number): { value: number; text: string; unit: string } => ({
  value: perMm,
  text: Number.isNaN(perMm) ? '–' : perMm >= 100 ? fixed(perMm, 0) : perMm.toPrecision(3),
  unit: Number.isNaN(perMm) ? '' : 'N/mm',
})

export const strength: Figure = {
  id: 'strength',
  label: 'Strength',
  help: 'Under the load that the part is for, chosen above; of a flexible part, how stiff it is against that load. An estimate for one material and one load, never a rating: test the real part with a margin, and never lift or hang loads over people with it.',
  base: 'N',
  better: 'more',
  of: (p, purpose) => {
    const stated = statedLoad(p, purpose)
    const { basis } = stated
    const solved = solvedLoad(p, purpose)
    if (solved) {
      const note = `${solvedWords(solved, purpose)}, solved`
      if (Number.isNaN(solved.failureN))
        return { value: solved.factor, text: threeDigits(solved.factor), unit: '× its load', note, basis, base: '×' }
      if (p.flexible) return { ...stiffness(solved.stiffnessNmm), note: `gives way, ${note}`, basis, base: 'N/mm' }
      return { value: solved.failureN, ...splitForce(solved.failureN), note, basis }
    }
    // What sections say is of another load than one that is picked face by face.
    if (wholeCases(purpose).length > 0) return { value: Number.NaN, text: '–', unit: '', note: 'not solved yet', basis }
    if (stated.unfit) return { value: Number.NaN, text: '–', unit: '', note: `${unfitWords[stated.unfit][0]}, ${wordsOf(stated)}`, basis }
    const note = `${wordsOf(stated)}, by sections`
    if (p.flexible) return { ...stiffness(stated.stiffnessNmm), note: `gives way, ${note}`, basis, base: 'N/mm' }
    return { value: stated.loadN, ...splitForce(stated.loadN), note, basis }
  },
  noun: 'strength',
  plain: { unit: 'N', per: 1, digits: 0 },
  value: (p, purpose) => {
    if (wholeCases(purpose).length > 0) return solvedLoad(p, purpose)?.failureN ?? Number.NaN
    // Of a soft part it counts how far it gives way, and it does so further than a solve follows.
    return (p.flexible ? undefined : solvedLoad(p, purpose)?.failureN) ?? statedLoad(p, purpose).loadN
  },
  shown: formatForce,
  limit: { name: 'minLoadN', words: (wanted) => `at least ${wanted}` },
  explain: (p, setup, purpose) => {
    const solved = solvedLoad(p, purpose)
    if (solved) return solvedReason(solved, p, setup, solvedWords(solved, purpose), statedLoad(p, purpose))
    const { material, constants } = setup
    const { kind, along, acrossLayers, loadN, weakestAtMm, stiffnessNmm, by, basis, unfit } = statedLoad(p, purpose)
    const { heldTo, loadedFrom, axis, elevationDeg } = purpose.load
    const place = along.length === 1 ? `${along.toLowerCase()} = ${mm(weakestAtMm)}` : `${mm(weakestAtMm)} along that direction`
    return {
      equation: by === 'buckling' ? 'F = π²·E·I / L²' : loadEquations[kind],
      terms: [
        { label: 'load', value: `${loadWords[kind]} along ${along}` },
        { label: 'held up to, loaded from', value: `${heldTo} %, ${loadedFrom} % of the length` },
        { label: `strength of ${material.name} along its lines`, value: `${threeDigits(material.strength.inLayer)} MPa` },
        ...(acrossLayers ? [{ label: 'bond between layers, worst', value: asPercent(p.bond.worst) }] : []),
        ...(axis === 'free' && acrossLayers
          ? [
              {
                label: `strength at ${Math.abs(elevationDeg)}° to sound layers`,
                value: `${offAxisStrength((elevationDeg * Math.PI) / 180, material.strength.inLayer, p.bond.mean, constants.strength.shear).toFixed(1)} MPa (Tsai–Hill)`,
              },
            ]
          : []),
        { label: 'stiffness of the material', value: `${threeDigits(material.strength.modulus)} MPa` },
        { label: 'walls', value: `${p.settings.wallCount} × ${p.settings.lineWidth} mm` },
        { label: 'infill', value: `${p.settings.infillDensity} % ${p.settings.infillPattern}` },
        { label: 'lines across the load bear', value: `${asPercent(constants.strength.acrossLines)} of those along it` },
        { label: 'gives way before it fails by', value: stiffnessNmm > 0 ? mm(loadN / stiffnessNmm, 2) : '–' },
      ],
      place: unfit
        ? `${unfitWords[unfit][1]} There is no number for it.`
        : by === 'deflection'
          ? `A soft part: told is the load that moves it by a tenth of its arm; its weakest section lies at ${place}.`
          : by === 'buckling'
            ? `It buckles before it crushes; slenderest at ${place}.`
            : `The weakest section lies at ${place}.`,
      basis,
      source:
        'Euler–Bernoulli, bent beams by Wilson & Quereau, columns by Euler and Johnson, thin walls by effective width; sections from the lines that are laid, e how far off the line from hold to load; infill by Gibson & Ashby 1997; all from memory. Holes, notches and corners are not in it. An estimate for one material and one load, never a rating.',
    }
  },
  parts: [
    row('stiffness', 'Stiffness', 'N/mm', 'Force for each millimetre that the part gives way where it is loaded.', 'more', (p, purpose) => {
      const { stiffnessNmm } = statedLoad(p, purpose)
      return stiffness(stiffnessNmm)
    }),
    ...loadCases.filter((name) => /^(pull|bend|crush)[XYZ]$/.test(name)).map(load),
    row(
      'bond',
      'Bond between layers',
      '',
      'As a share of the strength within a layer, on average; noted is the worst. From temperature, fan, layer time, melt load and missing plastic; semi-empirical.',
      'more',
      ({ bond }) => ({ ...percent(bond.mean), note: `${fixed(100 * bond.worst, 0)} at ${atHeight(bond.worstAtZMm)}` }),
    ),
  ],
}
