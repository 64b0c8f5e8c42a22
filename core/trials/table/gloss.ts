import { medians } from '../../constants/constants'
import { dullsAt } from '../../physics/finish/gloss'
import { resolveSettings } from '../../setup/resolve'
import { shell } from '../shapes/tower'
import { choice } from '../spec/question'
import type { TrialKind } from './kind'

/** What the turning flow of a spool scatters by when it is read between two bands. Assumed. */
const NOISE = 0.12

export const gloss: TrialKind = {
  id: 'gloss',
  name: 'Gloss',
  tells: 'at which speed its wall turns from shiny to matte',
  how: 'Turn it under a lamp: mark the bands that shine and those that are dull.',
  narrows: ['finish.glossTurn'],
  advises: [],
  owner: 'spool',
  varied: {
    label: 'Outer wall',
    unit: 'mm/s',
    values: (value) => ({ outerWallSpeed: value }),
    usual: ({ printer: { limits } }) => ({ from: 20, to: Math.min(200, limits.speed.x), step: 20 }),
    within: ({ printer: { limits } }) => ({ least: 1, most: limits.speed.x, what: 'the axes' }),
  },
  size: { band: 5, foot: 1, length: 60 },
  bandsRun: 'up',
  seenFrom: 'front',
  values: () => ({ wallCount: 1, infillDensity: 0, bottomLayers: 3, topLayers: 0, minLayerTime: 0, supports: 'off', brim: 'none' }),
  shape: (kit, spec, setup) => shell(kit, spec, spec.size.length, 24, resolveSettings(setup, spec.values).settings.lineWidth),
  questions: { band: [choice('wall', 'Wall', { shiny: 'Shiny', between: 'Between', matte: 'Matte' }, true)], whole: [] },
  judge({ spec, setup, bands }) {
    const speeds = (as: string): number[] =>
      spec.bands.flatMap(({ value }, i) => (value !== undefined && bands[i]?.wall === as ? [value] : []))
    const [shiny, matte] = [Math.max(0, ...speeds('shiny')), Math.min(Infinity, ...speeds('matte'))]
    if (shiny === 0 || matte === Infinity)
      return {
        found: shiny === 0 ? 'No band shines.' : 'No band is matte.',
        evidence: [],
        advice: [],
        warnings: ['The turn lies beyond these bands: repeat it slower or faster.'],
      }
    const { layerHeight, lineWidth, nozzleTemperature } = resolveSettings(setup, spec.values).settings
    const turn = Math.sqrt(shiny * matte)
    const flow = turn * layerHeight * lineWidth
    // The constant is that of plain PLA at mid-label; the rest is what the model makes of material and heat.
    const own = flow / dullsAt(setup.material, nozzleTemperature, { ...(setup.constants ?? medians).finish, glossTurn: 1 })
    return {
      found: `Turns between ${shiny} and ${matte} mm/s, at about ${flow.toFixed(1)} mm³/s.`,
      short: `${flow.toFixed(1)} mm³/s`,
      evidence: [{ on: 'constant', constant: 'finish.glossTurn', values: [own], noise: NOISE }],
      advice: [],
      next: { kind: 'dimensions', why: 'How it looks is known: whether it keeps its size.' },
      warnings: matte < shiny ? ['A slower band is matte where a faster one shines: the readings contradict each other.'] : [],
    }
  },
}
