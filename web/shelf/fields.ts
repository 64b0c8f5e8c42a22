import type { Shelf, ShelfKind, ShelfRecords } from '@sable/contract/shelf'
import { nozzleBodies } from '@sable/core/shelf/nozzle'
import { placeholders, problemsOf } from '@sable/core/shelf/ownText'

/** One field of a record: where it stands in it, and how it is asked for. */
export interface RecordField {
  /** "limits.speed.x" */
  readonly path: string
  readonly label: string
  readonly kind: 'text' | 'long' | 'lines' | 'number' | 'choice' | 'yes' | 'color' | 'tags' | 'several'
  readonly unit?: string
  readonly choices?: readonly (string | { readonly key: string; readonly name: string })[]
  /** What an empty field means; a field without it must be filled. */
  readonly empty?: string
  readonly help?: string
  /** What is doubtful about what is stored there, in sentences. It is stored all the same. */
  readonly doubts?: (record: ShelfRecords[ShelfKind]) => readonly string[]
}

export interface FieldGroup {
  readonly name: string
  readonly fields: readonly RecordField[]
}

const number = (path: string, label: string, unit: string, more: Partial<RecordField> = {}): RecordField => ({
  path,
  label,
  kind: 'number',
  unit,
  ...more,
})
const choice = (path: string, label: string, choices: RecordField['choices'] & object, more: Partial<RecordField> = {}): RecordField => ({
  path,
  label,
  kind: 'choice',
  choices,
  ...more,
})
const perAxis = (path: string, label: string, unit: string): RecordField[] =>
  ['x', 'y', 'z'].map((axis) => number(`${path}.${axis}`, `${label} ${axis.toUpperCase()}`, unit))
const range = (path: string, label: string, more: Partial<RecordField> = {}): RecordField[] => [
  number(`${path}.0`, `${label} from`, '°C', more),
  number(`${path}.1`, `${label} to`, '°C', more),
]

const ownText = (which: 'start' | 'end', usual: string, more = ''): RecordField => ({
  path: `${which}Text`,
  label: which === 'start' ? 'Start' : 'End',
  kind: 'lines',
  empty: usual,
  help: `In place of the usual. ${more}`.trim(),
  doubts: (record) => {
    const printer = record as ShelfRecords['printers']
    const text = printer[`${which}Text`]
    return text === undefined ? [] : problemsOf(text, which, printer)
  },
})

/** The fields of each kind of record, in groups. */
export function fieldsOf(kind: ShelfKind, shelf: Shelf): readonly FieldGroup[] {
  switch (kind) {
    case 'printers':
      return printer
    case 'nozzles':
      return nozzle
    case 'materials':
      return material
    case 'spools':
      return spool(shelf)
    case 'profiles':
      return profile(shelf)
  }
}

const printer: readonly FieldGroup[] = [
  {
    name: 'Machine',
    fields: [
      choice('kinematics', 'Kinematics', [
        { key: 'movingBed', name: 'moving bed' },
        { key: 'crossBelt', name: 'crossed belts' },
        { key: 'delta', name: 'delta' },
        { key: 'tiltedBelt', name: 'tilted belt' },
      ]),
      number('beltAngle', 'Angle to the belt', '°', { empty: '45', help: 'Only of a tilted belt.' }),
      choice('bedShape', 'Bed', ['rectangle', 'round'], { empty: 'rectangle' }),
      number('buildVolume.0', 'Build volume X', 'mm'),
      number('buildVolume.1', 'Build volume Y', 'mm'),
      number('buildVolume.2', 'Build volume Z', 'mm'),
      choice('table', 'Stands on', ['steady', 'ordinary', 'shaky'], { empty: 'unknown' }),
      { path: 'enclosed', label: 'Enclosed', kind: 'yes' },
    ],
  },
  {
    name: 'What the firmware allows',
    fields: [
      ...perAxis('limits.speed', 'Speed', 'mm/s'),
      ...perAxis('limits.acceleration', 'Acceleration', 'mm/s²'),
      number('limits.extruderSpeed', 'Filament feed', 'mm/s'),
      number('limits.extruderAcceleration', 'Filament acceleration', 'mm/s²'),
      choice('cornerSchool', 'Corners', [
        { key: 'deviation', name: 'deviation from the path' },
        { key: 'instantChange', name: 'largest instant change' },
      ]),
    ],
  },
  {
    name: 'Extruder and hot end',
    fields: [
      choice('extruder', 'Extruder', [
        { key: 'direct', name: 'at the head' },
        { key: 'tube', name: 'through a tube' },
      ]),
      number('tubeLength', 'Tube', 'mm', { empty: 'none' }),
      number('filamentDiameter', 'Filament', 'mm'),
      choice('hotEnd.class', 'Hot end', [
        { key: 'short', name: 'short' },
        { key: 'long', name: 'long' },
        { key: 'extraLong', name: 'extra long' },
      ]),
      number('hotEnd.maxTemperature', 'Hottest nozzle', '°C'),
      choice('hotEnd.lining', 'Lining', ['metal', 'plastic'], { empty: 'unknown' }),
      { path: 'hotEnd.thread', label: 'Thread', kind: 'text', empty: 'unknown', help: 'Of the nozzles that it takes.' },
      number('hotEnd.threadLength', 'Thread, length', 'mm', {
        empty: 'unknown',
        help: 'Of the nozzles that its block takes: about 5.5, 14 or 50 mm.',
      }),
      number('cooling', 'Fan’s heat transfer', 'W/m²K', { empty: '100', help: 'At full fan, from a layer; 100 is a strong duct.' }),
      number('frameFrequency', 'Frame frequency', 'Hz', {
        empty: 'assumed',
        help: 'Of the frame under the head; gives waves behind corners.',
      }),
      number('frameFrequencyY', 'The same along Y', 'Hz', { empty: 'as above' }),
      { path: 'shaping', label: 'Input shaping', kind: 'yes', help: 'Its firmware keeps the frame from swinging.' },
      number('shapedAt', 'Shaped at, along X', 'Hz', {
        empty: 'as frame',
        help: 'What the shaping is tuned to; off the frame’s own it leaves more.',
      }),
      number('shapedAtY', 'Shaped at, along Y', 'Hz', { empty: 'as along X' }),
      number('pressureAdvance', 'Feeds ahead by', 's', {
        empty: 'tuned',
        help: 'Against pressure that lags at corners; 0 where it does not.',
      }),
      {
        path: 'arcs',
        label: 'Arcs in programs',
        kind: 'yes',
        help: 'Curves are written as G2 and G3: shorter files, smoother where the firmware takes them.',
      },
      number('clearance.radius', 'Clearance beside the head', 'mm', { empty: 'unknown', help: 'For copies printed one at a time.' }),
      number('clearance.height', 'Clearance under the head', 'mm', { empty: 'unknown' }),
    ],
  },
  {
    name: 'Before the first line',
    fields: [
      number('start.homingS', 'Homing', 's', { empty: 'unknown' }),
      number('start.purgeS', 'Purging', 's', { empty: 'unknown' }),
      number('start.bed.tauS', 'Bed, time constant', 's', { empty: 'unknown', help: 'Time to two thirds of the way.' }),
      number('start.bed.reachC', 'Bed at full power', '°C', { empty: 'unknown' }),
      number('start.nozzle.tauS', 'Nozzle, time constant', 's', { empty: 'unknown' }),
      number('start.nozzle.reachC', 'Nozzle at full power', '°C', { empty: 'unknown' }),
      number('start.watts', 'Power while heating', 'W', { empty: 'the same', help: 'The same as while printing where nothing is told.' }),
    ],
  },
  {
    name: 'Programs begin and end with',
    fields: [
      ownText(
        'start',
        'heat, wait, home',
        `For numbers stand ${Object.keys(placeholders)
          .map((name) => `{${name}}`)
          .join(' ')}.`,
      ),
      ownText('end', 'heat off, move away, motors off'),
    ],
  },
  {
    name: 'Running it',
    fields: [
      number('costPerHour', 'Cost of an hour', '¤'),
      number('watts', 'Power, mean', 'W', { empty: 'unknown' }),
      {
        path: 'address',
        label: 'Listens at',
        kind: 'text',
        empty: 'not connected',
        help: 'Where it takes programs line by line, as host:port. Beyond this computer it is only reached on a person’s word.',
      },
    ],
  },
]

const nozzle: readonly FieldGroup[] = [
  {
    name: 'Nozzle',
    fields: [
      number('bore', 'Bore', 'mm'),
      choice('body', 'Body', nozzleBodies, { empty: 'brass' }),
      number('inlet', 'Takes filament of', 'mm', { empty: 'unknown' }),
      { path: 'thread', label: 'Thread', kind: 'text', empty: 'unknown' },
      number('threadLength', 'Thread, length', 'mm', { empty: 'unknown', help: 'From its shoulder to where the thread ends.' }),
      choice('length', 'Length', ['standard', 'long'], { empty: 'standard' }),
      choice('geometry', 'Channel', ['plain', 'split'], { empty: 'plain', help: 'A split channel heats the filament faster.' }),
    ],
  },
  {
    name: 'So far',
    fields: [
      number('hoursRun', 'Run for', 'h', { empty: 'unknown' }),
      number('abrasiveGrams', 'Abrasive filament', 'g', { empty: 'none', help: 'Through this nozzle, all told.' }),
    ],
  },
]

const material: readonly FieldGroup[] = [
  {
    name: 'Kind',
    fields: [
      choice('family', 'Family', [
        { key: 'PLA', name: 'PLA' },
        { key: 'PETG', name: 'PETG' },
        { key: 'flexible', name: 'flexible' },
        { key: 'woodPLA', name: 'wood-filled PLA' },
        { key: 'ABS', name: 'ABS' },
        { key: 'nylon', name: 'nylon' },
      ]),
      number('density', 'Density', 'g/cm³'),
      number('pricePerKg', 'Price of a kilogram', '¤'),
      { path: 'abrasive', label: 'Abrasive', kind: 'yes', help: 'Carbon, glass, metal or glow pigments.' },
      { path: 'fibre', label: 'Holds fibres or wood', kind: 'yes' },
      choice('moisture', 'Takes up water', ['slow', 'middling', 'fast'], { empty: 'middling' }),
    ],
  },
  { name: 'Label', fields: [...range('nozzleRange', 'Nozzle'), ...range('bedRange', 'Bed')] },
  {
    name: 'Heat',
    fields: [
      number('flowFactor', 'Flow, plain PLA is 1', '×'),
      number('heat.conductivity', 'Conductivity', 'W/mK', { empty: 'family’s' }),
      number('heat.specificHeat', 'Specific heat', 'J/kgK', { empty: 'family’s' }),
      number('heat.softening', 'Softens at', '°C', { empty: 'family’s' }),
    ],
  },
  {
    name: 'Strength',
    fields: [
      number('strength.inLayer', 'Along its lines', 'MPa'),
      number('strength.modulus', 'Stiffness', 'MPa'),
      number('strength.bondFactor', 'Between layers', '×', { help: 'Share of the strength along the lines.' }),
      choice('strength.basis', 'These are', ['measured', 'calculated', 'assumed']),
    ],
  },
]

const spool = (shelf: Shelf): readonly FieldGroup[] => [
  {
    name: 'Reel',
    fields: [
      choice('material', 'Material', shelf.materials),
      { path: 'maker', label: 'Maker', kind: 'text', empty: 'unknown', help: 'Empty reels of one maker weigh alike.' },
      { path: 'color', label: 'Colour', kind: 'color', empty: 'none' },
      number('netG', 'Filament when new', 'g'),
      number('reelG', 'Empty reel', 'g', { empty: 'learned', help: 'Learned when one reel of this maker has been emptied.' }),
      number('price', 'Price', '¤', { empty: 'material’s' }),
      { path: 'empty', label: 'Used up', kind: 'yes', help: 'Its last weighing is then that of the empty reel.' },
    ],
  },
  {
    name: 'Label',
    fields: [...range('nozzleRange', 'Nozzle', { empty: 'material’s' }), ...range('bedRange', 'Bed', { empty: 'material’s' })],
  },
  {
    name: 'Tried out',
    fields: [
      choice('foundWith', 'With the nozzle', shelf.nozzles, { empty: 'unknown', help: 'The nozzle that its own values were found with.' }),
    ],
  },
]

const profile = (shelf: Shelf): readonly FieldGroup[] => [
  {
    name: 'Profile',
    fields: [
      {
        path: 'family',
        label: 'Family',
        kind: 'text',
        empty: 'none',
        help: 'Your word for profiles of one intent, whatever they are printed from.',
      },
      { path: 'materials', label: 'For materials', kind: 'several', choices: shelf.materials, empty: 'any' },
      number('bores.0', 'Bore from', 'mm', { empty: 'any' }),
      number('bores.1', 'Bore to', 'mm', { empty: 'any' }),
      { path: 'tags', label: 'Tags', kind: 'tags', empty: 'none', help: 'Separated by commas.' },
      { path: 'notes', label: 'Notes', kind: 'long', empty: 'none' },
    ],
  },
]
