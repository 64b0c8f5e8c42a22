import { saysTheSame } from './saysTheSame'
import { keyFor, SHELF_FILE_VERSION, type Shelf, type ShelfFile } from './shelf'

const carriedKinds = ['printers', 'nozzles', 'materials', 'spools'] as const
type CarriedKind = (typeof carriedKinds)[number]
type AnyRecord = ShelfFile[CarriedKind][number]

/** Records that came with something from elsewhere, as they go onto a shelf: which are new there, and what each is called there. */
export interface BroughtRecords {
  /** Those that the shelf lacks. */
  readonly file: ShelfFile
  /** The key that a record has on this shelf. */
  readonly keyOf: (kind: CarriedKind, key: string) => string
}

/**
 * Fits records from elsewhere into a shelf without changing what is there: one that says the same is the same, one that says
 * something else under a key that is taken gets a key of its own.
 */
export function bringRecords(records: ShelfFile, shelf: Pick<Shelf, CarriedKind>): BroughtRecords {
  const renamed = new Map<string, string>()
  const keyOf = (kind: CarriedKind, key: string): string => renamed.get(`${kind}/${key}`) ?? key
  const file: Record<CarriedKind, AnyRecord[]> = { printers: [], nozzles: [], materials: [], spools: [] }
  // Materials come before the spools that are of them.
  for (const kind of carriedKinds) {
    const taken = new Map((shelf[kind] as readonly AnyRecord[]).map((record) => [record.key, record]))
    for (const given of records[kind] as readonly AnyRecord[]) {
      const record = 'material' in given ? { ...given, material: keyOf('materials', given.material) } : given
      const here = taken.get(record.key)
      if (here && saysTheSame(said(here), said(record))) continue
      const key = here ? keyFor(record.name, [...taken.keys()]) : record.key
      renamed.set(`${kind}/${record.key}`, key)
      taken.set(key, record)
      file[kind].push({ ...record, key, starter: false, archived: false, revision: 1 })
    }
  }
  return { file: { format: 'sable-lantern/shelf', version: SHELF_FILE_VERSION, ...file, profiles: [] } as ShelfFile, keyOf }
}

/** What a record says, without what the shelf knows of it. */
const said = ({ starter: _, archived: __, revision: ___, ...record }: AnyRecord): object => record
