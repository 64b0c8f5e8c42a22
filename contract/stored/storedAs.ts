import { type Upgrade, upgradeFrom } from '@sable/core/formats/upgrade'
import { z } from 'zod'

/** How one kind of record is kept as a text. */
export interface Stored<T> {
  /** Written today. */
  readonly version: number
  readonly write: (value: T) => string
  /** @throws ZodError or Error saying what is wrong: no JSON, a newer version, or something that no version wrote */
  readonly read: (text: string) => T
}

const envelopeSchema = z.strictObject({ version: z.number().int().positive(), value: z.unknown() })

/**
 * Describes a kind of record that is stored as JSON: what it says today, and for each version before how that becomes the next.
 * The text carries its version; one without is of the first, which did not write it.
 *
 * @param name of the kind, for what is told about a record that cannot be read
 * @param upgrades see `upgradeFrom`
 */
export function storedAs<T>(name: string, schema: z.ZodType<T>, upgrades: readonly Upgrade[] = []): Stored<T> {
  const version = upgrades.length + 1
  const upgraded = (written: unknown, from: number): unknown => {
    if (from > version) throw new Error(`This ${name} was written by a newer version of Sable Lantern (${from}, here ${version}).`)
    return upgradeFrom(from, upgrades, written)
  }
  return {
    version,
    write: (value) => JSON.stringify({ version, value }),
    read(text) {
      const given: unknown = JSON.parse(text)
      const envelope = envelopeSchema.safeParse(given)
      return schema.parse(envelope.success ? upgraded(envelope.data.value, envelope.data.version) : upgraded(given, 1))
    },
  }
}
