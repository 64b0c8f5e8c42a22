import { randomUUID } from 'node:crypto'
import { shelfFileSchema } from '@sable/contract/shelf'
import { writeStl } from '@sable/core/formats/writeStl'
import { asModelled } from '@sable/core/mesh/place'
import { demoLineup, demoParts, demoSpools } from '@sable/demo/scenario'
import type { LineupStore } from './lineups'
import type { PartStore } from './parts'
import type { ShelfStore } from './shelf'

interface Stores {
  readonly parts: PartStore
  readonly shelf: ShelfStore
  readonly lineups: LineupStore
}

/** Puts the demo there: starter records, spools, parts and the lineup. Once; with `fresh`, the demo's lineup is made anew and nothing else is touched. */
export async function seedDemo({ parts, shelf, lineups }: Stores, fresh: boolean): Promise<void> {
  // A starter record that was taken off the shelf stays off it.
  if (await shelf.isEmpty()) await shelf.addStarters()
  const present = await lineups.list()
  const seeded = (await parts.list()).some((part) => part.demo)
  if (seeded && !fresh) return
  if (present.some((lineup) => lineup.demo)) await lineups.removeDemo()
  const known = new Set((await shelf.read()).spools.map(({ key }) => key))
  const spools = demoSpools(new Date()).filter(({ key }) => !known.has(key))
  await shelf.import(shelfFileSchema.parse({ format: 'sable-lantern/shelf', version: 1, spools }))
  const ids = new Map<string, string>()
  for (const { key, name, make } of demoParts) {
    const stored = await parts.add({ name, fileName: `${key}.stl`, bytes: Buffer.from(writeStl(make(), name)), demo: true })
    ids.set(key, stored.id)
  }
  await lineups.create(
    {
      name: demoLineup.name,
      partId: ids.get(demoLineup.part) as string,
      placement: asModelled,
      purpose: demoLineup.purpose,
      candidates: demoLineup.candidates.map((candidate) => ({ id: randomUUID(), exceptions: [], ...candidate })),
    },
    true,
  )
}
