import type { Prediction } from '@sable/core/predict'
import type { Basis } from '@sable/core/shelf/material'
import { type Purpose, seenSurface, statedCase } from '@sable/core/strength/purpose'
import { type LoadCase, type LoadKind, loadCases } from '@sable/core/strength/strengthFigures'
import { splitDuration } from '@sable/core/units/format'

/** One predicted figure of the ledger: how to find it, show it and judge it. */
export interface Verdict {
  readonly id: string
  readonly label: string
  readonly help: string
  /** Unit of `value`: figures are shown in whatever unit reads best. */
  readonly base: string
  /** Which way is better; a bar longer than the first column's is then good or bad. */
  readonly better: 'less' | 'more' | 'neither'
  readonly of: (
    prediction: Prediction,
    purpose: Purpose,
  ) => {
    readonly value: number
    readonly text: string
    readonly unit: string
    readonly note?: string
    readonly basis: Basis
  }
  /** Rows that open beneath it. */
  readonly parts?: readonly Verdict[]
}

const fixed = (value: number, digits: number): string => value.toFixed(digits)

const time = (id: string, label: string, seconds: (p: Prediction) => number, help: string): Verdict => ({
  id,
  label,
  help,
  base: 's',
  better: 'less',
  of: (p) => ({ value: seconds(p), ...splitDuration(seconds(p)), basis: 'calculated' }),
})

const grams = (id: string, label: string, mass: (filament: Prediction['filament']) => number, help: string): Verdict => ({
  id,
  label,
  help,
  base: 'g',
  better: 'less',
  of: (p) => ({ value: mass(p.filament), text: fixed(mass(p.filament), 1), unit: 'g', basis: 'calculated' }),
})

const kindWords: Readonly<Record<LoadKind, readonly [label: string, help: string]>> = {
  pull: ['Pull', 'Gripped at both ends of this axis and pulled until the weakest section gives.'],
  bend: ['Bend', 'Held at the low end of this axis and pressed sideways at the far end, in the weaker direction.'],
  bendHigh: ['Bend, held high', 'Held at the high end of this axis and pressed sideways at the low end, in the weaker direction.'],
  threePoint: ['Three points', 'Resting on both ends of this axis and pressed in the middle, in the weaker direction.'],
  crush: ['Crush', 'Pressed together along this axis until a section gives or the part buckles.'],
}

const splitCase = (name: LoadCase): readonly [kind: LoadKind, axis: string] => [name.slice(0, -1) as LoadKind, name.slice(-1)]

/** "bend along Y" */
export const wordsOf = (name: LoadCase): string => {
  const [kind, axis] = splitCase(name)
  return `${kindWords[kind][0].toLowerCase()} along ${axis}`
}

const load = (id: LoadCase): Verdict => {
  const [kind, axis] = splitCase(id)
  return {
    id,
    label: `${kindWords[kind][0]} ${axis}`,
    help: kindWords[kind][1],
    base: 'N',
    better: 'more',
    of: (p) => ({
      value: p.strength[id].loadN,
      ...force(p.strength[id].loadN),
      ...(p.strength[id].by === 'buckling' ? { note: 'buckles' } : {}),
      basis: p.strength[id].basis,
    }),
  }
}

/** Newtons with three figures, as the estimate deserves. */
function force(newtons: number): { text: string; unit: string } {
  if (newtons >= 9995) return { text: fixed(newtons / 1000, 1), unit: 'kN' }
  if (newtons >= 999.5) return { text: fixed(newtons / 1000, 2), unit: 'kN' }
  return { text: fixed(newtons, newtons < 99.95 ? 1 : 0), unit: 'N' }
}

/** A figure that is told by a number and its unit. */
const plain = (
  id: string,
  label: string,
  base: string,
  help: string,
  better: Verdict['better'],
  of: (p: Prediction, purpose: Purpose) => { value: number; text: string; unit: string; note?: string; basis?: Basis },
  parts?: readonly Verdict[],
): Verdict => ({
  id,
  label,
  base,
  help,
  better,
  of: (p, purpose) => ({ basis: 'assumed', ...of(p, purpose) }),
  ...(parts ? { parts } : {}),
})

const percent = (share: number): { value: number; text: string; unit: string } => ({ value: share, text: fixed(100 * share, 0), unit: '%' })
const atHeight = (z: number): string => `z ${fixed(z, 1)}`

export const verdicts: readonly Verdict[] = [
  {
    ...time('time', 'Time', (p) => p.timeS, 'Printing time from planned motion. Heating, homing and purging come before it.'),
    parts: [
      time('time-outerWall', 'Outer wall', (p) => p.timeByFeatureS.outerWall, 'Time spent on the wall that shows.'),
      time('time-innerWall', 'Inner walls', (p) => p.timeByFeatureS.innerWall, 'Time spent on the walls behind it.'),
      time('time-skin', 'Skins', (p) => p.timeByFeatureS.skin, 'Time spent on solid top and bottom layers.'),
      time(
        'time-thin',
        'Thin places',
        (p) => p.timeByFeatureS.thin,
        'Time spent on single lines of varying width where no full line fits.',
      ),
      time('time-bridge', 'Bridges', (p) => p.timeByFeatureS.bridge, 'Time spent on lines that span open air.'),
      time('time-ironing', 'Ironing', (p) => p.timeByFeatureS.ironing, 'Time spent smoothing tops.'),
      time('time-infill', 'Infill', (p) => p.timeByFeatureS.infill, 'Time spent on sparse infill.'),
      time('time-support', 'Supports', (p) => p.timeByFeatureS.support, 'Time spent on what holds overhangs up.'),
      time('time-foot', 'Skirt and brim', (p) => p.timeByFeatureS.foot, 'Time spent on what lies around the part on the bed.'),
      time(
        'time-startUp',
        'Before the first line',
        (p) => p.startUpS ?? 0,
        'Heating, homing and purging, from assumed time constants; not part of the printing time.',
      ),
      {
        ...time(
          'time-travel',
          'Travel',
          (p) => p.timeByFeatureS.travel,
          'Time spent on moves that lay nothing, and their way. Spared is what finishing each hole before the next saves of it, estimated from some layers.',
        ),
        of: (p) => {
          const seconds = p.timeByFeatureS.travel
          const spared = (p.travel.savedMm ?? 0) / 1000
          const note = `${fixed(p.travel.lengthMm / 1000, 1)} m${spared > 0.05 ? `, spared ${fixed(spared, 1)}` : ''}`
          return { value: seconds, ...splitDuration(seconds), note, basis: 'calculated' }
        },
      },
      time('time-retraction', 'Retraction', (p) => p.timeByFeatureS.retraction, 'Time spent pulling filament back and pushing it forward.'),
    ],
  },
  {
    id: 'filament',
    label: 'Filament',
    base: 'g',
    help: 'Mass of everything that is laid.',
    better: 'less',
    of: (p) => ({
      value: p.filament.massG,
      text: fixed(p.filament.massG, 1),
      unit: 'g',
      note: `${fixed(p.filament.lengthMm / 1000, 2)} m`,
      basis: 'calculated',
    }),
    parts: [
      grams('filament-part', 'Part', ({ massG, supportG, footG }) => massG - supportG - footG, 'What stays on the part.'),
      grams('filament-support', 'Supports', ({ supportG }) => supportG, 'What is broken off afterwards.'),
      grams('filament-foot', 'Skirt and brim', ({ footG }) => footG, 'What lies around the part on the bed.'),
    ],
  },
  {
    id: 'cost',
    label: 'Cost',
    base: '',
    help: 'Filament and machine time at the prices on the shelf.',
    better: 'less',
    of: (p) => ({ value: p.filament.cost, text: fixed(p.filament.cost, 2), unit: '', basis: 'assumed' }),
    parts: [
      {
        id: 'cost-filament',
        label: 'Filament',
        base: '',
        help: 'Mass times price.',
        better: 'less',
        of: (p) => ({ value: p.filament.materialCost, text: fixed(p.filament.materialCost, 2), unit: '', basis: 'assumed' }),
      },
      {
        id: 'cost-machine',
        label: 'Machine',
        base: '',
        help: 'Hours times the cost of an hour.',
        better: 'less',
        of: (p) => ({ value: p.filament.machineCost, text: fixed(p.filament.machineCost, 2), unit: '', basis: 'assumed' }),
      },
    ],
  },
  {
    id: 'surface',
    label: 'Surface Ra',
    base: 'µm',
    help: 'Mean roughness over what will be seen, the face on the bed left out, from layer height and slope (Pandey 2003, semi-empirical).',
    better: 'less',
    of: (p, purpose) => {
      const { raMeanUm } = seenSurface(p, purpose)
      return {
        value: raMeanUm,
        text: fixed(raMeanUm, 1),
        unit: 'µm',
        ...(purpose.seen === 'all' ? {} : { note: purpose.seen }),
        basis: 'calculated',
      }
    },
    parts: [
      {
        id: 'surface-95',
        label: 'Roughest twentieth',
        base: 'µm',
        help: 'Nineteen twentieths of the surface are no rougher than this.',
        better: 'less',
        of: (p, purpose) => {
          const { ra95Um } = seenSurface(p, purpose)
          return { value: ra95Um, text: fixed(ra95Um, 1), unit: 'µm', basis: 'calculated' }
        },
      },
      plain(
        'surface-seam',
        'Seams',
        'mm',
        'Length of the seams of the outer wall, one for each closed wall of each layer.',
        'less',
        ({ seamMm }) => ({ value: seamMm, text: fixed(seamMm, 0), unit: 'mm', basis: 'calculated' }),
      ),
      plain(
        'surface-top',
        'Tops close',
        '',
        'Thickness of the top skin over what the gap between infill lines needs. Under 1 a top may sag or stay open. Semi-empirical.',
        'more',
        ({ topClosure }) => ({
          value: Math.min(topClosure.closure, 10),
          text: topClosure.closure > 10 ? '> 10' : fixed(topClosure.closure, 1),
          unit: '×',
          ...(topClosure.gapMm === undefined ? { note: 'no infill' } : { note: `over ${fixed(topClosure.gapMm, 1)} mm` }),
        }),
      ),
      plain(
        'surface-waves',
        'Waves behind corners',
        'µm',
        'The most that the frame swings after a corner of the outer wall, and how far apart the waves stand. Undamped, so an upper bound.',
        'less',
        ({ ringing }) => ({
          value: 1000 * ringing.amplitudeMm,
          text: fixed(1000 * ringing.amplitudeMm, 0),
          unit: 'µm',
          note: `${fixed(ringing.wavelengthMm, 1)} mm apart`,
          basis: ringing.measured ? 'calculated' : 'assumed',
        }),
      ),
    ],
  },
  plain(
    'gloss',
    'Gloss',
    '',
    'Of the outer wall, from matte to glossy: what is laid slowly against what the hot end can melt shines. The spread shows as bands. Semi-empirical.',
    'neither',
    ({ gloss }) => ({ ...percent(gloss.mean), note: `spread ${fixed(100 * gloss.spread, 0)}` }),
    [
      plain(
        'gloss-band',
        'Sharpest band',
        '',
        'Where gloss changes most from one layer to the next, and by how much.',
        'less',
        ({ gloss }) => ({
          ...percent(gloss.band),
          ...(gloss.band > 0.005 ? { note: atHeight(gloss.bandAtZMm) } : {}),
        }),
      ),
    ],
  ),
  {
    id: 'strength',
    label: 'Strength',
    help: 'Under the load that the part is for, chosen above. An estimate for one material and one load, never a rating: test the real part with a margin, and never lift or hang loads over people with it.',
    base: 'N',
    better: 'more',
    of: (p, purpose) => {
      const stated = statedCase(p, purpose)
      const { loadN, basis } = p.strength[stated]
      return { value: loadN, ...force(loadN), note: wordsOf(stated), basis }
    },
    parts: [
      plain(
        'stiffness',
        'Stiffness',
        'N/mm',
        'Force for each millimetre that the part gives way where it is loaded.',
        'more',
        (p, purpose) => {
          const { stiffnessNmm } = p.strength[statedCase(p, purpose)]
          return { value: stiffnessNmm, text: stiffnessNmm >= 100 ? fixed(stiffnessNmm, 0) : stiffnessNmm.toPrecision(3), unit: 'N/mm' }
        },
      ),
      ...loadCases.filter((name) => /^(pull|bend|crush)[XYZ]$/.test(name)).map(load),
      plain(
        'bond',
        'Bond between layers',
        '',
        'As a share of the strength within a layer, on average; noted is the worst. From temperature, fan, layer time, melt load and missing plastic; semi-empirical.',
        'more',
        ({ bond }) => ({ ...percent(bond.mean), note: `${fixed(100 * bond.worst, 0)} at ${atHeight(bond.worstAtZMm)}` }),
      ),
    ],
  },
  plain(
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
      plain(
        'cooling-needed',
        'Time that layer needs',
        's',
        'Lumped cooling of one layer through its upper face.',
        'less',
        ({ cooling }) => ({
          value: cooling.neededS,
          text: fixed(cooling.neededS, 1),
          unit: 's',
          note: `has ${fixed(cooling.takesS, 1)}`,
        }),
      ),
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
  ),
  plain(
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
  ),
  plain(
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
]

/** How a figure stands against the first column's. */
export interface Standing {
  /** Length of the bar, 0–1, on a scale shared by the row. */
  readonly bar: number
  /** "−32 %"; empty for the first column and where there is nothing to compare. */
  readonly change: string
  readonly sense: 'better' | 'worse' | 'same'
}

/** Compares the figures of one row. `undefined` where a column has none yet. */
export function compareRow(values: readonly (number | undefined)[], better: Verdict['better']): Standing[] {
  const largest = Math.max(0, ...values.map((value) => value ?? 0))
  const first = values[0]
  return values.map((value, i) => {
    if (value === undefined) return { bar: 0, change: '', sense: 'same' }
    const bar = largest > 0 ? value / largest : 0
    if (i === 0 || first === undefined || first === 0) return { bar, change: '', sense: 'same' }
    const share = value / first - 1
    const percent = Math.round(share * 100)
    if (percent === 0) return { bar, change: '', sense: 'same' }
    const sense = better === 'neither' ? 'same' : share < 0 === (better === 'less') ? 'better' : 'worse'
    return { bar, change: `${percent > 0 ? '+' : '−'}${Math.abs(percent)} %`, sense }
  })
}
