import { cleanWindow, type Seen, type SeenAt } from '../../learning/cleanWindow'
import { EIGHTY } from '../../learning/coverage'
import { middleFor, tower, withNumber, withSunkNumber } from '../shapes/tower'
import { wedge } from '../shapes/wedge'
import type { Solid, SolidKit } from '../solids/solidKernel'
import { choice } from '../spec/question'
import type { BandRange, NextTrial, TrialKind } from './kind'

/** Two columns, what spans and hangs between them, and spires, mm. */
const [COLUMN, DEPTH, SPAN] = [11, 8, 20]
const SLAB = 1.6
/** No tower is worth the while below this, °C. */
const FINEST = 2
/** Bands of the next tower that this one has, too, where the best one lies at its end. */
const OVERLAP = 3

/** A bridge of 20 mm, overhangs of 45° and 60°, two spires and a flat top in each band. */
export const temperature: TrialKind = {
  id: 'temperature',
  name: 'Temperature',
  tells: 'the nozzle temperature at which this spool prints clean',
  how: 'Look at each band: gaps and rough strokes where it is too cold, strings and sagging bridges where it is too hot. Twist it by hand: bands that snap are too cold.',
  narrows: [],
  advises: ['nozzleTemperature'],
  owner: 'spool',
  varied: {
    label: 'Nozzle',
    unit: '°C',
    values: (value) => ({ nozzleTemperature: value }),
    usual: ({
      material: {
        nozzleRange: [low, high],
      },
      printer,
    }) => ({ from: low, to: Math.min(high, printer.hotEnd.maxTemperature), step: 5 }),
    within: ({ material, printer }) => ({
      least: material.nozzleRange[0] - 15,
      most: Math.min(material.nozzleRange[1] + 20, printer.hotEnd.maxTemperature),
      what: 'the spool’s label, and some beyond, as far as the hot end goes',
    }),
  },
  size: { band: 10, foot: 1, length: 42 },
  bandsRun: 'up',
  seenFrom: 'front',
  values: () => ({ wallCount: 2, infillDensity: 10, topLayers: 3, bottomLayers: 2, heatChange: 'wait', supports: 'off', brim: 'none' }),
  shape: (kit, spec) =>
    tower(spec, kit.box(SPAN + 2 * COLUMN + 8, DEPTH + 8, Math.max(spec.size.foot, 0.6)), (label) => band(kit, label, spec.size.band)),
  questions: {
    band: [
      choice('seen', 'Looks', { gaps: 'Gaps, rough', clean: 'Clean', strings: 'Strings, sags' }, true),
      choice('bond', 'Twisted by hand', { snaps: 'Snaps', holds: 'Holds' }),
      choice('gloss', 'Wall', { matte: 'Matte', shiny: 'Shiny' }),
    ],
    whole: [],
  },
  judge({ spec, bands, setup }) {
    const read = spec.bands.flatMap(({ value }, i): SeenAt[] => {
      const answers = bands[i]
      if (value === undefined || answers?.seen === undefined) return []
      // A band that snaps by hand is too cold however it looks.
      return [{ temperature: value, seen: answers.bond === 'snaps' ? 'gaps' : (answers.seen as Seen) }]
    })
    const window = cleanWindow(read)
    const clean = read.filter(({ seen }) => seen === 'clean')
    if (!window) return { found: 'Nothing was read.', evidence: [], advice: [], warnings: [] }
    const steps = spec.bands.map(({ value = 0 }) => value)
    const step = Math.abs((steps[1] ?? steps[0]! + 5) - steps[0]!)
    if (clean.length === 0)
      return {
        found: 'No band is clean.',
        evidence: [],
        advice: [],
        next: { kind: 'temperature', range: onward(read, step), why: 'No band is clean: go on towards the better end.' },
        warnings: ['Strings at every temperature point to wet filament or to retraction, not to heat.'],
      }
    const best = Math.round(Math.min(Math.max(window.best, Math.min(...steps)), Math.max(...steps)))
    const [low, high] = setup.material.nozzleRange
    const next = nextTower(read, clean, best, step)
    return {
      found: `Clean from ${Math.round(window.low)} to ${Math.round(window.high)} °C; best at ${best} ± ${Math.max(1, Math.round(EIGHTY * window.spread))} °C.`,
      short: `${best} °C`,
      evidence: [],
      advice: [{ of: 'spool', setting: 'nozzleTemperature', value: best }],
      ...(next ? { next } : { next: { kind: 'bed', why: `The temperature is known to ${FINEST} °C.` } as const }),
      warnings:
        best < low || best > high ? [`${best} °C lies outside the label, ${low} to ${high} °C: repeat it before leaning on it.`] : [],
    }
  },
}

function band(kit: SolidKit, label: string, height: number): Solid {
  const out = (SPAN + COLUMN) / 2
  const column = (x: number): Solid => kit.post(COLUMN, DEPTH, height).at(x, 0, 0)
  const slab = kit.box(SPAN + 2, DEPTH, SLAB).at(0, 0, height - SLAB)
  const spire = (x: number): Solid => kit.cone(1.6, 0.7, height - SLAB - 1.5).at(x, 0, -0.05)
  // 45° and 60° from the upright, to either side.
  const steep = wedge(kit, 4, 4, DEPTH).at(out + COLUMN / 2, 0, height - 4)
  const flat = wedge(kit, 4, 4 / Math.tan(Math.PI / 3), DEPTH)
    .turned(0, 0, 180)
    .at(-out - COLUMN / 2, 0, height - 4 / Math.tan(Math.PI / 3))
  const body = column(-out).plus(column(out), slab, spire(-4), spire(4), steep, flat)
  const place = { depth: DEPTH, foot: middleFor(height), room: COLUMN - 1 }
  return withSunkNumber(kit, withNumber(kit, body, label, { ...place, x: -out }), label, { ...place, x: out })
}

/** The way in which it gets better, one tower further. */
function onward(read: readonly SeenAt[], step: number): BandRange {
  const cold = read.filter(({ seen }) => seen === 'gaps').length > read.length / 2
  const temperatures = read.map(({ temperature }) => temperature)
  const [low, high] = [Math.min(...temperatures), Math.max(...temperatures)]
  return cold ? { from: high, to: high + 4 * step, step } : { from: low - 4 * step, to: low, step }
}

/** A winner at an end goes on that way, overlapping three bands; else half the step about it, down to the finest worth printing. */
function nextTower(read: readonly SeenAt[], clean: readonly SeenAt[], best: number, step: number): NextTrial | undefined {
  const temperatures = read.map(({ temperature }) => temperature)
  const [low, high] = [Math.min(...temperatures), Math.max(...temperatures)]
  const isClean = (at: number): boolean => clean.some(({ temperature }) => temperature === at)
  const kind = 'temperature'
  if (isClean(high) && high > low)
    return {
      kind,
      range: { from: high - (OVERLAP - 1) * step, to: high + 3 * step, step },
      why: 'The hottest band is clean: it may go on that way.',
    }
  if (isClean(low) && high > low)
    return {
      kind,
      range: { from: low - 3 * step, to: low + (OVERLAP - 1) * step, step },
      why: 'The coldest band is clean: it may go on that way.',
    }
  if (step <= FINEST) return undefined
  const half = Math.max(FINEST, Math.round(step / 2))
  return { kind, range: { from: best - 2 * half, to: best + 2 * half, step: half }, why: `Half the step about ${best} °C.` }
}
