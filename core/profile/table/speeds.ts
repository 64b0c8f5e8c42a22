import { inGroup, type NumberSetting } from './setting'

const { number } = inGroup('Speed and acceleration')

/** An acceleration of some lines, that follows the general one until it is told. */
const ownAcceleration = (label: string, what: string): NumberSetting => ({
  ...number('motion', label, 'mm/s²', [0, 100000, 100], 0, `${what}; 0 follows the general one.`),
  zero: 'as the rest',
})

export const speedsSettings = {
  outerWallSpeed: number(
    'motion',
    'Outer wall speed',
    'mm/s',
    [1, 1000, 5],
    40,
    'Asked speed of the wall that shows. Slow is glossy, fast is matte.',
    'exterior wall',
    'outer perimeter',
    'outer shell',
  ),
  innerWallSpeed: number(
    'motion',
    'Inner wall speed',
    'mm/s',
    [1, 1000, 5],
    60,
    'Asked speed of the walls behind the outer one.',
    'perimeter speed',
    'inner shell',
  ),
  infillSpeed: number('motion', 'Infill speed', 'mm/s', [1, 1000, 5], 80, 'Asked speed of sparse infill.', 'fill speed'),
  topBottomSpeed: number(
    'motion',
    'Top and bottom speed',
    'mm/s',
    [1, 1000, 5],
    60,
    'Asked speed of solid top and bottom layers.',
    'solid infill speed',
    'skin speed',
    'top speed',
    'bottom speed',
  ),
  ironingSpeed: number('motion', 'Ironing speed', 'mm/s', [1, 500, 5], 30, 'Asked speed while smoothing tops.'),
  travelSpeed: number('motion', 'Travel speed', 'mm/s', [1, 1500, 10], 150, 'Asked speed of moves that lay nothing.', 'jump', 'rapid'),
  acceleration: number(
    'motion',
    'Acceleration',
    'mm/s²',
    [20, 100000, 100],
    1500,
    'Asked acceleration while laying plastic; the printer may allow less.',
    'print acceleration',
  ),
  outerWallAcceleration: ownAcceleration('Outer wall accel.', 'Acceleration of the wall that shows'),
  innerWallAcceleration: ownAcceleration('Inner wall accel.', 'Acceleration of the walls behind'),
  topBottomAcceleration: ownAcceleration('Top and bottom accel.', 'Acceleration of solid layers'),
  infillAcceleration: ownAcceleration('Infill accel.', 'Acceleration of sparse infill'),
  firstLayerAcceleration: ownAcceleration('First layer accel.', 'Acceleration on the bed'),
  travelAcceleration: number(
    'motion',
    'Travel acceleration',
    'mm/s²',
    [20, 100000, 100],
    1500,
    'Asked acceleration of moves that lay nothing.',
  ),
  cornerSpeed: number(
    'motion',
    'Corner speed',
    'mm/s',
    [0, 100, 1],
    8,
    'Speed kept round a square corner, or the largest instant change of an axis, as the printer says.',
    'instant speed change',
  ),
  flowLimit: number(
    'motion',
    'Flow limit',
    'mm³/s',
    [0.1, 200, 0.5],
    11,
    'Most plastic that the hot end can melt and push; every speed is held to it.',
    'volumetric speed',
    'melt rate',
  ),
} as const
