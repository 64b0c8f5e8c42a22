import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { parseArgs } from 'node:util'
import { openDesk } from './desk'
import { killUnderWrites } from './killUnderWrites'
import { readDamaged } from './readDamaged'
import { walkTrials } from './walkTrials'

/** A long attack: damaged files through every reader, every trial on every machine, then kills under writes. Prints one JSON line each; fails on any fault or loss. */
const { values } = parseArgs({
  options: {
    files: { type: 'string', default: '10000' },
    kills: { type: 'string', default: '1000' },
    materials: { type: 'string', default: '5' },
    seed: { type: 'string', default: '1' },
    port: { type: 'string', default: '4990' },
  },
})
const seed = Number(values.seed)
const print = (what: string, counts: object): boolean => process.stdout.write(`${JSON.stringify({ soak: what, ...counts })}\n`)

const damaged = readDamaged(Number(values.files), seed)
print('damaged files', damaged)

const trials = await walkTrials(Number(values.materials))
print('trials', trials)

const data = mkdtempSync(join(tmpdir(), 'sable-soak-'))
const desk = await openDesk(data, Number(values.port))
const kills = await killUnderWrites(desk, Number(values.kills), seed)
print('kills under writes', kills)
await desk.stop()
rmSync(data, { recursive: true, force: true })
process.exit(damaged.faults.length > 0 || trials.faults.length > 0 || kills.lost > 0 || (kills.statuses[500] ?? 0) > 0 ? 1 : 0)
