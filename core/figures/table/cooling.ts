import { atHeight, type Figure, fixed, inPlain, mm, percent, row } from './figure'

const plain = { unit: '×', per: 1, digits: 1 }
/** More than this is plenty. */
const PLENTY = 99

export const cooling: Figure = {
  ...row(
    'cooling',
    'Cooling margin',
    '',
    'Layer time over the time that a layer needs to bear the next one, of the layer that is worst off. Under 1 it is laid on while it is soft.',
    'more',
    ({ cooling }) => ({
      value: Math.min(cooling.margin, PLENTY),
      text: fixed(Math.min(cooling.margin, PLENTY), 1),
      unit: '×',
      note: atHeight(cooling.atZMm),
    }),
  ),
  id: 'cooling',
  noun: 'cooling',
  plain,
  value: (p) => Math.min(p.cooling.margin, PLENTY),
  shown: inPlain(plain),
  explain: (p, { material }) => ({
    equation: 'margin = layer time / (τ·ln((Tn − Ta)/(Ts − Ta))), τ = ρ·cp·h/hc',
    terms: [
      { label: 'the layer takes', value: `${p.cooling.takesS.toFixed(1)} s` },
      { label: 'it needs', value: `${p.cooling.neededS.toFixed(1)} s` },
      { label: 'fan', value: `${p.settings.fanSpeed} %` },
      { label: 'nozzle', value: `${p.settings.nozzleTemperature} °C` },
      { label: `layers of ${material.name} laid on while soft`, value: `${p.cooling.layersWarm} of ${p.layerCount}` },
    ],
    place: `Worst at z ${mm(p.cooling.atZMm)}.`,
    basis: 'assumed',
    source: 'Lumped body losing heat through one face (any text on heat transfer); hc 15 to 100 W/(m²·K) assumed.',
  }),
  parts: [
    row('cooling-needed', 'Time that layer needs', 's', 'Lumped cooling of one layer through its upper face.', 'less', ({ cooling }) => ({
      value: cooling.neededS,
      text: fixed(cooling.neededS, 1),
      unit: 's',
      note: `has ${fixed(cooling.takesS, 1)}`,
    })),
    row(
      'cooling-warm',
      'Layers laid on while soft',
      '',
      'And how many of them are small tips, where that shows as waves.',
      'less',
      ({ cooling }) => ({
        value: cooling.layersWarm,
        text: String(cooling.layersWarm),
        unit: '',
        ...(cooling.tipsWarm > 0 ? { note: `${cooling.tipsWarm} tips` } : {}),
      }),
    ),
    row(
      'cooling-droop',
      'Overhang that droops',
      'mm',
      'Line of which half or more hangs over air and that is laid on before it sets.',
      'less',
      ({ cooling }) => ({
        value: cooling.droopMm,
        text: fixed(cooling.droopMm, 0),
        unit: 'mm',
      }),
    ),
    row(
      'melt-load',
      'Melt load',
      '',
      'Flow over the flow at which the hot end fails; nineteen twentieths of the plastic are laid under this. Above 85 % plastic begins to be missing.',
      'less',
      ({ melt }) => ({
        ...percent(melt.load95),
        note: `fails at ${fixed(melt.failsAt, 1)}`,
        basis: melt.basis === 'measured' ? 'calculated' : 'assumed',
      }),
    ),
    row('melt-missing', 'Plastic that is missing', '', 'By time, and on how many layers more than a fiftieth is.', 'less', ({ melt }) => ({
      value: melt.missing,
      text: fixed(100 * melt.missing, 1),
      unit: '%',
      ...(melt.layersShort > 0 ? { note: `${melt.layersShort} layers` } : {}),
    })),
  ],
}
