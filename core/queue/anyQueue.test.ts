import { group } from 'd3-array'
import { describe, expect, it } from 'vitest'
import { seeded } from '../units/seeded'
import { type Queue, takesOf } from './queue'
import { type Schedule, schedule } from './schedule'

/** A queue of any kind: printers with changes, reels that are shared or follow each other, plates, hours of presence, quiet hours, deadlines. */
function randomQueue(seed: number): Queue {
  const random = seeded(seed)
  const upTo = (n: number): number => Math.floor(random() * n)
  const printers = Array.from({ length: 1 + upTo(4) }, (_, i) => ({
    key: `p${i}`,
    changeMinutes: 5 * upTo(4),
    spoolMinutes: 5 * upTo(3),
    nozzleMinutes: 10 * upTo(2),
    freeAt: 30 * upTo(3),
    ...(random() < 0.5 ? { spool: `s${upTo(3)}`, nozzle: `n${upTo(2)}` } : {}),
  }))
  const jobs = Array.from({ length: 1 + upTo(9) }, (_, i) => ({
    id: `j${i}`,
    copies: 1 + upTo(3),
    options: printers
      .filter(() => random() < 0.7)
      .map(({ key }) => ({
        printer: key,
        minutes: 10 + upTo(400),
        grams: 5 + upTo(80),
        ...(random() < 0.6 ? { spool: `s${upTo(3)}` } : {}),
        ...(random() < 0.4 ? { nozzle: `n${upTo(2)}` } : {}),
        ...(random() < 0.3 ? { perPlate: 1 + upTo(3), startMinutes: upTo(10) } : {}),
      })),
    ...(random() < 0.3 ? { deadline: 100 + upTo(1500) } : {}),
    ...(random() < 0.2 ? { notBefore: upTo(500) } : {}),
  }))
  const presence = Array.from({ length: 1 + upTo(6) }, (_, day) => ({
    from: 1440 * day + 60 * upTo(12),
    to: 1440 * day + 720 + 60 * upTo(11),
  }))
  const spools = [0, 1, 2].map((i) => ({
    key: `s${i}`,
    grams: 20 + upTo(900),
    doubtG: 5,
    ...(random() < 0.2 ? { useUp: true } : {}),
    ...(random() < 0.3 ? { followedBy: `s${upTo(3)}` } : {}),
  }))
  const quiet = Array.from({ length: 7 }, (_, day) => ({ from: 1440 * day + 1320, to: 1440 * day + 1320 + 60 * upTo(9) }))
  return {
    printers,
    jobs,
    ...(random() < 0.7 ? { presence } : {}),
    ...(random() < 0.5 ? { spools } : {}),
    ...(random() < 0.3 ? { quiet } : {}),
  }
}

/** Nothing that a workshop cannot do. */
function expectPossible(queue: Queue, { placed, ground, refused, makespan, lowerBound, late }: Schedule): void {
  const { jobs, printers } = ground.queue
  const out = new Set(refused.map(({ job }) => job))
  // Each copy once and whole, and nothing is lost: what is not placed is refused.
  const seen = new Set(placed.map(({ job, copy }) => `${jobs[job]!.id} ${copy}`))
  expect(seen.size).toBe(placed.length)
  for (const { id, copies } of queue.jobs)
    if (!out.has(id)) for (let copy = 0; copy < copies; copy++) expect(seen).toContain(`${id} ${copy}`)
  for (const one of placed) {
    const { job, option, printer, startsAt, endsAt, setUpAt } = one
    const { options, notBefore = 0, deadline, id } = jobs[job]!
    const { minutes, startMinutes = 0, ...way } = options[option]!
    const lasts = Math.max(0, minutes - (one.isOnPlate ? startMinutes : 0))
    expect(printers[printer]!.key).toBe(way.printer)
    // It stands still only while a reel is changed.
    if (takesOf(one, options[option]!).length < 2) expect(endsAt - startsAt).toBeCloseTo(lasts, 6)
    else expect(endsAt - startsAt).toBeGreaterThanOrEqual(lasts - 1e-6)
    expect(startsAt).toBeGreaterThanOrEqual(notBefore)
    expect(setUpAt).toBeGreaterThanOrEqual((printers[printer]!.freeAt ?? 0) - 1e-9)
    // Somebody is there from the first hand that is laid on until it runs; on a plate nobody has to be.
    if (!one.isOnPlate) expectSomebody(queue, setUpAt, startsAt)
    for (const { from } of takesOf(one, options[option]!))
      if (from !== undefined) expectSomebody(queue, from - (printers[printer]!.spoolMinutes ?? 0), from)
    for (const { from, to } of queue.quiet ?? [])
      if (to > from && takesOf(one, options[option]!).length < 2) expect(endsAt <= from + 1e-6 || startsAt >= to - 1e-6).toBe(true)
    if (deadline !== undefined && endsAt > deadline) expect(late).toContain(id)
    expect(endsAt).toBeLessThanOrEqual(makespan)
  }
  expectPlates({ placed, ground })
  const alone = (used: readonly { readonly what: string; readonly from: number; readonly to: number }[]): void => {
    for (const own of group(used, ({ what }) => what).values()) {
      const sorted = own.toSorted((a, b) => a.from - b.from)
      for (const [i, one] of sorted.entries()) if (i > 0) expect(one.from).toBeGreaterThanOrEqual(sorted[i - 1]!.to - 1e-9)
    }
  }
  alone(placed.map(({ printer, setUpAt, endsAt }) => ({ what: String(printer), from: setUpAt, to: endsAt })))
  alone(
    placed.flatMap((one) => {
      const takes = takesOf(one, jobs[one.job]!.options[one.option]!)
      return takes.map(({ spool, from }, i) => ({ what: spool, from: from ?? one.startsAt, to: takes[i + 1]?.from ?? one.endsAt }))
    }),
  )
  // What a copy takes is what it weighs.
  for (const one of placed) {
    const way = jobs[one.job]!.options[one.option]!
    if (way.spool !== undefined) expect(takesOf(one, way).reduce((sum, { grams }) => sum + grams, 0)).toBeCloseTo(way.grams ?? 0, 6)
  }
  expect(lowerBound).toBeLessThanOrEqual(makespan + 1e-9)
}

/** A plate holds copies of one way, no more than it can, one after another without a pause. */
function expectPlates({ placed, ground }: Pick<Schedule, 'placed' | 'ground'>): void {
  for (const own of group(placed, ({ printer }) => printer).values()) {
    let on = 0
    for (const [i, one] of own.toSorted((a, b) => a.startsAt - b.startsAt || a.endsAt - b.endsAt).entries()) {
      on = one.isOnPlate ? on + 1 : 1
      const { perPlate = 1 } = ground.queue.jobs[one.job]!.options[one.option]!
      expect(on).toBeLessThanOrEqual(perPlate)
      if (!one.isOnPlate) continue
      const before = own.toSorted((a, b) => a.startsAt - b.startsAt || a.endsAt - b.endsAt)[i - 1]!
      expect([before.job, before.option, before.endsAt]).toEqual([one.job, one.option, one.startsAt])
    }
  }
}

function expectSomebody({ presence }: Queue, from: number, to: number): void {
  if (!presence) return
  let at = from
  // Hours that touch are one.
  for (const window of presence.toSorted((a, b) => a.from - b.from)) if (window.from <= at + 1e-9 && window.to > at) at = window.to
  expect(at).toBeGreaterThan(to)
}

describe('any queue', () => {
  it('has no two things on one machine or reel at once, starts nothing when nobody is there, and splits or loses no copy', () => {
    for (let seed = 1; seed <= 700; seed++) {
      const queue = randomQueue(seed)
      // Few moves: what must hold, holds for any schedule.
      expectPossible(queue, schedule(queue, { seed, rounds: 80 }))
    }
  })

  it('is the same for the same seed', () => {
    const queue = randomQueue(17)
    expect(schedule(queue, { seed: 3 }).placed).toEqual(schedule(queue, { seed: 3 }).placed)
  })
})
