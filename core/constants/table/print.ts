import type { Constant } from './constant'

const times = ['time', 'unslowed', 'cost'] as const

/** Slower or faster layers cool, bond, shine and sway otherwise. */
const MOVED_BY_PACE = ['time', 'unslowed', 'cost', 'surface', 'filament', 'gloss', 'strength', 'cooling', 'sway', 'strings'] as const

/** Of the print as a whole. */
export const print = {
  pace: {
    label: 'How your machine keeps its times',
    unit: '',
    owner: 'printer',
    scale: 'log',
    median: 1,
    spread: 0.04,
    source: 'Assumed: firmware plans as it is told, up to what it keeps to itself.',
    measure: { how: 'Log the real time of a few prints', leaves: 0.02 },
    moves: times,
  },
  acceleration: {
    label: 'Acceleration that your machine keeps of what it is told',
    unit: '',
    owner: 'printer',
    scale: 'log',
    median: 1,
    spread: 0.2,
    source: 'Assumed: belts, smoothing and limits that the firmware does not tell of.',
    measure: { how: 'Log the real time of a few prints', leaves: 0.08 },
    moves: MOVED_BY_PACE,
  },
  start: {
    label: 'What the start takes beyond what its record tells',
    unit: 's',
    owner: 'printer',
    scale: 'plain',
    median: 0,
    spread: 60,
    source: 'Assumed: heating, homing and purging as the record has them, give or take a minute.',
    measure: { how: 'Log the real time of a few prints', leaves: 25 },
    moves: ['time', 'cost'],
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
