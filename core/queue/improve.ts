import { seeded } from '../units/seeded'
import type { Ground } from './ground'
import type { Item, Lanes } from './queue'
import { costOf, worthOfLanes } from './worth'

/** A schedule that was found, and what it costs. */
export interface Found {
  readonly lanes: Lanes
  readonly cost: number
}

export const judge = (ground: Ground, lanes: Lanes): Found => ({ lanes, cost: costOf(worthOfLanes(ground, lanes)) })

/** Rounds between two reports. */
const REPORT = 200
/** At first a schedule that is so much worse is taken as often as not, as a share of its cost; assumed. */
const WARM = 0.02

/**
 * Moves one copy elsewhere, or exchanges two, again and again; what is worse is taken for a while, ever less (annealing, Kirkpatrick 1983).
 * The same for the same seed.
 */
export function* improve(ground: Ground, from: Found, rounds: number, seed: number): Generator<number, Found> {
  const random = seeded(seed)
  const { queue, printerOf } = ground
  const count = from.lanes.reduce((sum, lane) => sum + lane.length, 0)
  let now = from
  let best = from
  if (count === 0) return best
  const lanesOf = (job: number) => queue.jobs[job]!.options.map(({ printer }, option) => ({ lane: printerOf.get(printer)!, option }))
  const pick = (lanes: Lanes): { lane: number; place: number } => {
    let left = Math.floor(random() * count)
    for (const [lane, items] of lanes.entries()) {
      if (left < items.length) return { lane, place: left }
      left -= items.length
    }
    throw new RangeError('fewer items than were counted')
  }
  const moved = (lanes: Lanes): Lanes | undefined => {
    const { lane, place } = pick(lanes)
    const item = lanes[lane]![place]!
    if (random() < 0.5) {
      const ways = lanesOf(item.job)
      const { lane: to, option } = ways[Math.floor(random() * ways.length)]!
      const changed = lanes.map((items) => items)
      const source = lanes[lane]!.toSpliced(place, 1)
      changed[lane] = source
      const target = to === lane ? source : lanes[to]!
      changed[to] = target.toSpliced(Math.floor(random() * (target.length + 1)), 0, { ...item, option })
      return changed
    }
    const other = pick(lanes)
    const second = lanes[other.lane]![other.place]!
    if (second === item) return undefined
    const there = wayOn(other.lane, item)
    const here = wayOn(lane, second)
    if (!there || !here) return undefined
    const changed = lanes.map((items) => items)
    changed[lane] = changed[lane]!.with(place, here)
    changed[other.lane] = changed[other.lane]!.with(other.place, there)
    return changed
  }
  const wayOn = (lane: number, item: Item): Item | undefined => {
    const ways = lanesOf(item.job).filter((way) => way.lane === lane)
    const own = ways.find(({ option }) => option === item.option) ?? ways[Math.floor(random() * ways.length)]
    return own && { ...item, option: own.option }
  }
  for (let round = 0; round < rounds; round++) {
    if (round % REPORT === 0) yield round / rounds
    const lanes = moved(now.lanes)
    if (!lanes) continue
    const tried = judge(ground, lanes)
    const heat = WARM * Math.max(1e-9, best.cost) * (1 - round / rounds) ** 2
    if (tried.cost <= now.cost || random() < Math.exp((now.cost - tried.cost) / Math.max(1e-9, heat))) now = tried
    if (tried.cost < best.cost) best = tried
  }
  return best
}

/** All ways to place a few copies are looked at; more than this are not. */
export const FEW = 6

/** The best of all schedules, of few copies. */
export function bestOfAll(ground: Ground, copies: readonly { job: number; copy: number }[]): Found {
  const { queue, printerOf } = ground
  let best: Found | undefined
  const lanes: Item[][] = queue.printers.map(() => [])
  const place = (at: number): void => {
    const one = copies[at]
    if (!one) {
      const found = judge(
        ground,
        lanes.map((lane) => [...lane]),
      )
      if (!best || found.cost < best.cost) best = found
      return
    }
    for (const [option, { printer }] of queue.jobs[one.job]!.options.entries()) {
      const lane = lanes[printerOf.get(printer)!]!
      for (let to = 0; to <= lane.length; to++) {
        lane.splice(to, 0, { ...one, option })
        place(at + 1)
        lane.splice(to, 1)
      }
    }
  }
  place(0)
  return best!
}
