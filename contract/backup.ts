import { z } from 'zod'

/** What stands in the manifest of a backup: docs/backup.md. */
export const backupManifestSchema = z.object({
  format: z.literal('sable-lantern/backup'),
  version: z.literal(1),
  writtenAt: z.string(),
  /** Steps of the schema that the data has behind it. */
  steps: z.array(z.string()).min(1),
  files: z.array(z.object({ path: z.string(), bytes: z.number().int().nonnegative(), sha256: z.string().regex(/^[0-9a-f]{64}$/) })),
})
export type BackupManifest = z.infer<typeof backupManifestSchema>

/** What a desk holds, as it is told before it is replaced. */
export const deskCountsSchema = z.object({ lineups: z.number().int(), parts: z.number().int(), records: z.number().int() })
export type DeskCounts = z.infer<typeof deskCountsSchema>
