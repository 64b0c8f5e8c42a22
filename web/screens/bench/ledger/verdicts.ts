import type { Prediction } from '@sable/core/predict'
import type { Basis } from '@sable/core/shelf/material'
import type { LoadCase } from '@sable/core/strength/strengthFigures'
import { splitDuration } from '@sable/core/units/format'

/** One predicted figure of the ledger: how to find it, show it and judge it. */
export interface Verdict {
  readonly id: string
  readonly label: string
  readonly help: string
  /** Which way is better; a bar longer than the first column's is then good or bad. */
  readonly better: 'less' | 'more' | 'neither'
  readonly of: (prediction: Prediction) => {
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
  better: 'less',
  of: (p) => ({ value: seconds(p), ...splitDuration(seconds(p)), basis: 'calculated' }),
})

const grams = (id: string, label: string, mass: (filament: Prediction['filament']) => number, help: string): Verdict => ({
  id,
  label,
  help,
  better: 'less',
  of: (p) => ({ value: mass(p.filament), text: fixed(mass(p.filament), 1), unit: 'g', basis: 'calculated' }),
})

const loadLabels: Readonly<Record<LoadCase, string>> = {
  pullX: 'Pull X',
  pullY: 'Pull Y',
  pullZ: 'Pull Z',
  bendX: 'Bend X',
  bendY: 'Bend Y',
  bendZ: 'Bend Z',
}

const load = (id: LoadCase): Verdict => ({
  id,
  label: loadLabels[id],
  help: id.startsWith('pull')
    ? 'Gripped at both ends of this axis and pulled until the weakest section gives.'
    : 'Held at the low end of this axis and pressed sideways at the far end, in the weaker direction.',
  better: 'more',
  of: (p) => ({ value: p.strength[id].loadN, ...force(p.strength[id].loadN), basis: p.strength[id].basis }),
})

/** Newtons with three figures, as the estimate deserves. */
function force(newtons: number): { text: string; unit: string } {
  if (newtons >= 9995) return { text: fixed(newtons / 1000, 1), unit: 'kN' }
  if (newtons >= 999.5) return { text: fixed(newtons / 1000, 2), unit: 'kN' }
  return { text: fixed(newtons, newtons < 99.95 ? 1 : 0), unit: 'N' }
}

const weakest = (p: Prediction, cases: readonly LoadCase[]): LoadCase =>
  cases.reduce((low, next) => (p.strength[next].loadN < p.strength[low].loadN ? next : low))

function strength(id: string, label: string, cases: readonly LoadCase[]): Verdict {
  return {
    id,
    label,
    help: 'The weakest of the three axes. An estimate for one material and one load, never a rating: test the real part with a margin, and never lift or hang loads over people with it.',
    better: 'more',
    of: (p) => {
      const worst = weakest(p, cases)
      const { loadN, basis } = p.strength[worst]
      return { value: loadN, ...force(loadN), note: `along ${worst.slice(-1)}`, basis }
    },
    parts: cases.map(load),
  }
}

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
    help: 'Filament and machine time at the prices on the shelf.',
    better: 'less',
    of: (p) => ({ value: p.filament.cost, text: fixed(p.filament.cost, 2), unit: '', basis: 'assumed' }),
    parts: [
      {
        id: 'cost-filament',
        label: 'Filament',
        help: 'Mass times price.',
        better: 'less',
        of: (p) => ({ value: p.filament.materialCost, text: fixed(p.filament.materialCost, 2), unit: '', basis: 'assumed' }),
      },
      {
        id: 'cost-machine',
        label: 'Machine',
        help: 'Hours times the cost of an hour.',
        better: 'less',
        of: (p) => ({ value: p.filament.machineCost, text: fixed(p.filament.machineCost, 2), unit: '', basis: 'assumed' }),
      },
    ],
  },
  {
    id: 'surface',
    label: 'Surface Ra',
    help: 'Mean roughness over everything but the face on the bed, from layer height and slope (Pandey 2003, semi-empirical).',
    better: 'less',
    of: (p) => ({ value: p.surface.raMeanUm, text: fixed(p.surface.raMeanUm, 1), unit: 'µm', basis: 'calculated' }),
    parts: [
      {
        id: 'surface-95',
        label: 'Roughest twentieth',
        help: 'Nineteen twentieths of the surface are no rougher than this.',
        better: 'less',
        of: (p) => ({ value: p.surface.ra95Um, text: fixed(p.surface.ra95Um, 1), unit: 'µm', basis: 'calculated' }),
      },
    ],
  },
  strength('bend', 'Bend until it breaks', ['bendX', 'bendY', 'bendZ']),
  strength('pull', 'Pull until it breaks', ['pullX', 'pullY', 'pullZ']),
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
