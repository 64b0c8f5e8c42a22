import type { Prediction } from '@sable/core/pipeline/predict'
import { splitDuration } from '@sable/core/units/format'
import { fixed, time, type Verdict } from './verdict'

const grams = (id: string, label: string, mass: (filament: Prediction['filament']) => number, help: string): Verdict => ({
  id,
  label,
  help,
  base: 'g',
  better: 'less',
  of: (p) => ({ value: mass(p.filament), text: fixed(mass(p.filament), 1), unit: 'g', basis: 'calculated' }),
})

export const timeVerdict: Verdict = {
  ...time('time', 'Time', (p) => p.timeS, 'Printing time from planned motion. Heating, homing and purging come before it.'),
  parts: [
    time('time-outerWall', 'Outer wall', (p) => p.timeByFeatureS.outerWall, 'Time spent on the wall that shows.'),
    time('time-innerWall', 'Inner walls', (p) => p.timeByFeatureS.innerWall, 'Time spent on the walls behind it.'),
    time('time-skin', 'Skins', (p) => p.timeByFeatureS.skin, 'Time spent on solid top and bottom layers.'),
    time('time-thin', 'Thin places', (p) => p.timeByFeatureS.thin, 'Time spent on single lines of varying width where no full line fits.'),
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
}

export const filamentVerdict: Verdict = {
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
    {
      ...grams('filament-left', 'Left on the spool', ({ spoolLeftG = 0 }) => spoolLeftG, 'After this print, where a spool is chosen.'),
      better: 'more',
      of: ({ filament: { spoolLeftG, spoolLeftBasis = 'assumed' } }) =>
        spoolLeftG === undefined
          ? { value: 0, text: 'no spool', unit: '', basis: 'calculated' }
          : { value: Math.max(0, spoolLeftG), text: fixed(spoolLeftG, 0), unit: 'g', basis: spoolLeftBasis },
    },
  ],
}

export const costVerdict: Verdict = {
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
    {
      id: 'energy',
      label: 'Energy',
      base: 'kWh',
      help: 'Mean power of the printer while it prints, times time. It is part of the cost of an hour.',
      better: 'less',
      of: ({ energyKWh }) =>
        energyKWh === undefined
          ? { value: 0, text: 'not told', unit: '', basis: 'assumed' }
          : { value: energyKWh, text: fixed(energyKWh, 2), unit: 'kWh', basis: 'assumed' },
    },
  ],
}
