import { z } from 'zod'
import { nearestNames } from '../profile/nearestNames'
import { type Override, overridesSchema } from '../profile/overrides'
import { checkValue, nameToday, type SettingValues } from '../profile/settings'
import { InputError } from '../units/errors'
import { exceptionsBecomeOverrides, type Upgrade, upgradeFrom } from './upgrade'

const FORMAT = 'sable-lantern/profile'
/** Versions before this one, said as the next. */
const upgrades = [exceptionsBecomeOverrides]
const VERSION = upgrades.length + 1

/** A profile as a file holds it: its own values, and optionally what it is meant to print with and on. */
export interface ProfileFile {
  readonly name: string
  readonly settings: SettingValues
  /** Keys of shelf records; a nozzle by its key or its bore, mm. */
  readonly printer?: string
  readonly nozzle?: number | string
  readonly material?: string
  /** Places where other values hold. */
  readonly overrides?: readonly Override[]
}

/**
 * Reads a profile file.
 *
 * @throws InputError naming the file and the setting: no JSON, another format or version, an unknown setting, a value out
 *   of range
 */
export function readProfileFile(text: string, fileName: string): ProfileFile {
  const content = parseObject(text, fileName, FORMAT, upgrades)
  const given = content.settings ?? {}
  if (typeof given !== 'object' || given === null || Array.isArray(given)) {
    throw new InputError(
      'profile-malformed',
      '"settings" must be an object of names and values.',
      fileName,
      'Write {"settings": {"layerHeight": 0.2}}.',
    )
  }
  const settings = Object.fromEntries(
    Object.entries(given).map(([name, value]) => [nameToday(name), checkValue(nameToday(name), value, fileName)]),
  ) as SettingValues
  const { name, printer, nozzle, material } = namesIn(content, fileName)
  return {
    name: name !== undefined && name !== '' ? name : fileName.replace(/^.*\//, '').replace(/\.json$/i, ''),
    settings,
    ...(printer === undefined ? {} : { printer }),
    ...(nozzle === undefined ? {} : { nozzle }),
    ...(material === undefined ? {} : { material }),
    ...(content.overrides === undefined ? {} : { overrides: readOverrides(content.overrides, fileName) }),
  }
}

const namesSchema = z.object({
  name: z.string('"name" must be a text.').optional(),
  printer: z.string('"printer" must be the key of a printer.').optional(),
  nozzle: z.union([z.number().positive(), z.string()], '"nozzle" must be the key of a nozzle, or its bore in mm.').optional(),
  material: z.string('"material" must be the key of a material.').optional(),
})
const knownKeys = ['format', 'version', 'settings', 'overrides', ...Object.keys(namesSchema.shape)]

/** What a profile file names beside its settings. @throws InputError for a key that there is not, or of the wrong kind */
function namesIn(content: Record<string, unknown>, fileName: string): z.infer<typeof namesSchema> {
  const stray = Object.keys(content).find((key) => !knownKeys.includes(key))
  if (stray !== undefined)
    throw new InputError('profile-key-unknown', `A profile has no "${stray}".`, fileName, nearestNames(stray, knownKeys, 'keys'))
  const parsed = namesSchema.safeParse(content)
  if (parsed.success) return parsed.data
  throw new InputError('profile-malformed', parsed.error.issues[0]!.message, fileName, 'List the keys with: sable shelf.')
}

/** Checks a list of overrides. @throws InputError naming the entry and the field */
export function readOverrides(given: unknown, where: string): Override[] {
  const parsed = overridesSchema.safeParse(given)
  if (parsed.success) return parsed.data
  const [issue] = parsed.error.issues
  throw new InputError(
    'override-malformed',
    issue?.message ?? 'An override cannot be read.',
    `${where}, overrides.${issue?.path.join('.') ?? ''}`,
    'Write for example {"name": "top", "fromZ": 20, "speedPercent": 60, "values": {"fanSpeed": 100}}.',
  )
}

/** Writes a profile file, readable and diffable. */
export function writeProfileFile(profile: ProfileFile): string {
  return `${JSON.stringify({ format: FORMAT, version: VERSION, ...profile }, null, 2)}\n`
}

/**
 * Parses a JSON object, checks that it is of the expected format, and says it as today's version does.
 *
 * @param upgrades from each version before to the next
 * @throws InputError
 */
export function parseObject(text: string, fileName: string, format: string, upgrades: readonly Upgrade[]): Record<string, unknown> {
  let content: unknown
  try {
    content = JSON.parse(text.replace(/^\uFEFF/, ''))
  } catch (error) {
    throw new InputError(
      'file-not-json',
      `This is not a JSON file (${(error as Error).message}).`,
      fileName,
      'Export the file again, or mend it at that place.',
    )
  }
  if (typeof content !== 'object' || content === null || Array.isArray(content)) {
    throw new InputError('file-malformed', 'The file must hold one JSON object.', fileName, 'Export the file again.')
  }
  const object = content as Record<string, unknown>
  if (object.format !== format) {
    throw new InputError(
      'file-other-format',
      `The file says it is "${String(object.format ?? 'nothing')}", not "${format}".`,
      fileName,
      `Choose a file with "format": "${format}".`,
    )
  }
  const version = upgrades.length + 1
  if (!(Number.isInteger(object.version) && (object.version as number) >= 1 && (object.version as number) <= version)) {
    throw new InputError(
      'file-other-version',
      `The file is of version ${String(object.version ?? '(none)')}; this program reads version ${version > 1 ? `1 to ${version}` : 1}.`,
      fileName,
      typeof object.version === 'number' && object.version > version
        ? 'It was written by a newer program: update this one, or export the file from there as an older version.'
        : `Set "version": ${version} if you wrote the file by hand.`,
    )
  }
  return upgradeFrom(object.version as number, upgrades, object) as Record<string, unknown>
}
