import { resolveSettings } from '../../setup/resolve'
import { middleFor, tower, withNumber } from '../shapes/tower'
import { choice, measure, numberIn } from '../spec/question'
import type { TrialKind } from './kind'

/** Radius of the rod and side of the tip, mm. */
const [ROD, TIP] = [2, 7]
/** What a height at which a rod feathers, and a layer time at which a tip stays clean, scatter by. Assumed. */
const [SWAY_NOISE, COOLING_NOISE] = [0.3, 0.2]
/** A rod feathers where it sways by this share of a line. Assumed. */
const FEATHERS = 0.25

/** A thin rod that feathers where the nozzle pushes it further than a line forgives. */
export const thinRod: TrialKind = {
  id: 'thinRod',
  name: 'Thin rod',
  tells: 'how hard the nozzle pushes what it prints',
  how: 'Measure the height at which the rod’s side begins to feather.',
  narrows: ['sway.sideForce'],
  advises: [],
  owner: 'spool',
  size: { band: 10, foot: 2, length: 20 },
  varied: {
    label: 'Height',
    unit: 'mm',
    values: () => ({}),
    usual: () => ({ from: 10, to: 100, step: 10 }),
    within: ({ printer }) => ({ least: 1, most: printer.buildVolume[2] - 5, what: 'the height of the printer' }),
  },
  bandsRun: 'up',
  seenFrom: 'front',
  values: () => ({ wallCount: 2, infillDensity: 100, minLayerTime: 5, supports: 'off', brim: 'none' }),
  shape(kit, { size: { band, foot, length }, bands }) {
    return kit.cone(length / 2, length / 2, foot).plus(kit.cone(ROD, ROD, foot + bands.length * band))
  },
  questions: {
    band: [choice('side', 'Side', { clean: 'Clean', feathers: 'Feathers' })],
    whole: [measure('height', 'Feathers from', 'mm', 1, 400)],
  },
  judge({ spec, setup, bands, whole, foretold }) {
    const { band, foot } = spec.size
    const height = numberIn(whole, 'height')
    const index = height === undefined ? bands.findIndex((answers) => answers?.side === 'feathers') : Math.floor((height - foot) / band)
    if (index < 0 || (height === undefined && index === -1))
      return { found: 'It stays clean to its top.', evidence: [], advice: [], warnings: [] }
    const { lineWidth } = resolveSettings(setup, spec.values).settings
    const sway = foretold?.bands[Math.min(index, (foretold?.bands.length ?? 1) - 1)]?.swayMm
    const force = sway === undefined || sway <= 0 ? undefined : ((foretold?.inForce['sway.sideForce'] ?? 1) * FEATHERS * lineWidth) / sway
    return {
      found: `Feathers from ${height ?? foot + index * band} mm on.`,
      short: `${height ?? foot + index * band} mm`,
      evidence: force === undefined ? [] : [{ on: 'constant', constant: 'sway.sideForce', values: [force], noise: SWAY_NOISE }],
      advice: [],
      warnings: force === undefined ? ['What was foretold of this print is not known, so the force is not either.'] : [],
    }
  },
}

/** A thin column whose layers get ever more time to cool. */
export const smallTip: TrialKind = {
  id: 'smallTip',
  name: 'Small tip',
  tells: 'how long a small layer must take so that it stays clean',
  how: 'Look at the edges of each band: the first that stays sharp counts.',
  narrows: ['cooling.reach'],
  advises: ['minLayerTime'],
  owner: 'spool',
  varied: {
    label: 'Layer time',
    unit: 's',
    values: (value) => ({ minLayerTime: value }),
    usual: () => ({ from: 3, to: 15, step: 3 }),
    within: () => ({ least: 0, most: 120, what: 'a layer' }),
  },
  size: { band: 8, foot: 1, length: 16 },
  bandsRun: 'up',
  seenFrom: 'front',
  values: () => ({ wallCount: 2, infillDensity: 15, topLayers: 2, bottomLayers: 2, floorSpeed: 5, supports: 'off', brim: 'none' }),
  shape: (kit, spec) =>
    tower(spec, kit.box(16, 16, Math.max(spec.size.foot, 0.6)), (label) =>
      withNumber(kit, kit.post(TIP, TIP, spec.size.band), label, { depth: TIP, foot: middleFor(spec.size.band) }),
    ),
  questions: { band: [choice('edges', 'Edges', { soft: 'Soft, curled', sharp: 'Sharp' }, true)], whole: [] },
  judge({ spec, bands, foretold }) {
    const read = spec.bands.flatMap(({ value }, i) =>
      value === undefined || bands[i]?.edges === undefined ? [] : [{ value, i, edges: bands[i]!.edges }],
    )
    const soft = Math.max(0, ...read.filter(({ edges }) => edges === 'soft').map(({ value }) => value))
    const sharp = read.filter(({ edges, value }) => edges === 'sharp' && value > soft).sort((a, b) => a.value - b.value)[0]
    if (!sharp)
      return {
        found: read.length === 0 ? 'Nothing was read.' : 'No band stays sharp.',
        evidence: [],
        advice: [],
        warnings: read.length === 0 ? [] : ['More fan, or a cooler nozzle, before more time.'],
      }
    const margin = foretold?.bands[sharp.i]?.cooling
    const needs = soft > 0 ? Math.sqrt(soft * sharp.value) : sharp.value
    return {
      found: `Stays sharp from ${sharp.value} s a layer on.`,
      short: `${sharp.value} s`,
      // Margin is layer time over what the model needs: that over what was needed is how much more the fan takes off.
      evidence:
        margin === undefined || !(margin > 0)
          ? []
          : [
              {
                on: 'constant',
                constant: 'cooling.reach',
                values: [(sharp.value / margin / needs) * (foretold?.inForce['cooling.reach'] ?? 1)],
                noise: COOLING_NOISE,
              },
            ],
      advice: [{ of: 'spool', setting: 'minLayerTime', value: sharp.value }],
      warnings: [],
    }
  },
}
