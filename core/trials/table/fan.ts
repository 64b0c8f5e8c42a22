import { resolveSettings } from '../../setup/resolve'
import { columns, waysIn } from '../shapes/columns'
import { choice } from '../spec/question'
import type { TrialKind } from './kind'
import { stringQuestions, stringsIn } from './retraction'

/** Both schools at once: full, half, and nearly off (S1). */
const SHARES = [100, 50, 10, 5]
/** What a slope of strings over fan scatters by. Assumed. */
const NOISE = 0.4

export const fan: TrialKind = {
  id: 'fan',
  name: 'Fan',
  tells: 'what the fan does to strings, overhangs and bond of this spool',
  how: 'Count the strings of each band, look beneath the wedge, then snap band by band off by hand.',
  narrows: ['strings.freezing'],
  advises: ['fanSpeed'],
  owner: 'spool',
  varied: {
    label: 'Fan',
    unit: '%',
    values: (value) => ({ fanSpeed: value }),
    usual: () => ({ from: 100, to: 0, step: -50 }),
    within: () => ({ least: 0, most: 100, what: 'a fan' }),
  },
  forms: [
    {
      id: 'schools',
      name: 'Full, half, nearly off',
      bands: () => SHARES.map((value) => ({ label: String(value), value, values: { fanSpeed: value } })),
    },
    { id: 'steps', name: 'Even steps', usual: () => ({ from: 100, to: 0, step: -25 }) },
  ],
  size: { band: 9, foot: 0.8, length: 36 },
  bandsRun: 'up',
  seenFrom: 'front',
  values: () => ({ wallCount: 2, infillDensity: 10, topLayers: 2, bottomLayers: 2, travelInside: 'off', supports: 'off', brim: 'none' }),
  shape: (kit, spec) => columns(kit, spec, 'wedge'),
  questions: {
    band: [
      ...stringQuestions,
      choice('overhang', 'Beneath the wedge', { clean: 'Clean', rough: 'Rough', hangs: 'Hangs' }),
      choice('bond', 'Snapped by hand', { easily: 'Snaps easily', holds: 'Holds' }),
    ],
    whole: [],
  },
  judge({ spec, setup, bands }) {
    const ways = waysIn(Math.round(spec.size.band / resolveSettings(setup, spec.values).settings.layerHeight)).count
    const read = spec.bands.flatMap(({ value }, i) => {
      const count = stringsIn(bands[i], ways)
      return count === undefined || value === undefined ? [] : [{ fan: value, count, answers: bands[i]! }]
    })
    if (read.length < 2) return { found: 'Two bands at least must be read.', evidence: [], advice: [], warnings: [] }
    const slope = slopeOf(read.map(({ fan, count }) => [fan / 100, Math.log(count + 0.5)]))
    const fit = read.filter(({ answers }) => answers.overhang !== 'hangs' && answers.bond !== 'easily')
    const best = (fit.length > 0 ? fit : read).reduce((least, next) => (next.count < least.count ? next : least))
    return {
      found: `${slope > 0.1 ? 'Strings grow with the fan' : slope < -0.1 ? 'Strings grow as the fan goes down' : 'The fan makes no difference to strings'}; best at ${best.fan} %.`,
      short: `${best.fan} %`,
      evidence: [{ on: 'constant', constant: 'strings.freezing', values: [slope], noise: NOISE }],
      advice: [{ of: 'spool', setting: 'fanSpeed', value: best.fan }],
      next: { kind: 'overhang', why: 'With this fan: how far it hangs over.' },
      warnings: fit.length === 0 ? ['In every band the wedge hangs or the layers snap: look at temperature first.'] : [],
    }
  },
}

/** Least squares, through pairs of x and y. */
function slopeOf(points: readonly (readonly [number, number])[]): number {
  const [mx, my] = [0, 1].map((k) => points.reduce((sum, point) => sum + point[k as 0 | 1], 0) / points.length) as [number, number]
  const [over, under] = points.reduce(([a, b], [x, y]) => [a + (x - mx) * (y - my), b + (x - mx) ** 2] as const, [0, 0] as const)
  return under === 0 ? 0 : over / under
}
