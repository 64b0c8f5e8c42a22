import { z } from 'zod'

/** A tower to be read, as it stands on the table. What it really is is told once it was read. */
export const drawnTowerSchema = z.object({
  seed: z.number().int(),
  kind: z.enum(['temperature', 'flow']),
  unit: z.string(),
  bands: z
    .array(
      z.object({
        label: z.string(),
        strings: z.array(z.object({ at: z.number(), sag: z.number(), from: z.number(), to: z.number() })).readonly(),
        gaps: z.array(z.object({ x: z.number(), at: z.number(), width: z.number() })).readonly(),
      }),
    )
    .readonly(),
})
export type DrawnTower = z.infer<typeof drawnTowerSchema>

export const towerAnswerSchema = z.object({ value: z.number().min(0).max(1000) })
/** What it really is, and what the trial's own rule makes of what is to be seen. */
export const towerTruthSchema = z.object({ truth: z.number(), rule: z.number().optional() })
export type TowerTruth = z.infer<typeof towerTruthSchema>
