import { knownOf } from '../../setup/knownSetup'
import { type Figure, fixed, inPlain, mm, row } from './figure'

const plain = { unit: 'mm', per: 1, digits: 2 }
const words = { shrinkage: 'shrinks', foot: 'foot spreads', hole: 'hole narrow' } as const

export const fit: Figure = {
  ...row(
    'fit',
    'Off its size',
    'mm',
    'The largest of what shrinkage takes off its longest side, what the foot spreads by, and what its smallest round hole is too narrow by: whether it fits. Semi-empirical.',
    'less',
    ({ fit }) => ({ value: fit.worstMm, text: fixed(fit.worstMm, 2), unit: 'mm', note: words[fit.worst] }),
  ),
  id: 'fit',
  noun: 'fit',
  plain,
  value: (p) => p.fit.worstMm,
  shown: inPlain(plain),
  explain: (p, { material, constants, known }) => ({
    equation: 'α·(softening − 25 °C)·L; e^((bed − softening)/15 °C) of the foot; chords + pull + shrinkage of a hole',
    terms: [
      {
        label: `${material.name} shrinks by`,
        value: `${(100 * p.fit.shrinkShare).toFixed(2)} %, ${mm(p.fit.shrinkMm, 2)} of its longest side`,
      },
      { label: 'the foot spreads to every side by', value: mm(p.fit.flareMm, 2) },
      p.fit.hole
        ? { label: `its smallest round hole, ${mm(p.fit.hole.diameterMm)} across, is too narrow by`, value: mm(p.fit.hole.underMm, 2) }
        : { label: 'round holes', value: 'none that stands upright' },
      { label: 'pull of a hole’s wall', value: `${mm(constants.fit.pull, 2)}, ${knownOf({ material, known }, 'fit.pull').basis}` },
    ],
    place:
      p.fit.worst === 'hole'
        ? 'Drill it out, or make it so much wider in the model.'
        : p.fit.worst === 'foot'
          ? 'Bevel the foot in the model, or cool the bed once the first layer holds.'
          : 'Scale the model by as much.',
    basis: 'assumed',
    source: 'Linear expansion (any handbook), its values from memory; flare and pull are semi-empirical.',
  }),
  parts: [
    row('fit-shrinkage', 'Shrinks', 'mm', 'What its longest side loses from softening to the room.', 'less', ({ fit }) => ({
      value: fit.shrinkMm,
      text: fixed(fit.shrinkMm, 2),
      unit: 'mm',
      note: `${fixed(100 * fit.shrinkShare, 2)} %`,
    })),
    row(
      'fit-foot',
      'Foot spreads',
      'mm',
      'To every side: the first layer is pressed flat and stays soft on a warm bed.',
      'less',
      ({ fit }) => ({
        value: fit.flareMm,
        text: fixed(fit.flareMm, 2),
        unit: 'mm',
      }),
    ),
    row('fit-hole', 'Hole too narrow', 'mm', 'Its smallest round hole that stands upright, across.', 'less', ({ fit: { hole } }) => ({
      value: hole?.underMm ?? 0,
      text: hole ? fixed(hole.underMm, 2) : 'none',
      unit: hole ? 'mm' : '',
      ...(hole ? { note: `of ${fixed(hole.diameterMm, 1)}` } : {}),
    })),
  ],
}
