import { inGroup } from './setting'

const { choice, number } = inGroup('Infill')

export const infillSettings = {
  infillDensity: number(
    'toolpath',
    'Infill density',
    '%',
    [0, 100, 5],
    15,
    'Share of the inside that is solid plastic; of the top-propping pattern, where it stands.',
    'fill',
    'infill percentage',
  ),
  infillPattern: choice(
    'toolpath',
    'Infill pattern',
    ['lines', 'grid', 'triangles', 'hexagons', 'cubic', 'gyroid', 'concentric', 'topPropping'],
    'grid',
    'Flat patterns are stiff along their lines, cubic and gyroid all ways; top-propping only holds tops up and adds no strength.',
    'fill pattern',
    'honeycomb',
  ),
  infillAngle: number(
    'toolpath',
    'Infill angle',
    '°',
    [-180, 180, 5],
    45,
    'Direction of the infill lines against X.',
    'rotation',
    'fill angle',
  ),
  infillShiftX: number('toolpath', 'Infill shift X', 'mm', [-100, 100, 0.5], 0, 'Moves the pattern against the part.', 'offset'),
  infillShiftY: number('toolpath', 'Infill shift Y', 'mm', [-100, 100, 0.5], 0, 'Moves the pattern against the part.', 'offset'),
  infillEvery: number(
    'regions',
    'Infill every',
    '',
    [1, 10, 1],
    1,
    'Lays the infill of this many layers at once, as high as the bore allows.',
    'thick infill',
  ),
} as const
