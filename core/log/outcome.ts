import { z } from 'zod'
import { scoreOf } from '../learning/coverage'
import type { Evidence } from '../learning/evidence'
import type { Scores } from '../setup/learned'
import { type ForetoldPrint, inForceAt, onScale } from './foretoldPrint'

/** How a print ended. */
export const results = ['good', 'usable', 'spoiled', 'stopped'] as const
export type Result = (typeof results)[number]

/** Places of a surface that are judged by themselves. */
export const regions = ['sides', 'top', 'underside', 'seam'] as const
const mark = z.number().int().min(1).max(5)
const grams = z.number().positive().max(30_000)
const height = z.number().min(0).max(3000)

/** A reel that was printed from: on the scale before and after, and from which height of the print on. */
const usedSpoolSchema = z.object({
  spool: z.string().min(1).max(64),
  beforeG: grams.optional(),
  afterG: grams.optional(),
  fromZ: height.optional(),
  /** It ended there: what the scale shows afterwards is the empty reel. */
  ranOut: z.boolean().optional(),
})

/** What a print came to, as its maker saw it. Every answer but the first may be left out. */
export const outcomeSchema = z
  .object({
    result: z.enum(results),
    /** At which it was spoiled or stopped, mm. */
    atZ: height.optional(),
    /** From the press of start to the last move, s. */
    actualS: z.number().positive().max(1e7).optional(),
    /** With all that was printed, supports and brim too. */
    weighedG: grams.optional(),
    spools: z.array(usedSpoolSchema).max(16).default([]),
    marks: z.partialRecord(z.enum(regions), mark).default({}),
    /** By caliper, mm, along the axes as it lay. */
    sizeMm: z.partialRecord(z.enum(['X', 'Y', 'Z']), z.number().positive().max(3000)).optional(),
    /** Strength by hand, and how it fits. */
    strength: mark.optional(),
    fit: mark.optional(),
    faults: z
      .array(z.object({ what: z.string().min(1).max(200), atZ: height.optional() }))
      .max(40)
      .default([]),
    /** In Markdown. */
    note: z.string().max(20_000).default(''),
    /** Better or worse is only said against a stated print. */
    against: z.object({ print: z.uuid(), verdict: z.enum(['better', 'same', 'worse']) }).optional(),
  })
  .superRefine((outcome, context) => {
    const refuse = (message: string, path: (string | number)[]): void => context.addIssue({ code: 'custom', message, path })
    for (const [i, { beforeG, afterG }] of outcome.spools.entries())
      if (beforeG !== undefined && afterG !== undefined && afterG > beforeG)
        refuse(`The reel weighs more after the print (${afterG} g) than before it (${beforeG} g): weigh it again.`, ['spools', i, 'afterG'])
  })
export type PrintOutcome = z.infer<typeof outcomeSchema>

/** What went off the reels, g; undefined unless each was weighed before and after. */
export function usedG({ spools }: Pick<PrintOutcome, 'spools'>): number | undefined {
  if (spools.length === 0) return undefined
  let sum = 0
  for (const { beforeG, afterG } of spools) {
    if (beforeG === undefined || afterG === undefined) return undefined
    sum += beforeG - afterG
  }
  return sum > 0 ? sum : undefined
}

/** Whether it ran to its end: only then do its time and its mass tell of what was foretold. */
export const isWhole = ({ result }: Pick<PrintOutcome, 'result'>): boolean => result === 'good' || result === 'usable'

export interface Taught {
  readonly evidence: readonly Evidence[]
  readonly scores: Scores
}

/** What a print says about constants, and by how much what was foretold was off. */
export function taughtBy(foretold: ForetoldPrint, outcome: PrintOutcome): Taught {
  if (!isWhole(outcome)) return { evidence: [], scores: {} }
  const { timeS, startS, massG, slope, spreads } = foretold
  const evidence: Evidence[] = []
  const scores: { time?: number; filament?: number } = {}
  if (outcome.actualS !== undefined) {
    const pace = inForceAt(foretold, 'print.pace', 1)
    const acceleration = inForceAt(foretold, 'print.acceleration', 1)
    evidence.push({
      on: 'timed',
      // As it would have been foretold with nothing known of the machine.
      predictedS: timeS / (pace * acceleration ** -slope),
      slope,
      startS: Math.max(0, startS - inForceAt(foretold, 'print.start', 0)),
      actualS: outcome.actualS,
    })
    scores.time = scoreOf(outcome.actualS, timeS + startS, spreads.time)
  }
  const weighedG = outcome.weighedG ?? usedG(outcome)
  if (weighedG !== undefined && massG > 0) {
    evidence.push({ on: 'weight', predictedG: massG / inForceAt(foretold, 'print.flow', 1), weighedG })
    scores.filament = scoreOf(weighedG, massG, onScale(spreads.filament, massG))
  }
  return { evidence, scores }
}
