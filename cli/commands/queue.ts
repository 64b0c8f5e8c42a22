import { dirname, resolve } from 'node:path'
import { StageCache } from '@sable/core/pipeline/stageCache'
import { type Foretell, type QueueFile, queueFileSchema, queueOf, scheduleAsFile } from '@sable/core/queue/queueFile'
import { schedule } from '@sable/core/queue/schedule'
import { formatDuration } from '@sable/core/units/format'
import type { Command } from 'commander'
import { predictWith } from '../candidate'
import { loadPart, loadProfile, readJson } from '../files'
import { openKernel } from '../openKernel'
import { readNumber } from '../options'
import { plainJson, print } from '../report'

export function addQueue(program: Command): void {
  program
    .command('queue')
    .description('which printer prints what when: every copy on a lane, with somebody there to start it')
    .argument('<jobs>', 'JSON file: see docs/command-line.md')
    .option('--seed <number>', 'of the search', readNumber('--seed'), 1)
    .option('--json', 'print one JSON object')
    .action(async (path: string, { seed, json = false }: { seed: number; json?: boolean }) => {
      const file = await readJson(path, queueFileSchema)
      const found = schedule(queueOf(file, await foretold(file, path)), { seed })
      const told = scheduleAsFile(file, found)
      if (json) return print(plainJson(told))
      print(asText(told))
    })
}

/** Minutes and grams of jobs that name a part and a profile; each is foretold once by printer. */
async function foretold(file: QueueFile, path: string): Promise<Foretell> {
  const known = new Map<string, { minutes: number; grams: number }>()
  const asked = file.jobs.filter(({ part }) => part !== undefined)
  if (asked.length > 0) {
    const kernel = await openKernel()
    const cache = new StageCache()
    const beside = (name: string): string => resolve(dirname(path), name)
    for (const { id, part: model, profile: profilePath, printers } of asked) {
      const part = await loadPart(beside(model!))
      const profile = profilePath === undefined ? undefined : await loadProfile(beside(profilePath))
      for (const printer of printers ?? file.printers.map(({ key }) => key)) {
        if (!file.printers.some(({ key }) => key === printer)) continue
        const { timeS, filament } = predictWith(part, profile, { printer, set: [], scale: 1, rotate: [0, 0, 0] }, kernel, cache)
        known.set(`${id} ${printer}`, { minutes: timeS / 60, grams: filament.massG })
      }
    }
  }
  return ({ id }, printer) => known.get(`${id} ${printer}`)!
}

function asText({ lanes, makespanMinutes, lowerBoundMinutes, late, refused, spools = [] }: ReturnType<typeof scheduleAsFile>): string {
  const at = (iso: string): string => `${iso.slice(0, 10)} ${iso.slice(11, 16)}`
  return [
    ...lanes.flatMap(({ printer, items }) => [
      printer,
      ...items.map(
        ({ job, copy, startsAt, endsAt, endsLow, endsHigh, lateShare }) =>
          `  ${at(startsAt)} to ${at(endsAt)}  ${job}${copy > 1 ? ` (copy ${copy})` : ''}, ends ${at(endsLow)} to ${at(endsHigh)}${lateShare === undefined ? '' : `, late in ${Math.round(100 * lateShare)} of 100`}`,
      ),
      ...(items.length === 0 ? ['  nothing'] : []),
    ]),
    `All is done after ${formatDuration(60 * makespanMinutes)}; no schedule ends before ${formatDuration(60 * lowerBoundMinutes)}.`,
    ...(late.length > 0 ? [`Late: ${late.join(', ')}.`] : []),
    ...spools.map(
      ({ key, usedG, leftG, lasts, runsOutAt }) =>
        `${key}: ${Math.round(usedG)} g are used, ${lasts === 'no' ? `it runs out at ${runsOutAt}` : `${Math.round(leftG)} g are left`}.`,
    ),
    ...refused.map(({ job, why }) => `${job}: ${why}`),
  ].join('\n')
}
