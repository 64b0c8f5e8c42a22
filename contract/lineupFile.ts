import { InputError } from '@sable/core/errors'
import { parseObject } from '@sable/core/formats/profileFile'
import { placementSchema } from '@sable/core/mesh/place'
import { checkValue, type SettingValues } from '@sable/core/profile/settings'
import { z } from 'zod'
import { type LineupContent, MOST_CANDIDATES } from './lineup'

const FORMAT = 'sable-lantern/lineup'
const VERSION = 1

const fileSchema = z.object({
  name: z.string().trim().min(1).max(80),
  part: z.object({ name: z.string(), contentKey: z.string() }),
  placement: placementSchema,
  candidates: z
    .array(
      z.object({
        name: z.string().trim().min(1).max(80),
        printer: z.string(),
        nozzle: z.string(),
        material: z.string(),
        settings: z.record(z.string(), z.unknown()),
      }),
    )
    .max(MOST_CANDIDATES),
})

/** A lineup as a file holds it: no ids, the part by the hash of its content. */
export interface LineupFile extends Omit<z.infer<typeof fileSchema>, 'candidates'> {
  readonly candidates: readonly {
    readonly name: string
    readonly printer: string
    readonly nozzle: string
    readonly material: string
    readonly settings: SettingValues
  }[]
}

/** Writes a lineup file. */
export function writeLineupFile(lineup: LineupContent, part: { readonly name: string; readonly contentKey: string }): string {
  const file: LineupFile = {
    name: lineup.name,
    part: { name: part.name, contentKey: part.contentKey },
    placement: lineup.placement,
    candidates: lineup.candidates.map(({ name, printer, nozzle, material, values }) => ({
      name,
      printer,
      nozzle,
      material,
      settings: values,
    })),
  }
  return `${JSON.stringify({ format: FORMAT, version: VERSION, ...file }, null, 2)}\n`
}

/** Reads a lineup file. @throws InputError naming the candidate and the setting */
export function readLineupFile(text: string, fileName: string): LineupFile {
  const parsed = fileSchema.safeParse(parseObject(text, fileName, FORMAT, VERSION))
  if (!parsed.success) {
    const [issue] = parsed.error.issues
    throw new InputError(
      'lineup-malformed',
      `${issue?.message ?? 'Something is missing.'}`,
      `${fileName}, ${issue?.path.join('.') ?? ''}`,
      'Export the lineup again, or mend that entry.',
    )
  }
  return {
    ...parsed.data,
    candidates: parsed.data.candidates.map((candidate) => ({
      ...candidate,
      settings: Object.fromEntries(
        Object.entries(candidate.settings).map(([name, value]) => [
          name,
          checkValue(name, value, `${fileName}, candidate "${candidate.name}"`),
        ]),
      ) as SettingValues,
    })),
  }
}
