import type { Constant } from './constant'

const string = (label: string, unit: string, owner: Constant['owner'], median: number, spread: number): Constant => ({
  label,
  unit,
  owner,
  scale: 'log',
  median,
  spread,
  source: 'Semi-empirical.',
  moves: ['strings', 'surface'],
})

/** What a nozzle draws over open air. */
export const strings = {
  ooze: {
    ...string('Strings of a 10 mm way, nothing pulled back, of this spool', '', 'spool', 1, 0.7),
    measure: { how: 'Dry it, then print a retraction tower', leaves: 0.3 },
  },
  oozePetg: string('PETG strings, against PLA', '', 'material', 2.5, 0.3),
  oozeFlexible: string('Flexible filament strings, against PLA', '', 'material', 3, 0.3),
  oozeNylon: string('Nylon strings, against PLA', '', 'material', 2, 0.3),
  oozeAbs: string('ABS strings, against PLA', '', 'material', 0.8, 0.3),
  slackDirect: string('Pull that leaves a third of the strings, fed directly', 'mm', 'printer', 0.35, 0.35),
  slackTube: string('Pull that leaves a third of the strings, fed through a tube', 'mm', 'printer', 1.6, 0.35),
  stays: string('Strings that no pull takes away', '', 'pair', 0.03, 0.5),
  wipe: string('Wipe that leaves a third of the strings', 'mm', 'model', 0.9, 0.4),
  coast: string('Coasting that leaves a third of the strings', 'mm', 'model', 0.4, 0.4),
  perDegree: string('Strings per °C over the middle of the label', '/°C', 'material', 0.03, 0.4),
  wet: string('Strings of filament that has taken up all the water it can, more than dry', '', 'material', 3, 0.5),
  // Both schools lie within its doubt: full fan freezes strings (CP-R9), or breaks none.
  freezing: {
    ...string('Strings under full fan against none, as a logarithm', '', 'pair', 0.4, 0.6),
    scale: 'plain',
    source: 'Common practice, two schools (CP-R9, S1).',
    measure: { how: 'Print a fan test', leaves: 0.2 },
  },
  leastTravel: string('Travel over which no string forms', 'mm', 'model', 1, 0.3),
} as const satisfies Record<string, Constant>
