import { type Limiter, limiterReasons } from '../../motion/limiters'
import { formatDuration, inWords, splitDuration } from '../../units/format'
import { asPercent, type Figure, fixed, timeRow } from './figure'
import { matters, unslowed, unslowedNote } from './unslowed'

export const time: Figure = {
  ...timeRow('time', 'Time', (p) => p.timeS, 'Printing time from planned motion. Heating, homing and purging come before it.'),
  id: 'time',
  noun: 'time',
  plain: { unit: 'min', per: 60, digits: 0 },
  of: (p) => ({ value: p.timeS, ...splitDuration(p.timeS), ...(matters(p) ? { note: unslowedNote(p) } : {}), basis: 'calculated' }),
  value: (p) => p.timeS,
  shown: formatDuration,
  // Finer than times, so that differences visibly add up.
  changed: (s) => (s < 59.5 ? `${s.toFixed(0)} s` : s < 3570 ? `${(s / 60).toFixed(1)} min` : formatDuration(s)),
  limit: { name: 'maxTimeS', words: (wanted) => `under ${wanted}` },
  explain: (p) => {
    const rows = Object.entries(p.timeByFeatureS).filter(([, s]) => s >= 1)
    const held = Object.entries(p.limiters)
      .filter(([, share]) => share >= 0.005)
      .sort((a, b) => b[1] - a[1])
    return {
      equation: 't = Σ over moves of l/v + (v − v₀)²/(2·a·v) + (v − v₁)²/(2·a·v)',
      terms: [
        ...rows.sort((a, b) => b[1] - a[1]).map(([feature, s]) => ({ label: inWords(feature), value: formatDuration(s) })),
        ...(p.layersSlowed > 0
          ? [
              { label: 'layers slowed for their least time', value: String(p.layersSlowed) },
              { label: 'without that', value: formatDuration(p.unslowedS) },
            ]
          : []),
      ],
      place: `Of the time spent laying, ${held.map(([limiter, share]) => `${asPercent(share)} ${limiterReasons[limiter as Limiter]}`).join(', ')}.`,
      basis: 'calculated',
      source:
        'Kinematics: trapezoids between corners, planned backward and forward; corners by deviation (Jeon 2011, from memory) or by instant change.',
    }
  },
  parts: [
    unslowed,
    timeRow('time-outerWall', 'Outer wall', (p) => p.timeByFeatureS.outerWall, 'Time spent on the wall that shows.'),
    timeRow('time-innerWall', 'Inner walls', (p) => p.timeByFeatureS.innerWall, 'Time spent on the walls behind it.'),
    timeRow('time-topBottom', 'Tops and bottoms', (p) => p.timeByFeatureS.topBottom, 'Time spent on solid top and bottom layers.'),
    timeRow(
      'time-thin',
      'Thin places',
      (p) => p.timeByFeatureS.thin,
      'Time spent on single lines of varying width where no full line fits.',
    ),
    timeRow('time-bridge', 'Bridges', (p) => p.timeByFeatureS.bridge, 'Time spent on lines that span open air.'),
    timeRow('time-ironing', 'Ironing', (p) => p.timeByFeatureS.ironing, 'Time spent smoothing tops.'),
    timeRow('time-infill', 'Infill', (p) => p.timeByFeatureS.infill, 'Time spent on sparse infill.'),
    timeRow('time-support', 'Supports', (p) => p.timeByFeatureS.support, 'Time spent on what holds overhangs up.'),
    timeRow('time-foot', 'Skirt and brim', (p) => p.timeByFeatureS.foot, 'Time spent on what lies around the part on the bed.'),
    timeRow(
      'time-startUp',
      'Before the first line',
      (p) => p.startUpS ?? 0,
      'Heating, homing and purging, from assumed time constants; not part of the printing time.',
    ),
    {
      ...timeRow(
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
    timeRow(
      'time-retraction',
      'Retraction',
      (p) => p.timeByFeatureS.retraction,
      'Time spent pulling filament back and pushing it forward.',
    ),
  ],
}
