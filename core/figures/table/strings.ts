import { asPercent, type Figure, fixed, inPlain, row } from './figure'

const plain = { unit: '', per: 1, digits: 1 }

export const strings: Figure = {
  ...row(
    'strings',
    'Strings',
    '',
    'How many strings to expect, hairs and webs: from the ways over open air, how far filament is pulled back, wiping, heat, fan and dryness. Semi-empirical.',
    'less',
    ({ strings }) => ({
      value: strings.expected,
      // Nobody counts tenths of many.
      text: fixed(strings.expected, strings.expected < 10 ? 1 : 0),
      unit: '',
      note: `${fixed(strings.openM + strings.pulledM, 1)} m`,
    }),
  ),
  id: 'strings',
  noun: 'strings',
  plain,
  value: (p) => p.strings.expected,
  shown: inPlain(plain),
  explain: (p, { printer, constants: { strings } }) => ({
    equation: 'Σ o·(e^(−L/L₀) + r)·√(way/10 mm)·e^(k·ΔT)·wet·e^(−wipe/w₀)·e^(−coast/c₀)·e^(γ·(fan − 1))·√(150/v)',
    terms: [
      { label: 'travel over open air', value: `${p.strings.openM.toFixed(2)} m` },
      { label: 'the same with filament pulled back', value: `${p.strings.pulledM.toFixed(2)} m` },
      { label: 'retraction L', value: `${p.settings.retractLength} mm` },
      {
        label: 'L₀',
        value: `${printer.extruder === 'tube' ? strings.slackTube : strings.slackDirect} mm, fed ${printer.extruder === 'tube' ? 'through a tube' : 'directly'}`,
      },
      { label: 'wipe, coasting', value: `${p.settings.wipeLength} mm, ${p.settings.coastLength} mm` },
      { label: 'nozzle, fan', value: `${p.settings.nozzleTemperature} °C, ${p.settings.fanSpeed} %` },
      {
        label: 'water taken up',
        value: p.strings.wet === undefined ? 'not known: taken as dry' : asPercent(p.strings.wet),
      },
    ],
    place:
      'Levers in their order: dryness, temperature, length, wipe. Whether full fan freezes strings or breaks them is told both ways; its doubt holds both.',
    basis: 'assumed',
    source: 'Semi-empirical.',
  }),
}
