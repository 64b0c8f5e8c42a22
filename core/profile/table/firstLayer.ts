import { inGroup } from './setting'

const { choice, number } = inGroup('First layer and brim')

export const firstLayerSettings = {
  firstLayerHeight: number(
    'layers',
    'First layer height',
    'mm',
    [0.02, 1.2, 0.02],
    0.2,
    'Thickness of the layer on the bed.',
    'initial layer',
  ),
  firstLayerWidth: number(
    'regions',
    'First layer width',
    'mm',
    [0, 2.4, 0.02],
    0,
    'Line width on the bed; 0 follows the line width.',
    'initial layer',
  ),
  firstLayerSpeed: number(
    'motion',
    'First layer speed',
    'mm/s',
    [1, 500, 5],
    25,
    'Nothing on the first layer is laid faster; about half the general speed is usual.',
    'initial layer speed',
  ),
  slowFirstLayers: number(
    'motion',
    'Slow first layers',
    '',
    [1, 50, 1],
    1,
    'Speed rises from the first layer speed to the asked one over this many layers.',
  ),
  skirtLines: number('regions', 'Skirt', '', [0, 20, 1], 1, 'Loops around everything on the bed, to get the filament flowing.'),
  skirtGap: number('regions', 'Skirt distance', 'mm', [1, 50, 1], 5, 'Clear distance between skirt and part.'),
  brim: choice(
    'regions',
    'Brim',
    ['none', 'outer', 'inner', 'both'],
    'none',
    'Loops that touch the first layer and hold it down, around the part, inside its holes or both.',
    'adhesion',
  ),
  brimWidth: number('regions', 'Brim width', 'mm', [0.5, 50, 0.5], 5, 'How far the brim reaches.'),
  copies: number('toolpath', 'Copies', '', [1, 100, 1], 1, 'How many of this part stand on the bed.', 'quantity'),
  copyOrder: choice(
    'toolpath',
    'Copies printed',
    ['together', 'oneAtATime'],
    'together',
    'Layer by layer all at once, or each finished before the next; the latter needs room for the head.',
    'sequential',
  ),
  copyGap: number('toolpath', 'Gap of copies', 'mm', [0.5, 200, 1], 8, 'Clear distance between copies.'),
  bedTemperature: number('figures', 'Bed temperature', '°C', [0, 200, 5], 60, 'Set temperature of the bed.', 'plate temperature'),
} as const
