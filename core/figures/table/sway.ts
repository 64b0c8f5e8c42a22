import type { Prediction } from '../../pipeline/predict'
import type { SolvedStand } from '../../pipeline/solvedSway'
import { knownOf } from '../../setup/knownSetup'
import { inWords, threeDigits } from '../../units/format'
import { asPercent, atHeight, type Figure, fixed, inPlain, mm, type Reason, row, type Told } from './figure'

const plain = { unit: 'mm', per: 1, digits: 3 }

type Swaying = Pick<Prediction, 'sway' | 'solvedSway' | 'settings'>

/** How far, or that it cannot be; less than a micrometre is none, whatever it is compared with. */
function told({ sway: { mostMm, falls, slowAboveZMm }, solvedSway, settings }: Swaying): Omit<Told, 'basis'> {
  const { part } = solvedSway ?? {}
  if (part) {
    const falling = part.mm > settings.lineWidth
    const note = `solved at z ${mm(part.atZMm, 0)}`
    return falling
      ? { value: part.mm, text: 'falls', base: 'falls', unit: '', note }
      : { value: part.mm, text: fixed(1000 * part.mm, 0), unit: 'µm', note }
  }
  if (falls)
    return {
      value: mostMm,
      text: falls.by === 'sway' ? 'falls' : 'loose',
      base: 'falls',
      unit: '',
      note: `from ${atHeight(falls.aboveZMm)}`,
    }
  if (mostMm < 0.001) return { value: 0, text: 'none', unit: '' }
  return {
    value: mostMm,
    text: fixed(1000 * mostMm, 0),
    unit: 'µm',
    ...(slowAboveZMm === undefined ? {} : { note: `slow from ${atHeight(slowAboveZMm)}` }),
  }
}

/** What a solve makes of it, beside the beam. */
function solvedTerms(what: string, stand: SolvedStand | undefined): Reason['terms'] {
  if (!stand) return []
  const { atZMm, overBeam, bodies, cells, voxelMm, mm: moved } = stand
  const pushed = bodies > 1 ? `; the weakest of ${bodies} bodies up there pushed alone` : ''
  return [
    {
      label: `${what} by finite elements at z ${mm(atZMm, 0)}`,
      value: `${mm(moved, 3)}, ${threeDigits(overBeam)} × its beam${pushed} (${cells} cells of ${mm(voxelMm, 2)})`,
    },
  ]
}

export const sway: Figure = {
  ...row(
    'sway',
    'Sway',
    'mm',
    'How far the part gives way under the nozzle’s side force, where it gives way most, and from which height on that shows. Grows with speed, with knocks where the nozzle does not lift, on a table that shakes, and in layers that are still soft; the force is assumed.',
    'less',
    (p) => told(p),
  ),
  id: 'sway',
  noun: 'sway',
  plain,
  value: ({ sway, solvedSway }) => solvedSway?.part?.mm ?? sway.mostMm,
  // Less than a micrometre is none.
  shown: (mm) => (mm < 0.001 ? 'none' : inPlain(plain)(mm)),
  explain: (p, { material, printer, constants, known }) => ({
    equation: 'δ = (F + m·a) · rocking · soft · ∫ (z − s)² / (E·I(s)) ds',
    terms: [
      { label: 'drawn there at', value: `${Math.round(p.sway.worst.speedMmS)} mm/s, ${p.sway.worst.timeS.toFixed(1)} s a layer` },
      {
        label: `side force at ${threeDigits(constants.sway.sideForce)} N for 50 mm/s`,
        value: `${p.sway.worst.forceN.toFixed(2)} N, ${knownOf({ material, known }, 'sway.sideForce').basis}`,
      },
      {
        label: 'lift on travel',
        value: p.settings.lift === 'never' ? `never: knocks add ${asPercent(constants.sway.knock)}` : inWords(p.settings.lift),
      },
      { label: 'table', value: printer.table ?? 'not known, taken for ordinary' },
      { label: `stiffness of ${material.name}`, value: `${threeDigits(material.strength.modulus)} MPa` },
      { label: 'height', value: mm(p.mesh.sizeMm[2]) },
      { label: 'a quarter of a line', value: mm(p.settings.lineWidth / 4, 2) },
      ...solvedTerms('part', p.solvedSway?.part),
      ...solvedTerms('support', p.solvedSway?.support),
    ],
    place: p.sway.falls
      ? p.sway.falls.by === 'sway'
        ? `From z ${mm(p.sway.falls.aboveZMm)} on it gives way by more than a line’s width: it will not stand.`
        : `From z ${mm(p.sway.falls.aboveZMm)} on its foot comes off the bed.`
      : p.sway.slowAboveZMm === undefined
        ? `It never gives way by a quarter of a line; most at z ${mm(p.sway.atZMm)}.`
        : `It gives way by more than a quarter of a line from z ${mm(p.sway.slowAboveZMm)} on.`,
    basis: 'assumed',
    source:
      'Euler–Bernoulli by unit load, with the smaller principal moment of every layer; one swinging mass with damping for its own frequency (any handbook). Force, knocks and the bed’s hold are assumed.',
  }),
  parts: [
    row(
      'foot-holds',
      'Foot holds',
      '×',
      'The moment that the bed holds over the largest by which the nozzle pushes. Below 1 the part comes off; a brim widens the foot.',
      'more',
      ({ sway: { footMargin } }) => ({
        value: Number.isFinite(footMargin) ? footMargin : 0,
        text: Number.isFinite(footMargin) ? (footMargin < 10 ? fixed(footMargin, 1) : fixed(footMargin, 0)) : 'enough',
        unit: Number.isFinite(footMargin) ? '×' : '',
      }),
    ),
    row(
      'sway-support',
      'Unsteadiest support',
      'mm',
      'How far a support by itself gives way under the nozzle. More than a line’s width may break it.',
      'less',
      ({ supportSway, solvedSway }) => {
        const most = solvedSway?.support?.mm ?? supportSway.mostMm
        const none = most < 0.001
        return {
          value: none ? 0 : most,
          text: none ? 'none' : fixed(most, 2),
          unit: none ? '' : 'mm',
          ...(supportSway.looseAboveZMm !== undefined
            ? { note: `foot loose from ${atHeight(supportSway.looseAboveZMm)}` }
            : none
              ? {}
              : { note: `${solvedSway?.support ? 'solved ' : ''}${atHeight(supportSway.atZMm)}` }),
        }
      },
    ),
  ],
}
