import { type Material, materialSchema } from '@sable/core/shelf/material'
import { type Nozzle, nozzleSchema } from '@sable/core/shelf/nozzle'
import { type Printer, printerSchema } from '@sable/core/shelf/printer'
import { type Spool, spoolSchema } from '@sable/core/shelf/spool'
import { starterMaterials, starterNozzles, starterPrinters } from '@sable/core/shelf/starter'
import { z } from 'zod'
import { readJson } from './files'

/** Records that commands find by their keys. */
export interface Records {
  readonly printers: readonly Printer[]
  readonly nozzles: readonly Nozzle[]
  readonly materials: readonly Material[]
  readonly spools: readonly Spool[]
}

const starters: Records = { printers: starterPrinters, nozzles: starterNozzles, materials: starterMaterials, spools: [] }

/** The shelf as the application exports it, as far as commands need it; what is put away stays away. */
const listOf = <T extends z.ZodType>(record: T) =>
  z
    .array(z.intersection(record, z.object({ archived: z.boolean().default(false) })))
    .default([])
    .transform((records) => records.filter(({ archived }) => !archived) as z.infer<T>[])
const fileSchema = z.object({
  format: z.literal('sable-lantern/shelf', 'This is no shelf. Export one in the application: Shelf, File.'),
  printers: listOf(printerSchema),
  nozzles: listOf(nozzleSchema),
  materials: listOf(materialSchema),
  spools: listOf(spoolSchema),
})

let inUse: Records = starters

export const records = (): Records => inUse

/** Lets commands find the records of an exported shelf; what it lacks altogether comes from the starters. @throws InputError */
export async function useShelf(path: string | undefined): Promise<void> {
  inUse = starters
  if (path === undefined) return
  const own = await readJson(path, fileSchema as unknown as z.ZodType<Records>)
  const or = <K extends keyof Records>(kind: K): Records[K] => (own[kind].length > 0 ? own[kind] : starters[kind])
  inUse = { printers: or('printers'), nozzles: or('nozzles'), materials: or('materials'), spools: own.spools }
}
