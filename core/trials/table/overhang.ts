import { resolveSettings } from '../../setup/resolve'
import { withNumber } from '../shapes/tower'
import { choice } from '../spec/question'
import type { TrialKind } from './kind'

/** Of a fin: from one to the next, thickness and height, mm. */
const [APART, THICK, RISE] = [10, 3, 10]

/** Fins that lean ever further, side by side on one foot. */
export const overhang: TrialKind = {
  id: 'overhang',
  name: 'Overhang',
  tells: 'up to which angle this spool hangs over clean, so that supports begin there and not before',
  how: 'Look at the underside of each fin, from the steepest on: the last one whose lines lie side by side counts.',
  narrows: [],
  advises: ['supportAngle'],
  owner: 'spool',
  varied: {
    label: 'Angle from upright',
    unit: '°',
    values: () => ({}),
    usual: () => ({ from: 30, to: 75, step: 5 }),
    within: () => ({ least: 10, most: 80, what: 'fins that stand' }),
  },
  size: { band: RISE, foot: 1.2, length: APART },
  bandsRun: 'across',
  seenFrom: 'front',
  bandAt: (index, count) => [(index - count / 2) * APART, (index + 1 - count / 2) * APART],
  values: () => ({ wallCount: 2, infillDensity: 10, topLayers: 3, bottomLayers: 3, supports: 'off', brim: 'none' }),
  shape(kit, spec) {
    const { bands, size } = spec
    const width = bands.length * APART
    const foot = Math.max(size.foot, 1)
    const base = kit.box(width, 14, foot)
    return bands.reduce((all, { label, value = 0 }, i) => {
      const x = (i - (bands.length - 1) / 2) * APART
      const far = Math.tan((value * Math.PI) / 180) * RISE
      // Side view: upright lengths run along y, away from the number.
      const fin = kit
        .prism(
          [
            [-THICK, 0],
            [0, 0],
            [far, RISE],
            [far - THICK, RISE],
          ],
          APART - 1.5,
        )
        .turned(90, 0, 90)
        .at(x - (APART - 1.5) / 2, 4, foot)
      const post = kit.post(APART - 1.5, 4, 7).at(x, -3, foot)
      return withNumber(kit, all.plus(fin, post), label, { depth: 10, foot: foot + 1, x, room: APART - 2.5 })
    }, base)
  },
  questions: { band: [choice('under', 'Underside', { clean: 'Clean', rough: 'Rough', fallen: 'Fallen' }, true)], whole: [] },
  judge({ spec, setup, bands }) {
    const read = spec.bands.flatMap(({ value }, i) =>
      value === undefined || bands[i]?.under === undefined ? [] : [{ value, under: bands[i]!.under }],
    )
    const spoiled = read.filter(({ under }) => under !== 'clean').map(({ value }) => value)
    const clean = read.filter(({ under, value }) => under === 'clean' && value < Math.min(Infinity, ...spoiled)).map(({ value }) => value)
    const { layerHeight, lineWidth } = resolveSettings(setup, spec.values).settings
    const contradicts = read.some(({ under, value }) => under === 'clean' && value > Math.min(Infinity, ...spoiled))
    if (clean.length === 0)
      return {
        found: read.length === 0 ? 'Nothing was read.' : 'Not even the steepest fin is clean.',
        evidence: [],
        advice: [],
        next: { kind: 'fan', why: 'More fan, or a cooler nozzle, before angles tell anything.' },
        warnings: [],
      }
    const last = Math.max(...clean)
    return {
      found: `Clean up to ${last}°: each line hangs out by ${unsupported(last, layerHeight, lineWidth).toFixed(3)} of its width.`,
      short: `${last}°`,
      evidence: [],
      advice: [{ of: 'spool', setting: 'supportAngle', value: last }],
      next: { kind: 'bridge', why: 'What hangs over is known: how far it spans.' },
      warnings: contradicts ? ['A fin beyond the first spoiled one is clean: the readings contradict each other.'] : [],
    }
  },
}

/** Share of a line's width that hangs out at an angle from the upright: h·tan θ/w. */
export const unsupported = (degrees: number, layerHeight: number, lineWidth: number): number =>
  (layerHeight * Math.tan((degrees * Math.PI) / 180)) / lineWidth
