import { type Constant, ofModel } from './constant'

/** What follows the flow at which a hot end fails: the limit that speeds are held to, and all that the melt load moves. */
const byFlow = ['time', 'unslowed', 'filament', 'cost', 'surface', 'gloss', 'strength', 'cooling', 'sway']
/** What missing plastic moves. */
const byMissing = ['filament', 'cost', 'surface', 'strength', 'cooling', 'sway']
const LADDER = { how: 'Print a flow ladder at two temperatures', leaves: 0.05 }
const classes = 'Common practice: ordinary hot ends run out at 10 to 15 mm³/s, long ones with fast filament reach 25 to 30.'

const flow = (label: string, median: number): Constant => ({
  label,
  unit: 'mm³/s',
  owner: 'hot end',
  scale: 'log',
  median,
  spread: 0.2,
  source: classes,
  measure: LADDER,
  moves: byFlow,
})

const tip = (label: string, median: number, source: string): Constant => ({
  label,
  unit: '°C',
  owner: 'nozzle',
  scale: 'plain',
  median,
  spread: 4,
  source,
  moves: byFlow,
})

/** How a hot end melts, and what it does when it cannot keep up. */
export const melt = {
  flowShort: flow('Safe flow of a short melt zone, plain PLA', 11),
  flowLong: flow('Safe flow of a long melt zone, plain PLA', 19),
  flowExtraLong: flow('Safe flow of an extra long melt zone, plain PLA', 28),
  ladder: {
    label: 'Flow at which the hot end fails, by your ladder',
    unit: '',
    owner: 'pair',
    scale: 'log',
    median: 1,
    spread: 0.05,
    source: 'Assumed: how well a ladder is read.',
    moves: byFlow,
  },
  safeShare: {
    label: 'Share of the failing flow that is safe',
    unit: '',
    owner: 'model',
    scale: 'log',
    median: 0.85,
    spread: 0.05,
    source: 'Common practice.',
    moves: byFlow,
  },
  longer: ofModel(
    'Flow of a longer nozzle over an ordinary one',
    '',
    1.25,
    0.1,
    'Assumed; that it is more is common practice (CP-N7).',
    byFlow,
  ),
  split: ofModel('Flow of a nozzle that splits the filament', '', 1.3, 0.1, 'Assumed; that it is more is common practice (CP-N7).', byFlow),
  hardenedSteel: tip('Hardened steel against brass', -10, 'Common practice: wants 5 to 20 °C more.'),
  tungstenCarbide: tip('Tungsten carbide against brass', 0, 'Common practice: about brass.'),
  platedCopper: tip('Plated copper against brass', 5, 'Common practice: runs hotter for the same setting.'),
  diamondTip: tip('Diamond tip against brass', 5, 'Common practice: runs hotter for the same setting.'),
  activation: ofModel('Activation energy of viscosity', 'J/mol', 90_000, 0.1, 'PLA 80 to 100 kJ/mol, from memory.', byFlow),
  heatingReserve: ofModel(
    'Flow that heating alone lets through at mid-label, over what can be pushed',
    '',
    1.25,
    0.15,
    'Semi-empirical: so that 10 °C bring a third at mid-label (CP-F6, common practice) and heat alone binds well beyond it.',
    byFlow,
  ),
  landShare: ofModel(
    'Share of the push that a 0.4 mm bore takes',
    '',
    0.3,
    0.3,
    'Semi-empirical: a 0.25 mm bore fails several times sooner, larger ones hardly later (from memory; CP-F5, common practice).',
    byFlow,
  ),
  ladderSlope: {
    label: 'What 10 °C bring to a flow ladder, as a logarithm',
    unit: '',
    owner: 'material',
    scale: 'plain',
    median: 0.26,
    spread: 0.06,
    source: 'Common practice: a third or more (CP-F6).',
    measure: LADDER,
    moves: byFlow,
  },
  belowLabel: {
    label: 'How far below its label the centre still flows',
    unit: '°C',
    owner: 'material',
    scale: 'plain',
    median: 25,
    spread: 6,
    source: 'Semi-empirical.',
    moves: byFlow,
  },
  missingPerLoad: ofModel('Plastic missing per unit of load beyond the safe one', '', 0.5, 0.3, 'Semi-empirical.', byMissing),
  mostMissing: ofModel('Most plastic that can be missing', '', 0.6, 0.2, 'Semi-empirical.', byMissing),
  bedWarmth: ofModel(
    'What a bed 35 °C over the room adds to the melt near it',
    '°C',
    5,
    0.3,
    'Assumed; that it helps is common practice (CP-F9).',
    byFlow,
  ),
  warmHeight: ofModel('Height over which that falls', 'mm', 12, 0.3, 'Assumed (CP-F9).', byFlow),
  sag: ofModel('How far a heater sags when it gives all it can', '°C', 8, 0.4, 'Semi-empirical.', byFlow),
  reserveTime: ofModel(
    'Time over which molten plastic evens the flow out',
    's',
    0.5,
    0.4,
    'Semi-empirical; that it does is common practice (CP-F8).',
    byMissing,
  ),
} as const satisfies Record<string, Constant>
