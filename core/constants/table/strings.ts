import type { Constant } from './constant'

const string = (label: string, unit: string, owner: Constant['owner'], median: number, spread: number): Constant => ({
  label,
  unit,
  owner,
  scale: 'log',
  median,
  spread,
  source: 'Semi-empirical.',
  moves: ['strings'],
})

/** What a nozzle draws over open air. */
export const strings = {
  ooze: { ...string('Ooze of this spool', '', 'spool', 1, 0.7), measure: { how: 'Dry it, then print a retraction tower', leaves: 0.3 } },
  pulledDirect: string('Strings with filament pulled back, fed directly', '', 'printer', 0.04, 0.5),
  pulledTube: string('Strings with filament pulled back, fed through a tube', '', 'printer', 0.08, 0.5),
  perDegree: string('Ooze per °C over the middle of the label', '/°C', 'material', 0.03, 0.4),
  leastOoze: string('Ooze of the coldest nozzle', '', 'material', 0.2, 0.4),
  leastTravel: string('Travel over which no string forms', 'mm', 'model', 1, 0.3),
} as const satisfies Record<string, Constant>
