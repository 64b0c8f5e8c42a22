import { raised } from '../shapes/strokes'
import { choice } from '../spec/question'
import type { TrialKind } from './kind'

const WARMER = 5

/** A pad with a tab: whether it sticks, and whether its layers hold. */
export const bed: TrialKind = {
  id: 'bed',
  name: 'Bed and layers',
  tells: 'whether the first layer sticks and the layers hold together',
  how: 'Let the bed cool, then pull at the tab and squeeze the ring until it gives.',
  narrows: [],
  advises: ['bedTemperature'],
  owner: 'spool',
  size: { band: 6, foot: 0.6, length: 40 },
  bandsRun: 'up',
  seenFrom: 'front',
  values: () => ({ wallCount: 2, infillDensity: 15, topLayers: 3, bottomLayers: 3, supports: 'off', brim: 'none' }),
  shape(kit, { size: { foot, band } }, { nozzle }) {
    const pad = kit.box(40, 40, Math.max(foot, 0.6)).plus(kit.box(12, 18, Math.max(foot, 0.6)).at(0, -26, 0))
    const ring = kit.cone(11, 11, foot + band).minus(kit.cone(11 - 2 * nozzle.bore, 11 - 2 * nozzle.bore, band).at(0, 0, foot))
    // Strokes that lie flat, to be read in front of the ring.
    const strokes = raised(kit, '08', 0.4)?.turned(-90, 0, 0).at(12, -18, Math.max(foot, 0.6))
    return strokes ? pad.plus(ring, strokes) : pad.plus(ring)
  },
  questions: {
    band: [],
    whole: [
      choice('corners', 'Corners', { flat: 'Lie flat', lift: 'Lift' }, true),
      choice('pull', 'At the tab it comes off', { easily: 'Too easily', well: 'Well', hardly: 'Hardly' }, true),
      choice('strokes', 'Strokes on the pad', { sharp: 'Sharp', blurred: 'Run together' }),
      choice('squeezed', 'Squeezed, the ring', { bends: 'Bends', splits: 'Splits between layers' }, true),
    ],
  },
  judge({ setup, whole }) {
    const bedNow = setup.spool?.defaults.bedTemperature ?? setup.material.defaults.bedTemperature ?? setup.material.bedRange[0]
    const isLoose = whole.corners === 'lift' || whole.pull === 'easily'
    const splits = whole.squeezed === 'splits'
    const warmer = Math.min(bedNow + WARMER, Math.max(bedNow, setup.material.bedRange[1]))
    return {
      found: `${isLoose ? 'It does not hold to the bed' : 'It holds to the bed'}; ${splits ? 'its layers split' : 'its layers hold'}.`,
      short: isLoose ? 'loose' : splits ? 'splits' : 'holds',
      evidence: [],
      advice: isLoose && warmer > bedNow ? [{ of: 'spool', setting: 'bedTemperature', value: warmer }] : [],
      next: splits
        ? { kind: 'temperature', why: 'Layers that split are too cold: a tower towards the hot end.' }
        : isLoose
          ? { kind: 'bed', values: { bedTemperature: warmer }, why: 'The same once more, with a warmer bed and a clean plate.' }
          : { kind: 'flowLadder', why: 'It sticks and holds: how much flow it takes.' },
      warnings:
        whole.strokes === 'blurred'
          ? ['Strokes that run together: the first layers are squeezed, or too much is pressed out.']
          : whole.pull === 'hardly'
            ? ['Let the bed cool down before you pull: it may take a piece of the plate with it.']
            : [],
    }
  },
}
