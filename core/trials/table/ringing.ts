import { dampingOf, frequencyOf } from '../../learning/rings'
import { resolveSettings } from '../../setup/resolve'
import { shell } from '../shapes/tower'
import { measure, numberIn } from '../spec/question'
import type { Advice, TrialKind } from './kind'

/** What a frequency that is read off waves scatters by, and a damping. Assumed. */
const [NOISE, DAMPING_NOISE] = [0.05, 0.2]

export const ringing: TrialKind = {
  id: 'ringing',
  name: 'Ringing',
  tells: 'at which frequency this printer’s frame swings, along each axis',
  how: 'Choose a band whose waves behind the corner are plain; count some of them and measure their length with a ruler along the wall.',
  narrows: ['finish.frameFrequency', 'finish.ringDamping'],
  advises: ['frameFrequency'],
  owner: 'printer',
  varied: {
    label: 'Outer wall',
    unit: 'mm/s',
    values: (value) => ({ outerWallSpeed: value }),
    usual: ({ printer: { limits } }) => {
      const most = Math.min(limits.speed.x, Math.sqrt(0.5 * limits.acceleration.x * ringing.size.length))
      const to = Math.max(60, Math.min(180, Math.floor(most / 20) * 20))
      return { from: Math.max(20, to - 100), to, step: 20 }
    },
    within: ({ printer: { limits } }) => ({ least: 10, most: limits.speed.x, what: 'the axes' }),
  },
  size: { band: 6, foot: 1, length: 60 },
  bandsRun: 'up',
  seenFrom: 'front',
  values: ({ printer: { limits } }) => {
    const acceleration = Math.min(limits.acceleration.x, limits.acceleration.y)
    return {
      wallCount: 1,
      infillDensity: 0,
      bottomLayers: 3,
      topLayers: 0,
      minLayerTime: 0,
      acceleration,
      outerWallAcceleration: acceleration,
      supports: 'off',
      brim: 'none',
    }
  },
  shape: (kit, spec, setup) => shell(kit, spec, spec.size.length, spec.size.length, resolveSettings(setup, spec.values).settings.lineWidth),
  questions: {
    band: [],
    whole: [
      measure('speed', 'Speed of the band', 'mm/s', 1, 1000, true),
      measure('wavesX', 'Waves counted, front wall (X)', '', 1, 100),
      measure('lengthX', 'their length', 'mm', 0.1, 400),
      measure('wavesY', 'Waves counted, side wall (Y)', '', 1, 100),
      measure('lengthY', 'their length', 'mm', 0.1, 400),
      measure('fades', 'Waves until they are half as high', '', 0.5, 100),
    ],
  },
  judge({ spec, whole }) {
    const [speed, fades] = [numberIn(whole, 'speed'), numberIn(whole, 'fades')]
    const along = (axis: 'X' | 'Y'): number | undefined => {
      const [waves, length] = [numberIn(whole, `waves${axis}`), numberIn(whole, `length${axis}`)]
      return speed === undefined || waves === undefined || length === undefined ? undefined : frequencyOf(speed, waves, length)
    }
    const [x, y] = [along('X'), along('Y')]
    if (x === undefined && y === undefined)
      return { found: 'Count waves and measure their length along one wall at least.', evidence: [], advice: [], warnings: [] }
    const isBand = spec.bands.some(({ value }) => value === speed)
    const advice: Advice[] = []
    if (x !== undefined) advice.push({ of: 'printer', setting: 'frameFrequency', value: Math.round(x * 10) / 10 })
    if (y !== undefined)
      advice.push({ of: 'printer', setting: x === undefined ? 'frameFrequency' : 'frameFrequencyY', value: Math.round(y * 10) / 10 })
    const told = [x === undefined ? '' : `${x.toFixed(1)} Hz along X`, y === undefined ? '' : `${y.toFixed(1)} Hz along Y`].filter(
      (words) => words !== '',
    )
    const damping = fades === undefined ? undefined : dampingOf(2, 1, fades)
    return {
      found: `The frame swings at ${told.join(' and ')}${damping === undefined ? '' : `, damped by ${(100 * damping).toFixed(1)} % of the critical`}.`,
      short: `${(x ?? y)!.toFixed(0)} Hz`,
      evidence: [
        { on: 'constant', constant: 'finish.frameFrequency', values: [(x ?? y)!], noise: NOISE },
        ...(damping === undefined
          ? []
          : [{ on: 'constant' as const, constant: 'finish.ringDamping' as const, values: [damping], noise: DAMPING_NOISE }]),
      ],
      advice,
      warnings: isBand ? [] : [`No band of this print ran at ${speed} mm/s.`],
    }
  },
}
