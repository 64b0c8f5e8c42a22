import { bringRecords } from '@sable/contract/bringRecords'
import type { LineupContent } from '@sable/contract/lineup'
import { readCarriedLineup, writeLineupArchive } from '@sable/contract/lineupArchive'
import type { StoredPart } from '@sable/contract/part'
import { SHELF_FILE_VERSION, type Shelf, type ShelfFile } from '@sable/contract/shelf'
import { fetchPartFile, uploadPart } from '../../api/parts'
import { importShelf } from '../../api/shelf'
import type { Refusal } from '../../ui/Notice'

/** A lineup as one file that opens anywhere: with its model and the records that it names. @throws RequestError */
export async function lineupArchive(content: LineupContent, part: StoredPart, shelf: Shelf): Promise<Blob> {
  const bytes = await writeLineupArchive(content, part, await fetchPartFile(part.id), shelf)
  return new Blob([bytes as Uint8Array<ArrayBuffer>], { type: 'application/zip' })
}

interface Here {
  readonly parts: readonly StoredPart[]
  readonly shelf: Shelf
  /** What the candidates are put on where their own part neither came along nor is here. */
  readonly part: StoredPart
}

/** What a file gives: the lineup as it goes onto this desk, and what has to be told of it. */
export interface Carried {
  readonly content: LineupContent
  readonly told?: Refusal
}

/** Takes a lineup from a file: its model and records are put here where they are new. @throws InputError and RequestError */
export async function takeLineup(file: File, { parts, shelf, part }: Here): Promise<Carried> {
  const { lineup, model, records } = readCarriedLineup(new Uint8Array(await file.arrayBuffer()), file.name)
  const known = parts.find(({ contentKey }) => contentKey === lineup.part.contentKey)
  const brought =
    known ?? (model && (await uploadPart(new File([model.bytes as Uint8Array<ArrayBuffer>], model.fileName), new AbortController().signal)))
  const { file: fresh, keyOf } = bringRecords(records ?? emptyShelf, shelf)
  if (['printers', 'nozzles', 'materials', 'spools'].some((kind) => fresh[kind as 'printers'].length > 0)) await importShelf(fresh)
  return {
    content: {
      name: lineup.name,
      partId: (brought ?? part).id,
      placement: lineup.placement,
      purpose: lineup.purpose,
      candidates: lineup.candidates.map(({ settings, overrides, printer, nozzle, material, spool, ...candidate }) => ({
        ...candidate,
        id: crypto.randomUUID(),
        printer: keyOf('printers', printer),
        nozzle: keyOf('nozzles', nozzle),
        material: keyOf('materials', material),
        ...(spool === undefined ? {} : { spool: keyOf('spools', spool) }),
        values: settings,
        overrides: [...overrides],
      })),
    },
    ...(brought ? {} : { told: partMissing(file.name, lineup.part.name, part.name) }),
  }
}

const emptyShelf: ShelfFile = {
  format: 'sable-lantern/shelf',
  version: SHELF_FILE_VERSION,
  printers: [],
  nozzles: [],
  materials: [],
  spools: [],
  profiles: [],
} as const

const partMissing = (fileName: string, wanted: string, taken: string): Refusal => ({
  where: fileName,
  message: `The part "${wanted}" of this lineup is not here, so its candidates were put on "${taken}".`,
  remedy: 'Drop its model file on the part strip to use it.',
})
