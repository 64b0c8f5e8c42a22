import type { Constant } from './constant'

/** How the nozzle pushes what it prints. */
export const sway = {
  sideForce: {
    label: 'Side force of the nozzle',
    unit: 'N',
    owner: 'pair',
    scale: 'log',
    median: 0.5,
    spread: 0.5,
    source: 'Assumed.',
    measure: { how: 'Print a thin rod and find the height at which it feathers', leaves: 0.2 },
    moves: ['sway'],
  },
} as const satisfies Record<string, Constant>
