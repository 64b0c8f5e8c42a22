import { randomUUID } from 'node:crypto'
import type { Lineup } from '@sable/contract/lineup'
import { type FrozenPrint, frozenPrintSchema, printFilterSchema } from '@sable/contract/prints'
import { queueSchema } from '@sable/contract/queues'
import { SHELF_FILE_VERSION, setupOf, shelfFileSchema } from '@sable/contract/shelf'
import { writeStl } from '@sable/core/formats/writeStl'
import { outcomeSchema } from '@sable/core/log/outcome'
import { asModelled } from '@sable/core/mesh/place'
import { planTrial } from '@sable/core/trials/plan'
import { demoCases } from '@sable/demo/cases'
import { demoLineups } from '@sable/demo/lineups'
import madePrints from '@sable/demo/madePrints.json'
import { demoPlate } from '@sable/demo/plate'
import { demoExperiment } from '@sable/demo/prints'
import { demoProfiles } from '@sable/demo/profiles'
import { type DemoJob, demoQueue } from '@sable/demo/queue'
import { demoParts, demoSpools } from '@sable/demo/scenario'
import { demoTrials } from '@sable/demo/trials'
import { z } from 'zod'
import type { Marks } from '../../database/marks'
import type { CaseStore } from '../cases/caseStore'
import type { ExperimentStore } from '../experiments/experimentStore'
import type { LineupStore } from '../lineups/lineupStore'
import type { PartStore } from '../parts/partStore'
import { asUpload } from '../parts/receiveUpload'
import type { PlateStore } from '../plates/plateStore'
import type { PrintStore } from '../prints/printStore'
import type { QueueStore } from '../queues/queueStore'
import type { ShelfStore } from '../shelf/shelfStore'
import type { TrialStore } from '../trials/trialStore'

interface Stores {
  readonly parts: PartStore
  readonly shelf: ShelfStore
  readonly lineups: LineupStore
  readonly trials: TrialStore
  readonly prints: PrintStore
  readonly experiments: ExperimentStore
  readonly cases: CaseStore
  readonly queues: QueueStore
  readonly plates: PlateStore
  readonly marks: Marks
}

/**
 * Puts the demo there: starter records, spools, parts and the lineup. Once; what was interrupted is made to its end. With
 * `fresh`, the demo's lineup is made anew and nothing else is touched.
 *
 * @param folder where files lie until they are read
 */
export async function seedDemo(
  { parts, shelf, lineups, trials, prints, experiments, cases, queues, plates, marks }: Stores,
  fresh: boolean,
  folder: string,
): Promise<void> {
  // A starter record that was taken off the shelf stays off it.
  if (!(await marks.has('starters'))) {
    await shelf.addStarters()
    await marks.set('starters')
  }
  if ((await marks.has('demo')) && !fresh) return
  await lineups.removeDemo()
  const records = await shelf.read()
  const isNew = ({ key }: { readonly key: string }): boolean =>
    ![...records.spools, ...records.profiles].some((record) => record.key === key)
  const spools = demoSpools(new Date()).filter(isNew)
  const profiles = demoProfiles.filter(isNew)
  await shelf.import(shelfFileSchema.parse({ format: 'sable-lantern/shelf', version: SHELF_FILE_VERSION, spools, profiles }))
  await seedTrials(trials, shelf)
  const ids = new Map<string, string>()
  for (const { key, name, make } of demoParts) {
    const upload = await asUpload(writeStl(make(), name), folder)
    const stored = await parts.add({ name, fileName: `${key}.stl`, ...upload, demo: true })
    await upload.remove()
    ids.set(key, stored.id)
  }
  const made = new Map<string, Lineup>()
  // The one that a new desk opens with is made last.
  for (const { name, part, purpose, candidates } of demoLineups.toReversed())
    made.set(
      name,
      await lineups.create(
        {
          name,
          partId: ids.get(part) as string,
          placement: asModelled,
          purpose,
          candidates: candidates.map((candidate) => ({ id: randomUUID(), overrides: [], ...candidate })),
        },
        true,
      ),
    )
  await seedCases(cases, made)
  await seedPrints(
    prints,
    experiments,
    demoParts.map(({ key, name }) => ({ name, id: ids.get(key)! })),
  )
  await seedQueue(
    queues,
    demoParts.map(({ key, name }) => ({ name, id: ids.get(key)! })),
  )
  await seedPlate(plates, made)
  await marks.set('demo')
}

/** Parts that share a bed. The demo's lineups may have been made anew: what stands on it follows them. */
async function seedPlate(plates: PlateStore, lineups: ReadonlyMap<string, Lineup>): Promise<void> {
  const plate = {
    ...demoPlate,
    items: demoPlate.items.map(({ lineup: name, candidate: own, ...at }) => {
      const lineup = lineups.get(name)
      const candidate = lineup?.candidates.find((one) => one.name === own)
      if (!lineup || !candidate) throw new Error(`The demo has no candidate "${own}" in "${name}".`)
      return { id: randomUUID(), lineup: lineup.id, candidate: candidate.id, ...at }
    }),
  }
  const before = (await plates.list()).find(({ name }) => name === plate.name)
  if (before) await plates.write(before.id, plate, before.revision)
  else if ((await plates.list()).length === 0) await plates.add(plate)
}

/** Faults that the workshop worked. Nothing where there are cases already. */
async function seedCases(cases: CaseStore, lineups: ReadonlyMap<string, Lineup>): Promise<void> {
  if ((await cases.list()).length > 0) return
  const names = new Map(demoLineups.map(({ name, part }) => [name, demoParts.find(({ key }) => key === part)?.name ?? part]))
  for (const { lineup: name, candidate: own, daysAgo, made } of demoCases) {
    const lineup = lineups.get(name)
    const candidate = lineup?.candidates.find((one) => one.name === own)
    if (!lineup || !candidate) throw new Error(`The demo has no candidate "${own}" in "${name}".`)
    const { id, partId, placement, purpose } = lineup
    await cases.add(
      { ...made, candidate, partId, partName: names.get(name)!, placement, purpose, lineup: id },
      new Date(Date.now() - daysAgo * DAY_MS),
    )
  }
}

const DAY_MS = 86_400_000
/** Begun in the morning. */
const HOUR_MS = 3_600_000

const madeSchema = z.array(
  z.object({
    daysAgo: z.number(),
    /** It stands in the queue and not in the log. */
    isToCome: z.boolean().optional(),
    frozen: frozenPrintSchema,
    outcome: outcomeSchema.optional(),
  }),
)

/** The workshop's log, each print on its day. Nothing where there is a print already. */
async function seedPrints(
  prints: PrintStore,
  experiments: ExperimentStore,
  parts: readonly { readonly name: string; readonly id: string }[],
): Promise<void> {
  if ((await prints.list(printFilterSchema.parse({ limit: 1 }))).total > 0) return
  const now = Date.now()
  const made = new Map<number, string>()
  for (const { daysAgo, isToCome, frozen, outcome } of madeSchema.parse(madePrints)) {
    if (isToCome) continue
    const part = parts.find(({ name }) => name === frozen.name)?.id
    const at = new Date(now - daysAgo * DAY_MS - HOUR_MS)
    const { line } = await prints.plan({ ...frozen, ...(part === undefined ? {} : { part }) }, at)
    made.set(daysAgo, line.id)
    if (!outcome) continue
    await prints.start(line.id, at)
    await prints.end(line.id, outcome, new Date(at.getTime() + 1000 * (outcome.actualS ?? 0)))
  }
  const { tries, ...asked } = demoExperiment
  await experiments.add({
    ...asked,
    tries: tries.flatMap(({ daysAgo, did }) => {
      const print = made.get(daysAgo)
      return print === undefined ? [] : [{ print, note: '', ...(did === undefined ? {} : { did }) }]
    }),
  })
}

/** What is still to be printed for the fair on the next Saturday. Nothing where there is a queue already. */
async function seedQueue(queues: QueueStore, parts: readonly { readonly name: string; readonly id: string }[]): Promise<void> {
  if ((await queues.list()).length > 0) return
  const made = madeSchema.parse(madePrints)
  const wayAs = (daysAgo: number): FrozenPrint => {
    const frozen = made.find((one) => one.daysAgo === daysAgo)?.frozen
    if (!frozen) throw new Error(`The demo has no print of ${daysAgo} days ago.`)
    const part = parts.find(({ name }) => name === frozen.name)?.id
    return { ...frozen, ...(part === undefined ? {} : { part }) }
  }
  const fair = nextSaturday(new Date())
  const { name, hours, reels, jobs } = demoQueue
  await queues.add(
    queueSchema.parse({
      name,
      hours,
      reels,
      machines: ['dory', 'lugger', 'cutter'].map((printer) => ({ printer })),
      jobs: (jobs as readonly DemoJob[]).map(({ name: what, as, copies = 1, byHour, ...how }) => ({
        ...how,
        id: randomUUID(),
        name: what,
        copies,
        ways: as.map(wayAs),
        ...(byHour === undefined ? {} : { deadline: new Date(fair.getTime() + byHour * HOUR_MS).toISOString() }),
      })),
    }),
  )
}

/** Midnight before the Saturday that is two days away at least. */
function nextSaturday(now: Date): Date {
  const day = new Date(now.getFullYear(), now.getMonth(), now.getDate() + 2)
  day.setDate(day.getDate() + ((6 - day.getDay() + 7) % 7))
  return day
}

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
