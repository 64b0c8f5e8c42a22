import { type Constant, ofModel } from './constant'

/** How a print keeps to its size. */
export const fit = {
  shrinkage: {
    label: 'Shrinkage against what its expansion says',
    unit: '',
    owner: 'material',
    scale: 'log',
    median: 1,
    spread: 0.25,
    source: 'Assumed: linear expansion from softening down to the room.',
    measure: { how: 'Measure a printed bar with a calliper', leaves: 0.08 },
    moves: ['fit', 'warp'],
  },
  flare: {
    ...ofModel('Spread of the foot on a bed as warm as softening', 'mm', 0.1, 0.4, 'Semi-empirical.', ['fit']),
    measure: { how: 'Measure the foot of a printed block', leaves: 0.15 },
  },
  pull: {
    ...ofModel(
      'What the wall of a hole is pulled inward by, across',
      'mm',
      0.12,
      0.4,
      'Semi-empirical: holes come out one to two tenths too narrow.',
      ['fit'],
    ),
    measure: { how: 'Measure a printed hole', leaves: 0.15 },
  },
  warps: ofModel(
    'Warping against what pull and hold say',
    '',
    0.45,
    0.5,
    'Semi-empirical: PLA of 100 mm lies flat, ABS of it does not in the open (CP-M1, CP-M6).',
    ['warp'],
  ),
} as const satisfies Record<string, Constant>
