import type { Constant } from './constant'

const times = ['time', 'unslowed', 'cost'] as const

/** Of the print as a whole. */
export const print = {
  pace: {
    label: 'How your machine keeps its times',
    unit: '',
    owner: 'printer',
    scale: 'log',
    median: 1,
    spread: 0.07,
    source: 'Assumed: firmware plans as it is told, up to what it keeps to itself.',
    measure: { how: 'Log the real time of a few prints', leaves: 0.02 },
    moves: times,
  },
  flow: {
    label: 'Diameter and flow of the filament',
    unit: '',
    owner: 'spool',
    scale: 'log',
    median: 1,
    spread: 0.03,
    source: 'Common practice: filament is within 0.03 to 0.05 mm of its diameter, and flow within a few per cent.',
    measure: { how: 'Weigh a print against its prediction', leaves: 0.01 },
    moves: ['filament', 'cost'],
  },
} as const satisfies Record<string, Constant>
