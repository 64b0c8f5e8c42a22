import { groundOf } from '@sable/core/queue/ground'
import { listSchedule, orders } from '@sable/core/queue/listSchedule'
import type { Queue } from '@sable/core/queue/queue'
import { schedule } from '@sable/core/queue/schedule'
import { seeded } from '@sable/core/units/seeded'

/** What a schedule costs, against one bare list schedule of the same queue. */
function queueOf(jobs: number, printers: number, sharesSpools: boolean): Queue {
  const random = seeded(jobs + printers)
  const machines = Array.from({ length: printers }, (_, i) => ({ key: `p${i}`, changeMinutes: 10, spoolMinutes: 5 }))
  return {
    printers: machines,
    presence: Array.from({ length: 60 }, (_, day) => ({ from: 1440 * day, to: 1440 * day + 840 })),
    jobs: Array.from({ length: jobs }, (_, i) => {
      const minutes = 20 + Math.floor(600 * random())
      return {
        id: `j${i}`,
        copies: 1,
        ...(random() < 0.2 ? { deadline: 1440 * (1 + Math.floor(4 * random())) } : {}),
        options: machines.map(({ key }, at) => ({
          printer: key,
          minutes: minutes * (1 + 0.03 * (at % 5)),
          grams: 20,
          spool: sharesSpools ? `s${i % 12}` : `${key} ${i % 3}`,
        })),
      }
    }),
  }
}

for (const [jobs, printers, sharesSpools] of [
  [14, 3, true],
  [100, 8, false],
  [100, 8, true],
  [1000, 30, false],
] as const) {
  const queue = queueOf(jobs, printers, sharesSpools)
  const ground = groundOf(queue)
  let from = performance.now()
  for (let i = 0; i < 5; i++) listSchedule(ground, orders[0]!)
  const bare = (performance.now() - from) / 5
  from = performance.now()
  const { makespan, lowerBound } = schedule(queue)
  const ms = performance.now() - from
  process.stdout.write(
    `${JSON.stringify({ figure: `queue.${jobs}on${printers}${sharesSpools ? '.sharedReels' : ''}`, ms: Math.round(ms), ratio: Math.round(ms / bare), to: 'one list schedule', gap: Number((makespan / lowerBound - 1).toFixed(3)) })}\n`,
  )
}
