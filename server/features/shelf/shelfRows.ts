import type { ShelfKind, ShelfRecords } from '@sable/contract/shelf'
import type { Stored } from '@sable/contract/stored/storedAs'
import { storedRecords } from '@sable/contract/stored/storedShelf'
import type { Models } from '../../database/models'
import { ProblemError } from '../../http/problems'

/** What one of a kind is called. */
export const oneOf: Readonly<Record<ShelfKind, 'printer' | 'nozzle' | 'material' | 'spool' | 'profile'>> = {
  printers: 'printer',
  nozzles: 'nozzle',
  materials: 'material',
  spools: 'spool',
  profiles: 'profile',
}

/** The table that records of a kind stand in. */
export const tableOf = (models: Models, kind: ShelfKind) => models[kind === 'profiles' ? 'profileLibrary' : kind]

export const textOf = (kind: ShelfKind, record: ShelfRecords[ShelfKind]): string =>
  (storedRecords[kind] as Stored<typeof record>).write(record)

export function refuseUnknownMaterial({ name, material }: ShelfRecords['spools'], known: ReadonlySet<string>): void {
  if (!known.has(material))
    throw new ProblemError(422, 'record-unknown', `The shelf has no material "${material}".`, name, 'Choose one that is there.')
}
