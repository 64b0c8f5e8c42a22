import { readLineupFile } from '@sable/contract/lineupFile'
import { shelfFileSchema } from '@sable/contract/shelf'
import { starterMaterials, starterNozzles, starterPrinters } from '@sable/core/shelf/starter'
import { mutate } from '@sable/core/testing/mutate'
import { type ReaderSeed, readerSeeds } from '@sable/core/testing/readerSeeds'
import { InputError } from '@sable/core/units/errors'
import { seeded } from '@sable/core/units/seeded'

export interface ReadCounts {
  readonly files: number
  readonly read: number
  readonly refused: number
  /** Neither: what the reader threw, or a number in its result that is none. */
  readonly faults: readonly string[]
}

const bytesOf = (value: unknown): Uint8Array => new TextEncoder().encode(JSON.stringify(value))
const textOf = (bytes: Uint8Array): string => new TextDecoder().decode(bytes)

/** Readers of what this application itself writes as JSON. */
const ownFiles: readonly ReaderSeed[] = [
  {
    kind: 'lineup',
    bytes: bytesOf({
      format: 'sable-lantern/lineup',
      version: 1,
      name: 'hook',
      part: { name: 'hook', contentKey: 'a'.repeat(64) },
      placement: { scale: 1, rotateDeg: [0, 0, 0] },
      candidates: [
        {
          name: 'everyday',
          printer: 'lugger',
          nozzle: 'bore-0.4',
          material: 'pla',
          settings: { layerHeight: 0.2, wallCount: 3 },
          overrides: [{ name: 'top', fromZ: 20, values: { fanSpeed: 100 } }],
        },
      ],
    }),
    read: (bytes) => readLineupFile(textOf(bytes), 'hook.json'),
  },
  {
    kind: 'shelf',
    bytes: bytesOf({
      format: 'sable-lantern/shelf',
      version: 1,
      printers: starterPrinters.slice(0, 1),
      nozzles: starterNozzles.slice(0, 1),
      materials: starterMaterials.slice(0, 1),
    }),
    read(bytes) {
      let given: unknown
      try {
        given = JSON.parse(textOf(bytes))
      } catch {
        throw new InputError('no-json', 'No JSON.', '', 'Export it again.')
      }
      const parsed = shelfFileSchema.safeParse(given)
      if (!parsed.success) throw new InputError('shelf-malformed', parsed.error.issues[0]!.message, '', 'Export it again.')
      return parsed.data
    },
  },
]

/** Damages good small files again and again, and has each read. @param files how many */
export function readDamaged(files: number, seed: number): ReadCounts {
  const random = seeded(seed)
  const seeds = [...readerSeeds, ...ownFiles]
  const faults: string[] = []
  let [read, refused] = [0, 0]
  for (let i = 0; i < files; i++) {
    const { kind, bytes, read: reader } = seeds[i % seeds.length]!
    try {
      JSON.stringify(reader(mutate(bytes, random)), (key, value) => {
        if (typeof value === 'number' && !Number.isFinite(value)) throw new Error(`${key} is ${value}`)
        return value
      })
      read++
    } catch (error) {
      if (error instanceof InputError && error.message !== '' && error.remedy !== '') refused++
      else faults.push(`${kind}, file ${i}: ${error}`)
    }
  }
  return { files, read, refused, faults }
}
