import { seenSurface } from '@sable/core/figures/judge'
import { atHeight, fixed, percent, plain, type Verdict } from './verdict'

export const surfaceVerdict: Verdict = {
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
}

export const glossVerdict: Verdict = plain(
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
)

export const stringsVerdict: Verdict = plain(
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
)
