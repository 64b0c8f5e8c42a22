import { type Constant, ofModel } from './constant'

const rough = (label: string, unit: string, median: number, spread: number, source: string, more: Partial<Constant> = {}): Constant => ({
  ...ofModel(label, unit, median, spread, source, ['surface']),
  ...more,
})
const PANDEY = 'Pandey, Reddy & Dhande 2003, from memory: a fit to measured surfaces.'

/** What a surface looks like. */
export const finish = {
  stair: rough('Roughness per layer height of a vertical wall', 'µm/mm', (69.28 + 72.36) / 2, 0.2, `${PANDEY} 69.28 to 72.36 there.`, {
    measure: { how: 'Compare a printed slope with a surface gauge', leaves: 0.1 },
  }),
  flat: rough('Roughness of a flat top over that of round-edged lines side by side', '', 1, 0.25, 'Assumed: lines as they are drawn.'),
  downward: rough('Roughness facing down over facing up', '', 1.2, 0.1, PANDEY),
  stairLimit: rough('Angle to the vertical up to which steps are told by it', '°', 70, 3, PANDEY, { scale: 'plain' }),
  starved: rough('Roughness for all of the plastic missing', 'µm', 300, 0.4, 'Semi-empirical: gaps between lines that are too thin.'),
  ironed: rough('Share of its roughness that ironing leaves', '', 0.3, 0.3, 'Semi-empirical.'),
  supported: rough('Roughness of a face that was broken off supports', '', 1.7, 0.2, 'Semi-empirical.'),
  glossTurn: {
    label: 'Flow at which a wall of plain PLA turns matte',
    unit: 'mm³/s',
    owner: 'material',
    scale: 'log',
    median: 5.5,
    spread: 0.2,
    source: 'Assumed: 100 mm/s are matte and 40 glossy with usual lines (CP-S2, common practice).',
    measure: { how: 'Print a gloss ladder', leaves: 0.1 },
    moves: ['gloss'],
  },
  glossHeat: {
    label: 'What 10 °C add to that, as a logarithm',
    unit: '',
    owner: 'material',
    scale: 'plain',
    median: 0.2,
    spread: 0.08,
    source: 'Semi-empirical: hotter walls shine longer.',
    moves: ['gloss'],
  },
  glossSteepness: {
    label: 'How sharply it turns',
    unit: '',
    owner: 'material',
    scale: 'log',
    median: 4,
    spread: 0.25,
    source: 'Semi-empirical.',
    moves: ['gloss'],
  },
  drop: rough('Height of the drop where a line of PLA begins or ends', 'µm', 60, 0.4, 'Semi-empirical (CP-S8).'),
  ringDamping: rough('Damping of a frame, as a share of the critical', '', 0.08, 0.3, 'Common for a hobby machine, assumed.', {
    owner: 'printer',
  }),
  shaped: rough('Share of its swing that input shaping leaves', '', 0.15, 0.4, 'Semi-empirical.', { owner: 'printer' }),
  lagDirect: rough(
    'Time by which pressure lags, fed at the head',
    's',
    0.004,
    0.5,
    'Semi-empirical: what is left after the firmware’s own correction.',
    {
      owner: 'printer',
    },
  ),
  lagTube: rough('Time by which pressure lags, fed through a tube', 's', 0.02, 0.5, 'Semi-empirical, as above.', { owner: 'printer' }),
  wholeLagDirect: rough(
    'The same where the firmware does not feed ahead, fed at the head',
    's',
    0.03,
    0.5,
    'Semi-empirical: what feeding ahead is usually set to.',
    {
      owner: 'printer',
    },
  ),
  wholeLagTube: rough('The same, fed through a tube', 's', 0.3, 0.5, 'Semi-empirical, as above.', { owner: 'printer' }),
  openTop: rough('Roughness of a top that does not close, over its gap', '', 0.01, 0.5, 'Semi-empirical (CP-S6).'),
  bubbles: rough('Roughness that filament full of water adds', 'µm', 8, 0.5, 'Semi-empirical.', { owner: 'material' }),
  droop: rough(
    'Droop of a line that hangs by all but its half, over layer height',
    '',
    4,
    0.4,
    'Semi-empirical: 45° come out clean, about 60° is the limit (CP-S7).',
  ),
  bridgeSag: rough(
    'Sag of a bridge over the square of its span',
    '1/mm',
    5e-4,
    0.5,
    'Semi-empirical: a bridge of 40 mm sags by some 0.8 mm.',
    {
      measure: { how: 'Print a bridge test', leaves: 0.2 },
    },
  ),
  closes: {
    label: 'Top over gap at which a top closes',
    unit: '',
    owner: 'model',
    scale: 'log',
    median: 0.14,
    spread: 0.3,
    source: 'Semi-empirical (CP-S6).',
    moves: ['surface'],
  },
  frameFrequency: {
    label: 'Frequency of a frame that nobody measured',
    unit: 'Hz',
    owner: 'printer',
    scale: 'log',
    median: 45,
    spread: 0.25,
    source: 'Common for a hobby machine, assumed.',
    measure: { how: 'Print a ringing test and count its waves', leaves: 0.05 },
    moves: ['surface'],
  },
} as const satisfies Record<string, Constant>
