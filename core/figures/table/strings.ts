import { type Figure, fixed, inPlain, row } from './figure'

const plain = { unit: '', per: 1, digits: 2 }

export const strings: Figure = {
  ...row(
    'strings',
    'Strings',
    '',
    'An index: 1 is a metre of travel over open air with filament at the nozzle’s mouth, at the middle of the label. Pulled back it strings far less; wet filament far more. Semi-empirical.',
    'less',
    ({ strings }) => ({
      value: strings.index,
      text: fixed(strings.index, 2),
      unit: '',
      note: `${fixed(strings.openM + strings.pulledM, 1)} m`,
    }),
  ),
  id: 'strings',
  noun: 'strings',
  plain,
  value: (p) => p.strings.index,
  shown: inPlain(plain),
  explain: (p, { printer, constants: { strings } }) => ({
    equation: 'index = ooze · (open travel + share · travel pulled back)',
    terms: [
      { label: 'travel over open air', value: `${p.strings.openM.toFixed(2)} m` },
      { label: 'the same with filament pulled back', value: `${p.strings.pulledM.toFixed(2)} m` },
      {
        label: 'that counts by',
        value: `${printer.extruder === 'tube' ? strings.pulledTube : strings.pulledDirect}, fed ${printer.extruder === 'tube' ? 'through a tube' : 'directly'}`,
      },
      { label: 'nozzle', value: `${p.settings.nozzleTemperature} °C` },
    ],
    place: 'Wet filament strings far more than any of this: dry it first.',
    basis: 'assumed',
    source: 'Semi-empirical.',
  }),
}
