import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setupOf, shelfSchema } from '@sable/contract/shelf'
import { asModelled } from '@sable/core/mesh/place'
import { openDesk } from '@sable/soak/desk'
import { median } from 'd3-array'

/** What a log of ten years costs: how fast its lists answer, and how long a machine's pace takes to be learned from it. */
const PRINTS = 5000
const AT_ONCE = 8
const ROUNDS = 9
const data = mkdtempSync(join(tmpdir(), 'sable-log-'))
const desk = await openDesk(data, 4976)

const send = async (method: string, path: string, body?: object): Promise<Response> => {
  const answer = await fetch(`${desk.address}${path}`, {
    method,
    headers: { 'Content-Type': 'application/json' },
    ...(body ? { body: JSON.stringify(body) } : {}),
  })
  if (!answer.ok) throw new Error(`${method} ${path}: ${answer.status} ${await answer.text()}`)
  return answer
}

async function make(i: number): Promise<void> {
  const timeS = 900 + ((i * 7919) % 20_000)
  const foretold = {
    timeS,
    startS: 200,
    massG: 5 + (i % 90),
    cost: 0.6,
    heightMm: 40,
    slope: 0.05 + (i % 30) / 100,
    spreads: { time: 0.04, filament: 0.03 },
    reach: { time: 1.28, filament: 1.28 },
    inForce: {},
    figures: [],
  }
  const frozen = {
    printer: 'dory',
    nozzle: 'bore-0.4',
    material: 'pla',
    name: `part ${i % 40}`,
    profile: `profile ${i % 7}`,
    placement: asModelled,
    values: {},
    overrides: [],
    resolved: {},
    foretold,
  }
  const { line } = (await (await send('POST', '/api/prints', frozen)).json()) as { line: { id: string } }
  const outcome = {
    result: 'good',
    actualS: timeS * (1.03 + ((i * 31) % 100) / 2500) + 200,
    weighedG: foretold.massG,
    note: `Print ${i} of many.`,
  }
  await send('PUT', `/api/prints/${line.id}/outcome`, { outcome })
}

async function time(work: () => unknown): Promise<number> {
  const took: number[] = []
  for (let round = 0; round < ROUNDS; round++) {
    const from = performance.now()
    await work()
    took.push(performance.now() - from)
  }
  return median(took)!
}
let baseline = 0
function print(figure: string, ms: number): void {
  baseline ||= ms
  process.stdout.write(
    `${JSON.stringify({ figure: `log: ${figure}`, ms: Number(ms.toFixed(1)), ratio: Number((ms / baseline).toFixed(2)), to: 'health', prints: PRINTS })}\n`,
  )
}

const ask = (path: string) => async (): Promise<string> => (await send('GET', path)).text()
for (let from = 0; from < PRINTS; from += AT_ONCE) await Promise.all(Array.from({ length: AT_ONCE }, (_, k) => make(from + k)))
print('health', await time(ask('/api/health')))
print('the newest two hundred', await time(ask('/api/prints?limit=200')))
print('two hundred by words', await time(ask('/api/prints?limit=200&words=profile%203')))
print('all of them', await time(ask('/api/prints?limit=10000')))
print('the shelf with what they teach', await time(ask('/api/shelf')))
const shelf = shelfSchema.parse(JSON.parse(await ask('/api/shelf')()))
print('a machine learned from all of them', await time(() => setupOf({ printer: 'dory', nozzle: 'bore-0.4', material: 'pla' }, shelf)))
await desk.stop()
rmSync(data, { recursive: true, force: true })
