import { atHeight, fixed, percent, plain, type Verdict } from './verdict'

export const coolingVerdict: Verdict = plain(
  'cooling',
  'Cooling margin',
  '',
  'Layer time over the time that a layer needs to bear the next one, of the layer that is worst off. Under 1 it is laid on while it is soft.',
  'more',
  ({ cooling }) => ({
    value: Math.min(cooling.margin, 99),
    text: fixed(Math.min(cooling.margin, 99), 1),
    unit: '×',
    note: atHeight(cooling.atZMm),
  }),
  [
    plain('cooling-needed', 'Time that layer needs', 's', 'Lumped cooling of one layer through its upper face.', 'less', ({ cooling }) => ({
      value: cooling.neededS,
      text: fixed(cooling.neededS, 1),
      unit: 's',
      note: `has ${fixed(cooling.takesS, 1)}`,
    })),
    plain(
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
    plain(
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
    plain(
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
    plain(
      'melt-missing',
      'Plastic that is missing',
      '',
      'By time, and on how many layers more than a fiftieth is.',
      'less',
      ({ melt }) => ({
        value: melt.missing,
        text: fixed(100 * melt.missing, 1),
        unit: '%',
        ...(melt.layersShort > 0 ? { note: `${melt.layersShort} layers` } : {}),
      }),
    ),
  ],
)

export const swayVerdict: Verdict = plain(
  'sway',
  'Sway at the top',
  'mm',
  'How far the part gives way under the nozzle’s side force of half a newton (assumed), and from which height on that shows.',
  'less',
  ({ sway }) => ({
    // Less than a micrometre is none, whatever it is compared with.
    value: sway.topMm < 0.001 ? 0 : sway.topMm,
    text: sway.topMm < 0.001 ? 'none' : fixed(1000 * sway.topMm, 0),
    unit: sway.topMm < 0.001 ? '' : 'µm',
    ...(sway.slowAboveZMm === undefined ? {} : { note: `slow from ${atHeight(sway.slowAboveZMm)}` }),
  }),
  [
    plain(
      'sway-support',
      'Unsteadiest support',
      'mm',
      'How far a support by itself gives way under the nozzle. More than a line’s width may break it.',
      'less',
      ({ supportSway }) => ({
        value: supportSway.mostMm < 0.001 ? 0 : supportSway.mostMm,
        text: supportSway.mostMm < 0.001 ? 'none' : fixed(supportSway.mostMm, 2),
        unit: supportSway.mostMm < 0.001 ? '' : 'mm',
        ...(supportSway.mostMm < 0.001 ? {} : { note: atHeight(supportSway.atZMm) }),
      }),
    ),
  ],
)
