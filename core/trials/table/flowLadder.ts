import { medians } from '../../constants/constants'
import { flowModel } from '../../physics/melt/flowLimit'
import { resolveSettings, type Setup } from '../../setup/resolve'
import { digit } from '../shapes/strokes'
import { withNumber } from '../shapes/tower'
import { choice, measure, numberIn } from '../spec/question'
import { heightsOf, type TrialSpec } from '../spec/trial'
import type { BandRange, TrialKind } from './kind'

/** Depth of the ring and of the block at its end, mm. */
const [DEPTH, BLOCK] = [14, 12]
const MM = 100
/** Of the length that a line takes to reach its speed and to stop again; the rest runs at it. */
const RUNNING = 0.75

/** Layer height of a ladder as a share of the bore: thick, so that much flow needs no speed that a machine does not have. */
const heightOf = ({ nozzle }: Setup): number => Math.round(0.6 * nozzle.bore * MM) / MM

/** Speed, mm/s, at which the test's own line carries a flow, mm³/s. */
const speedOf = (flow: number, { layerHeight, lineWidth }: { layerHeight: number; lineWidth: number }): number =>
  flow / (layerHeight * lineWidth)

/** Fastest speed, mm/s, that a line of this length reaches and holds for a quarter of it: v²/a is what starting and stopping take. */
function fastest({ printer: { limits } }: Setup, length: number): number {
  const speed = Math.min(limits.speed.x, limits.speed.y)
  return Math.min(speed, Math.sqrt(Math.min(limits.acceleration.x, limits.acceleration.y) * RUNNING * length))
}

const lineOf = (setup: Setup, spec: Pick<TrialSpec, 'values'>): { layerHeight: number; lineWidth: number } => {
  const { layerHeight, lineWidth } = resolveSettings(setup, spec.values).settings
  return { layerHeight, lineWidth }
}

/** Where it is thought to fail at the temperature that it is printed at. */
const expected = (setup: Setup): number =>
  flowModel(setup, resolveSettings(setup, {}).settings.nozzleTemperature, setup.constants ?? medians).failsAt

/** Two long straight walls whose flow rises band by band, until the hot end cannot follow (CP-F12, common practice). */
export const flowLadder: TrialKind = {
  id: 'flowLadder',
  name: 'Flow ladder',
  tells: 'how much flow the hot end melts of this spool at one temperature',
  how: 'With a ruler, measure the height of the first dull place, hole or gap on each long side; the lowest counts. Or click the first band that is not whole.',
  narrows: ['melt.ladder', 'melt.ladderSlope'],
  advises: [],
  owner: 'spool',
  varied: {
    label: 'Flow',
    unit: 'mm³/s',
    values: (flow, setup, spec) => {
      const speed = Math.round(speedOf(flow, lineOf(setup, spec)) * 10) / 10
      return { outerWallSpeed: speed, innerWallSpeed: speed, flowLimit: Math.min(200, Math.ceil(flow * 2)) }
    },
    usual: (setup) => {
      const most = Math.floor(fastest(setup, flowLadder.size.length) * heightOf(setup) * resolveSettings(setup, {}).settings.lineWidth)
      const fails = expected(setup)
      const from = Math.max(1, Math.floor(0.5 * fails))
      return { from, to: Math.max(from + 2, Math.min(Math.ceil(1.5 * fails), most)), step: 1 }
    },
  },
  size: { band: 1.2, foot: 1.2, length: 100 },
  bandsRun: 'up',
  seenFrom: 'front',
  values: (setup) => {
    const { acceleration } = setup.printer.limits
    const most = Math.min(acceleration.x, acceleration.y)
    return {
      layerHeight: heightOf(setup),
      firstLayerHeight: heightOf(setup),
      wallCount: 1,
      infillDensity: 10,
      bottomLayers: 3,
      topLayers: 3,
      acceleration: most,
      outerWallAcceleration: most,
      minLayerTime: 0,
      supports: 'off',
      brim: 'none',
    }
  },
  shape(kit, spec, setup) {
    const { lineWidth } = resolveSettings(setup, spec.values).settings
    const {
      size: { band, foot, length },
      bands,
    } = spec
    const height = foot + bands.length * band
    const wall = 2 * lineWidth
    const ring = kit
      .box(length, DEPTH, height)
      .minus(kit.box(length - 2 * wall, DEPTH - 2 * wall, height).at(0, 0, foot))
      .plus(kit.box(BLOCK, DEPTH, height).at((length - BLOCK) / 2, 0, 0))
    const every = Math.max(1, Math.ceil((digit.height + 1) / band))
    return bands.reduce((all, { label }, i) => {
      const { fromZ } = heightsOf(spec, i)
      return i % every === 0 && fromZ + digit.height < height
        ? withNumber(kit, all, label, { depth: DEPTH, foot: fromZ, x: (length - BLOCK) / 2 })
        : all
    }, ring)
  },
  questions: {
    band: [choice('wall', 'Walls', { whole: 'Whole', dull: 'Dull, holes or gaps' })],
    whole: [measure('front', 'First fault in front', 'mm', 0, 400), measure('back', 'First fault at the back', 'mm', 0, 400)],
  },
  refuse(spec, setup) {
    const most = fastest(setup, spec.size.length)
    const asked = Math.max(...spec.bands.map(({ values }) => values.outerWallSpeed ?? 0))
    if (asked <= most) return undefined
    const { limits } = setup.printer
    const axis = Math.min(limits.speed.x, limits.speed.y)
    if (asked > axis)
      return `${Math.round(asked)} mm/s is more than the ${axis} mm/s of ${setup.printer.name}: end at ${Math.floor(speedFlow(most, setup, spec))} mm³/s, or take thicker layers.`
    const needs = Math.ceil(asked ** 2 / Math.min(limits.acceleration.x, limits.acceleration.y) / RUNNING / 10) * 10
    return `The axes do not reach ${Math.round(asked)} mm/s in ${spec.size.length} mm: ${needs} mm would do, or end at ${Math.floor(speedFlow(most, setup, spec))} mm³/s.`
  },
  judge({ spec, setup, bands, whole }) {
    const { settings } = resolveSettings(setup, spec.values)
    const at = settings.nozzleTemperature
    const heights = [numberIn(whole, 'front'), numberIn(whole, 'back')].filter((height) => height !== undefined)
    const byBand = bands.findIndex((answers) => answers?.wall === 'dull')
    const byRuler = heights.length > 0 ? Math.floor((Math.min(...heights) - spec.size.foot) / spec.size.band + 1e-9) : undefined
    const index = Math.min(byRuler ?? Infinity, byBand === -1 ? Infinity : byBand)
    const [first, second] = spec.bands.map(({ value = 0 }) => value) as [number, number | undefined]
    const step = second === undefined ? 1 : second - first
    const last = spec.bands.at(-1)?.value ?? first
    if (index >= spec.bands.length) {
      const range: BandRange = { from: last - 2 * step, to: last + 8 * step, step }
      return {
        found: `It did not fail up to ${last} mm³/s at ${at} °C.`,
        evidence: [],
        advice: [],
        next: { kind: 'flowLadder', range, why: 'It never failed: go on from there.' },
        warnings: heights.length > 0 ? [`${Math.min(...heights)} mm is above the last band: measure from the bed.`] : [],
      }
    }
    const fails = first + step * Math.max(0, index)
    const warnings = [
      ...(heights.length === 1 ? ['Only one side was measured: the other may fail earlier.'] : []),
      ...(index <= 0 ? ['It failed at once: begin lower, or look for a clog.'] : []),
    ]
    return {
      found: `Fails at ${fails} mm³/s and ${at} °C (${Math.round(speedOf(fails, settings))} mm/s of its own line); last whole at ${fails - step}. Ask ${(0.85 * fails).toFixed(1)} at most.`,
      short: `${fails} mm³/s at ${at} °C`,
      evidence: fails > 0 && index >= 0 ? [{ on: 'ladder', temperature: at, flow: fails }] : [],
      advice: [],
      next: { kind: 'flowLadder', values: { nozzleTemperature: at + 10 }, why: `Once more at ${at + 10} °C: how much 10 °C bring.` },
      warnings,
    }
  },
}

const speedFlow = (speed: number, setup: Setup, spec: TrialSpec): number => {
  const { layerHeight, lineWidth } = lineOf(setup, spec)
  return speed * layerHeight * lineWidth
}
