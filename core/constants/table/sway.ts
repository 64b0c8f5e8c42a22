import { type Constant, ofModel } from './constant'

/** How the nozzle pushes what it prints. */
export const sway = {
  sideForce: {
    label: 'Side force of the nozzle at 50 mm/s',
    unit: 'N',
    owner: 'pair',
    scale: 'log',
    median: 0.5,
    spread: 0.5,
    source: 'Assumed.',
    measure: { how: 'Print a thin rod and find the height at which it feathers', leaves: 0.2 },
    moves: ['sway'],
  },
  pace: ofModel(
    'Growth of the side force with speed, as its power',
    '',
    0.8,
    0.2,
    'Assumed: between the drag of a melt that thins as it is sheared (about 0.4) and that of one that does not (1).',
    ['sway'],
  ),
  knock: ofModel(
    'Knocks of a nozzle that travels without lift, over the side force',
    '',
    0.5,
    0.5,
    'Assumed: practitioners lift over tall, thin parts and over supports.',
    ['sway'],
  ),
  table: ofModel('Side force on a shaky table over that on an ordinary one', '', 1.4, 0.2, 'Assumed; a steady one divides by as much.', [
    'sway',
  ]),
  damping: ofModel('Share of critical damping of a standing part', '', 0.1, 0.3, 'Assumed for printed plastic on a bed.', ['sway']),
  adhesion: ofModel('Pull that the bond to the bed bears', 'MPa', 1.5, 0.6, 'Assumed: a part that was laid on a warm, clean bed.', [
    'sway',
    'warp',
  ]),
} as const satisfies Record<string, Constant>
