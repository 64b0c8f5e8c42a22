import { setTimeout as wait } from 'node:timers/promises'
import type { Lineup } from '@sable/contract/lineup'
import { writeStl } from '@sable/core/formats/writeStl'
import { blockMesh } from '@sable/core/testing/solids'
import { seeded } from '@sable/core/units/seeded'
import type { Desk } from './desk'

export interface KillCounts {
  readonly kills: number
  /** Writes that the server said yes to, and those among them that were gone afterwards. */
  readonly acknowledged: number
  readonly lost: number
  /** How often each status was answered; 0 stands for no answer at all. */
  readonly statuses: Readonly<Record<number, number>>
}

const WRITERS = 3

/**
 * Ends server and database again and again while lineups are written and models are loaded, and looks after each end whether
 * all is there that was acknowledged.
 */
export async function killUnderWrites(desk: Desk, kills: number, seed: number): Promise<KillCounts> {
  const random = seeded(seed)
  const statuses: Record<number, number> = {}
  let [acknowledged, lost, over] = [0, 0, false]
  const ask = async (path: string, init?: RequestInit): Promise<{ status: number; body: unknown }> => {
    const answer = await fetch(`${desk.address}${path}`, init).catch(() => undefined)
    const body = await answer?.json().catch(() => undefined)
    // An answer that broke off in the middle is none.
    const status = answer === undefined || body === undefined ? 0 : answer.status
    statuses[status] = (statuses[status] ?? 0) + 1
    return { status, body }
  }
  const json = (method: string, body: unknown): RequestInit => ({
    method,
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(body),
  })

  const [first] = (await ask('/api/lineups')).body as Lineup[]
  const { id: _, revision: __, demo: ___, updatedAt: ____, ...content } = (await ask(`/api/lineups/${first!.id}`)).body as Lineup
  const lineups = await Promise.all(
    Array.from({ length: WRITERS }, async (_, i) => {
      const made = await ask(
        '/api/lineups',
        json('POST', {
          ...content,
          name: '0',
          candidates: content.candidates.map((one) => ({ ...one, id: crypto.randomUUID(), name: `of ${i}` })),
        }),
      )
      return { ...(made.body as Lineup), reached: 0 }
    }),
  )
  const write = async (lineup: (typeof lineups)[number]): Promise<void> => {
    for (let number = 1; !over; ) {
      const { id, revision, partId, placement, purpose, candidates } = lineup
      const { status, body } = await ask(
        `/api/lineups/${id}`,
        json('PUT', { name: String(number), partId, placement, purpose, candidates, revision }),
      )
      if (status === 200) {
        lineup.revision = (body as Lineup).revision
        lineup.reached = number++
        acknowledged++
      } else if (status === 409) {
        // The one before went through although its answer was cut off.
        const { current } = body as { current?: Lineup }
        if (current) {
          lineup.revision = current.revision
          number = Number(current.name) + 1
        }
      } else await wait(20)
    }
  }
  const parts: string[] = []
  const load = async (): Promise<void> => {
    for (let number = 1; !over; ) {
      const bytes = writeStl(blockMesh(1 + (number % 50), 2 + seed / 1e6, 3 + number / 100))
      const { status, body } = await ask(`/api/parts?fileName=block-${number}.stl`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/octet-stream' },
        body: bytes as Uint8Array<ArrayBuffer>,
      })
      if (status === 201) {
        parts.push((body as { id: string }).id)
        acknowledged++
        number++
      }
      await wait(20)
    }
  }
  const work = Promise.all([...lineups.map(write), load()])

  let done = 0
  while (done < kills) {
    await wait(50 + 600 * random())
    if (!desk.kill(random() < 0.5 ? 'server' : 'database')) continue
    done++
    // Now and then the other one, too, or the same one while it starts.
    if (random() < 0.2) {
      await wait(400 * random())
      if (desk.kill(random() < 0.5 ? 'server' : 'database')) done++
    }
    await wait(100)
    await desk.ready()
    for (const lineup of lineups) {
      const { reached } = lineup
      const { status, body } = await ask(`/api/lineups/${lineup.id}`)
      if (status === 200 && Number((body as Lineup).name) < reached) lost++
    }
  }
  over = true
  await work
  await desk.ready()
  const listed = new Set(((await ask('/api/parts')).body as { id: string }[]).map(({ id }) => id))
  lost += parts.filter((id) => !listed.has(id)).length
  return { kills: done, acknowledged, lost, statuses }
}
