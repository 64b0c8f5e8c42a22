import { z } from 'zod'
import type { ConstantId } from '../constants/constants'
import { type Doubtful, doubt, rangeOf, reachOf, spreadOf } from '../doubt/doubt'
import { figures } from '../figures/figures'
import { SCALE_G } from '../learning/flowFactor'
import type { Purpose } from '../physics/strength/purpose'
import type { Prediction } from '../pipeline/predict'

/** What heating, homing and purging take on a printer that does not tell, s. Assumed. */
export const UNTOLD_START_S = 150

const figureSchema = z.object({
  id: z.string(),
  label: z.string(),
  value: z.number(),
  text: z.string(),
  unit: z.string(),
  /** 80 % range, in the figure's base unit. */
  low: z.number(),
  high: z.number(),
})

/** What was foretold of a print before it was made, and on what that rested. It is kept as it was: later edits change nothing of it. */
export const foretoldPrintSchema = z.object({
  /** Of its moves, and of what comes before the first line. */
  timeS: z.number().positive(),
  startS: z.number().min(0),
  massG: z.number().min(0),
  cost: z.number().min(0),
  heightMm: z.number().min(0),
  /** Along X, Y and Z as it lies, mm; prints of before that was kept have none. */
  sizeMm: z.tuple([z.number(), z.number(), z.number()]).optional(),
  /** −∂ln T/∂ln a: by how much its moves take less as acceleration grows. */
  slope: z.number().min(0).max(1),
  /** Standard deviations of the logarithms of the whole time and of the mass. */
  spreads: z.object({ time: z.number().positive(), filament: z.number().positive() }),
  /** Standard deviations that an 80 % range reached to either side. */
  reach: z.object({ time: z.number().positive(), filament: z.number().positive() }),
  /** Constants that were known by then; all others stood as their table has them. */
  inForce: z.record(z.string(), z.number()),
  figures: z.array(figureSchema),
})
export type ForetoldPrint = z.infer<typeof foretoldPrintSchema>

/** Freezes what a prediction says of a print. */
export function foretoldPrint(prediction: Prediction, of: Doubtful, purpose: Purpose): ForetoldPrint {
  const { timeS, startUpS: startS = UNTOLD_START_S, filament } = prediction
  return {
    timeS,
    startS,
    massG: filament.massG,
    cost: filament.cost,
    heightMm: prediction.mesh.sizeMm[2],
    sizeMm: [...prediction.mesh.sizeMm],
    slope: Math.min(1, Math.max(0, -(of.slopes['print.acceleration']?.time ?? 0))),
    spreads: { time: spreadOf('time', withStart(of, timeS, startS)), filament: spreadOf('filament', of) },
    reach: { time: reachOf('time', of), filament: reachOf('filament', of) },
    inForce: Object.fromEntries(Object.entries(of.setup.known ?? {}).map(([id, { value }]) => [id, value])),
    figures: figures.map((figure) => {
      const { value, text, unit } = figure.of(prediction, purpose)
      const [low, high] = rangeOf(value, doubt(figure.id, of))
      return { id: figure.id, label: figure.label, value, text, unit, low, high }
    }),
  }
}

/** Slopes of the time from the press of start to the end in place of those of the moves. */
function withStart({ slopes, setup }: Doubtful, timeS: number, startS: number): Doubtful {
  const moves = timeS / (timeS + startS)
  return {
    setup,
    slopes: {
      ...Object.fromEntries(Object.entries(slopes).map(([id, own]) => [id, { time: (own?.time ?? 0) * moves }])),
      'print.start': { time: 1 / (timeS + startS) },
    },
  }
}

/** Spread of what a scale says of a mass: what it is off by counts on a small print. */
export const onScale = (spread: number, massG: number): number => Math.hypot(spread, SCALE_G / massG)

/** 80 % range of the time from start to end, and of what a scale will say. */
export const wholeRanges = ({ timeS, startS, massG, spreads, reach }: ForetoldPrint) => ({
  time: rangeOf(timeS + startS, reach.time * spreads.time),
  mass: rangeOf(massG, reach.filament * onScale(spreads.filament, Math.max(1e-3, massG))),
})

/** A constant as it was in force; as its table has it where nothing was known. */
export const inForceAt = ({ inForce }: Pick<ForetoldPrint, 'inForce'>, id: ConstantId, median: number): number => inForce[id] ?? median
