import { seeded } from '../units/seeded'
import type { Ground } from './ground'
import type { Lanes } from './queue'
import { timeline } from './timeline'

/** When a copy ends, and how often it ends too late, over drawn worlds. */
export interface Drawn {
  readonly low: number
  readonly high: number
  readonly lateShare: number
}

const DRAWS = 200
/** Standard deviations from the median to the end of an 80 % range. */
const EIGHTY = 1.2816
/** The shortest and longest share of a print after which it is seen to have failed; assumed even in between. */
const [SEEN_FROM, SEEN_TO] = [0.1, 1]

/**
 * Draws what may happen to a schedule that is kept as it is: prints take other times than foretold, within their ranges, all of a printer's
 * together slower or faster to half of that; and some fail, as often as the printer's do, and are printed again.
 *
 * @returns for each printer and place of its lane
 */
export function drawnEnds(ground: Ground, lanes: Lanes, seed = 1, draws = DRAWS): Drawn[][] {
  const random = seeded(seed)
  const { queue } = ground
  const ends = lanes.map((lane) => lane.map(() => new Float64Array(draws)))
  const placeOf = new Map(
    lanes.flatMap((lane, at) => lane.map((item, place) => [`${item.job} ${item.copy}`, [at, place] as const] as const)),
  )
  for (let draw = 0; draw < draws; draw++) {
    const common = new Map(queue.printers.map(({ key }) => [key, normal(random)]))
    const minutes = new Map<string, number>()
    // In the order of jobs, whatever the lanes: two schedules are drawn in the same worlds.
    for (const [job, { copies, options }] of queue.jobs.entries())
      for (let copy = 0; copy < copies; copy++) {
        const own = normal(random)
        const fate = random()
        const seen = SEEN_FROM + (SEEN_TO - SEEN_FROM) * random()
        const [lane, place] = placeOf.get(`${job} ${copy}`) ?? []
        if (lane === undefined || place === undefined) continue
        const option = options[lanes[lane]![place]!.option]!
        const spread =
          option.low !== undefined && option.high !== undefined && option.low > 0 ? Math.log(option.high / option.low) / (2 * EIGHTY) : 0
        const middle = spread > 0 ? Math.sqrt(option.low! * option.high!) : option.minutes
        const took = middle * Math.exp(spread * Math.SQRT1_2 * (own + common.get(option.printer)!))
        const printer = queue.printers.find(({ key }) => key === option.printer)!
        minutes.set(`${job} ${copy}`, fate < (printer.fails ?? 0) ? took * (1 + seen) + printer.changeMinutes : took)
      }
    for (const { job, copy, endsAt } of timeline(ground, lanes, (item) => minutes.get(`${item.job} ${item.copy}`)!)) {
      const [lane, place] = placeOf.get(`${job} ${copy}`)!
      ends[lane]![place]![draw] = endsAt
    }
  }
  return lanes.map((lane, at) =>
    lane.map(({ job }, place) => {
      const own = ends[at]![place]!.sort()
      const { deadline } = queue.jobs[job]!
      return {
        low: own[Math.floor(0.1 * draws)]!,
        high: own[Math.ceil(0.9 * draws) - 1]!,
        lateShare: deadline === undefined ? 0 : own.filter((end) => end > deadline).length / draws,
      }
    }),
  )
}

/** Box & Muller 1958. */
const normal = (random: () => number): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
