import { z } from 'zod'
import { seenThingSchema } from './instruments'

/** Trials whose towers can be read for practice. */
export const towerKinds = ['temperature', 'flowLadder', 'retraction'] as const
export type TowerKind = (typeof towerKinds)[number]

export const towerBandSchema = z.object({ value: z.number(), fromZ: z.number().min(0), toZ: z.number().positive() })

/** A tower that is asked for: a trial of some printer and reel, with its program as the body of what is sent. */
export const towerAskSchema = z.object({
  kind: z.enum(towerKinds),
  bands: z
    .string()
    .max(8000)
    .transform((text, context) => {
      try {
        return JSON.parse(text) as unknown
      } catch {
        context.addIssue({ code: 'custom', message: 'Bands are a list in JSON.' })
        return z.NEVER
      }
    })
    .pipe(z.array(towerBandSchema).min(1).max(60)),
})
/** Largest program of a tower, bytes. */
export const LARGEST_TOWER = 32 * 2 ** 20

/** A tower to be read. What it really is is told once it was read. */
export const drawnTowerSchema = z.object({ id: z.uuid(), thing: seenThingSchema })
export type DrawnTower = z.infer<typeof drawnTowerSchema>

export const towerAnswerSchema = z.object({ value: z.number().min(0).max(1000) })
/** What it really is, and what the trial's own rule makes of what is to be seen. */
export const towerTruthSchema = z.object({ truth: z.number(), rule: z.number().optional() })
export type TowerTruth = z.infer<typeof towerTruthSchema>
