import { parseObject, readOverrides } from '@sable/core/formats/profileFile'
import { placementSchema } from '@sable/core/mesh/place'
import { noPurpose, purposeSchema } from '@sable/core/physics/strength/purpose'
import type { Override } from '@sable/core/profile/overrides'
import { checkValue, nameToday, type SettingValues } from '@sable/core/profile/settings'
import { InputError } from '@sable/core/units/errors'
import { z } from 'zod'
import { type LineupContent, MOST_CANDIDATES } from './lineup'
import { candidatesOverride } from './stored/upgrades'

const FORMAT = 'sable-lantern/lineup'
/** Versions before this one, said as the next. */
const upgrades = [candidatesOverride]
const VERSION = upgrades.length + 1

const fileSchema = z.object({
  name: z.string().trim().min(1).max(80),
  part: z.object({ name: z.string(), contentKey: z.string() }),
  placement: placementSchema,
  purpose: purposeSchema.default(noPurpose),
  candidates: z
    .array(
      z.object({
        name: z.string().trim().min(1).max(80),
        printer: z.string(),
        nozzle: z.string(),
        material: z.string(),
        spool: z.string().optional(),
        settings: z.record(z.string(), z.unknown()),
        overrides: z.unknown().optional(),
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
    readonly spool?: string | undefined
    readonly settings: SettingValues
    readonly overrides: readonly Override[]
  }[]
}

/** Writes a lineup file. */
export function writeLineupFile(lineup: LineupContent, part: { readonly name: string; readonly contentKey: string }): string {
  const file: LineupFile = {
    name: lineup.name,
    part: { name: part.name, contentKey: part.contentKey },
    placement: lineup.placement,
    purpose: lineup.purpose,
    candidates: lineup.candidates.map(({ name, printer, nozzle, material, spool, values, overrides }) => ({
      name,
      printer,
      nozzle,
      material,
      ...(spool === undefined ? {} : { spool }),
      settings: values,
      overrides,
    })),
  }
  return `${JSON.stringify({ format: FORMAT, version: VERSION, ...file }, null, 2)}\n`
}

/** Reads a lineup file. @throws InputError naming the candidate and the setting */
export function readLineupFile(text: string, fileName: string): LineupFile {
  const parsed = fileSchema.safeParse(parseObject(text, fileName, FORMAT, upgrades))
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
          nameToday(name),
          checkValue(nameToday(name), value, `${fileName}, candidate "${candidate.name}"`),
        ]),
      ) as SettingValues,
      overrides: candidate.overrides === undefined ? [] : readOverrides(candidate.overrides, `${fileName}, candidate "${candidate.name}"`),
    })),
  }
}
