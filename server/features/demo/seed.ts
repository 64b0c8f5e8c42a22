import { randomUUID } from 'node:crypto'
import { SHELF_FILE_VERSION, setupOf, shelfFileSchema } from '@sable/contract/shelf'
import { writeStl } from '@sable/core/formats/writeStl'
import { asModelled } from '@sable/core/mesh/place'
import { planTrial } from '@sable/core/trials/plan'
import { demoLineup, demoParts, demoSpools } from '@sable/demo/scenario'
import { demoTrials } from '@sable/demo/trials'
import type { Marks } from '../../database/marks'
import type { LineupStore } from '../lineups/lineupStore'
import type { PartStore } from '../parts/partStore'
import { asUpload } from '../parts/receiveUpload'
import type { ShelfStore } from '../shelf/shelfStore'
import type { TrialStore } from '../trials/trialStore'

interface Stores {
  readonly parts: PartStore
  readonly shelf: ShelfStore
  readonly lineups: LineupStore
  readonly trials: TrialStore
  readonly marks: Marks
}

/**
 * Puts the demo there: starter records, spools, parts and the lineup. Once; what was interrupted is made to its end. With
 * `fresh`, the demo's lineup is made anew and nothing else is touched.
 *
 * @param folder where files lie until they are read
 */
export async function seedDemo({ parts, shelf, lineups, trials, marks }: Stores, fresh: boolean, folder: string): Promise<void> {
  // A starter record that was taken off the shelf stays off it.
  if (!(await marks.has('starters'))) {
    await shelf.addStarters()
    await marks.set('starters')
  }
  if ((await marks.has('demo')) && !fresh) return
  await lineups.removeDemo()
  const known = new Set((await shelf.read()).spools.map(({ key }) => key))
  const spools = demoSpools(new Date()).filter(({ key }) => !known.has(key))
  await shelf.import(shelfFileSchema.parse({ format: 'sable-lantern/shelf', version: SHELF_FILE_VERSION, spools }))
  await seedTrials(trials, shelf)
  const ids = new Map<string, string>()
  for (const { key, name, make } of demoParts) {
    const upload = await asUpload(writeStl(make(), name), folder)
    const stored = await parts.add({ name, fileName: `${key}.stl`, ...upload, demo: true })
    await upload.remove()
    ids.set(key, stored.id)
  }
  await lineups.create(
    {
      name: demoLineup.name,
      partId: ids.get(demoLineup.part) as string,
      placement: asModelled,
      purpose: demoLineup.purpose,
      candidates: demoLineup.candidates.map((candidate) => ({ id: randomUUID(), overrides: [], ...candidate })),
    },
    true,
  )
  await marks.set('demo')
}

const DAY_MS = 86_400_000

/** Test prints and their readings, each on its day. Nothing where there are some already: nothing is read twice. */
async function seedTrials(trials: TrialStore, shelf: ShelfStore): Promise<void> {
  if ((await trials.list()).trials.length > 0) return
  const records = await shelf.read()
  const now = Date.now()
  for (const { daysAgo, kind, choice, bands = [], whole = {}, note = '', insisted, unread, ...place } of demoTrials) {
    const setup = setupOf(place, records)
    if (!setup) continue
    const at = new Date(now - daysAgo * DAY_MS)
    const { id } = await trials.add(
      { ...place, spec: planTrial(kind, setup, choice).spec, ...(insisted === undefined ? {} : { insisted }) },
      at,
    )
    if (!unread) await trials.read({ trial: id, bands: [...bands], whole, note, by: '' }, at)
  }
}
