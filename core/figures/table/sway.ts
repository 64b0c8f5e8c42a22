import { atHeight, type Figure, fixed, inPlain, mm, row } from './figure'

const plain = { unit: 'mm', per: 1, digits: 3 }

export const sway: Figure = {
  ...row(
    'sway',
    'Sway',
    'mm',
    'How far the part gives way at its top under the nozzle’s side force of half a newton (assumed), and from which height on that shows.',
    'less',
    ({ sway }) => ({
      // Less than a micrometre is none, whatever it is compared with.
      value: sway.topMm < 0.001 ? 0 : sway.topMm,
      text: sway.topMm < 0.001 ? 'none' : fixed(1000 * sway.topMm, 0),
      unit: sway.topMm < 0.001 ? '' : 'µm',
      ...(sway.slowAboveZMm === undefined ? {} : { note: `slow from ${atHeight(sway.slowAboveZMm)}` }),
    }),
  ),
  id: 'sway',
  noun: 'sway',
  plain,
  value: (p) => p.sway.topMm,
  // Less than a micrometre is none.
  shown: (mm) => (mm < 0.001 ? 'none' : inPlain(plain)(mm)),
  explain: (p, { material, constants }) => ({
    equation: 'δ = ∫ F·(z − s)² / (E·I(s)) ds',
    terms: [
      { label: 'side force F', value: `${constants.sway.sideForce} N, assumed` },
      { label: `stiffness of ${material.name}`, value: `${material.strength.modulus} MPa` },
      { label: 'height', value: mm(p.mesh.sizeMm[2]) },
      { label: 'a quarter of a line', value: mm(p.settings.lineWidth / 4, 2) },
    ],
    place:
      p.sway.slowAboveZMm === undefined
        ? 'It never gives way by a quarter of a line.'
        : `It gives way by more than a quarter of a line from z ${mm(p.sway.slowAboveZMm)} on.`,
    basis: 'assumed',
    source: 'Euler–Bernoulli by unit load, with the smaller principal moment of every layer.',
  }),
  parts: [
    row(
      'sway-support',
      'Unsteadiest support',
      'mm',
      'How far a support by itself gives way under the nozzle. More than a line’s width may break it.',
      'less',
      ({ supportSway }) => ({
        value: supportSway.mostMm < 0.001 ? 0 : supportSway.mostMm,
        text: supportSway.mostMm < 0.001 ? 'none' : fixed(supportSway.mostMm, 2),
        unit: supportSway.mostMm < 0.001 ? '' : 'mm',
        ...(supportSway.mostMm < 0.001 ? {} : { note: atHeight(supportSway.atZMm) }),
      }),
    ),
  ],
}
