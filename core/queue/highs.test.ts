import loadHighs from 'highs'
import { describe, expect, it } from 'vitest'
import { seeded } from '../units/seeded'
import type { Queue } from './queue'
import { schedule } from './schedule'

const [SLOT, MACHINES, JOBS, DAY] = [30, 4, 15, 1440]
/** Somebody is there from the first minute of each day for eleven hours. */
const presence = Array.from({ length: 8 }, (_, day) => ({ from: day * DAY, to: day * DAY + 660 }))

/** Fifteen prints of half an hour to ten hours, in half hours, on four equal machines. */
function instance(seed: number): { queue: Queue; slots: readonly number[] } {
  const random = seeded(1000 + 77 * seed)
  for (let i = 0; i < 5; i++) random()
  const slots = Array.from({ length: JOBS }, () => 1 + Math.floor(20 * random()))
  const printers = Array.from({ length: MACHINES }, (_, i) => ({ key: `m${i}`, changeMinutes: 0 }))
  const jobs = slots.map((own, i) => ({
    id: `j${i}`,
    copies: 1,
    options: printers.map(({ key }) => ({ printer: key, minutes: SLOT * own })),
  }))
  return { queue: { printers, jobs, presence }, slots }
}

/** The same as a mixed-integer model by starting times: each print begins once, at most four run at a time, the end is after all. In slots. */
function model(slots: readonly number[], horizon: number): string {
  const starts = (own: number): number[] =>
    Array.from({ length: Math.max(0, horizon - own + 1) }, (_, t) => t).filter((t) =>
      presence.some(({ from, to }) => from <= t * SLOT && t * SLOT < to),
    )
  const rows = slots.flatMap((own, j) => {
    const all = starts(own)
    return [
      ` once${j}: ${all.map((t) => `x${j}_${t}`).join(' + ')} = 1`,
      ` end${j}: C ${all.map((t) => `- ${t + own} x${j}_${t}`).join(' ')} >= 0`,
    ]
  })
  for (let s = 0; s < horizon; s++) {
    const running = slots.flatMap((own, j) =>
      starts(own)
        .filter((t) => t <= s && s < t + own)
        .map((t) => `x${j}_${t}`),
    )
    if (running.length > 0) rows.push(` at${s}: ${running.join(' + ')} <= ${MACHINES}`)
  }
  const names = slots.flatMap((own, j) => starts(own).map((t) => `x${j}_${t}`))
  return `Minimize\n obj: C\nSubject To\n${rows.join('\n')}\nBounds\n C >= 0\nBinary\n ${names.join('\n ')}\nEnd\n`
}

describe('fifteen prints on four machines with hours of presence', () => {
  it.each(Array.from({ length: 20 }, (_, i) => i + 1))('instance %i comes out within three per cent of what HiGHS finds', async (seed) => {
    const highs = await loadHighs()
    const { queue, slots } = instance(seed)
    const own = schedule(queue)
    const solved = highs.solve(model(slots, Math.ceil(own.makespan / SLOT)), { time_limit: 60, mip_rel_gap: 0.005 })
    expect(solved.Status).toBe('Optimal')
    const best = solved.ObjectiveValue * SLOT
    expect(own.makespan).toBeLessThanOrEqual(1.03 * best)
    // Nothing that the other solver proves possible lies under our bound.
    expect(own.lowerBound).toBeLessThanOrEqual(best + 1e-6)
  })
})
