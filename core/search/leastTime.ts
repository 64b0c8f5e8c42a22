import type { Override } from '../profile/overrides'
import type { Settings, SettingValues } from '../profile/settings'

/** What is weighed: a profile's changed values, and a place of its own for the stronger of them. */
export interface Proposal {
  readonly values: SettingValues
  readonly overrides: readonly Override[]
}

/** What a proposal came to. */
export interface Weighed {
  readonly timeS: number
  /** N */
  readonly loadN: number
}

/** Where a part is near to failing under the load that is wanted, mm. */
export interface Zone {
  readonly low: readonly [x: number, y: number, z: number]
  readonly high: readonly [x: number, y: number, z: number]
}

/** The search asks for one or the other. */
export type Question = { readonly ask: 'weigh'; readonly proposal: Proposal } | { readonly ask: 'zone'; readonly proposal: Proposal }
export type Reply = Weighed | Zone | undefined

export interface LeastTime {
  readonly proposal: Proposal
  readonly weighed: Weighed
  /** Whether it bears what was wanted; else it is the strongest that was found. */
  readonly bears: boolean
}

type Levers = Pick<Settings, 'wallCount' | 'topLayers' | 'bottomLayers' | 'infillDensity' | 'infillPattern'>
const names = ['wallCount', 'topLayers', 'bottomLayers', 'infillDensity', 'infillPattern'] as const

/** So many proposals are weighed at most. */
export const MOST_WEIGHED = 60
/** Of infill, points at a time, and how far it goes either way. */
const [POINTS, LEAST_DENSITY, MOST_DENSITY] = [5, 5, 60]
const [MOST_WALLS, LEAST_SKINS, MOST_SKINS] = [8, 2, 8]
/** Patterns that are tried beside the profile's own: what bears alike in all directions of a layer, and what is laid fastest. */
const patterns = ['grid', 'triangles', 'gyroid', 'lines'] as const
/** A gain of less than this is none. */
const HARDLY = 0.002

/**
 * The least time in which a part bears a load, by walls, tops and bottoms, and infill, and in the end by a place where it is stronger than elsewhere.
 * From the profile as it is: as long as it does not bear enough, the change that gives most newtons for a second; then, as long as it still bears
 * enough, the change that saves most. A search by single steps and by exchanges of two finds what no such step betters, not the best of all.
 *
 * Asks for proposals to be weighed (`undefined` in reply to one that cannot be printed), and for the zone near failing.
 *
 * @param wantedN N
 */
export function* leastTime(settings: Settings, wantedN: number): Generator<Question, LeastTime, Reply> {
  const start = pick(settings)
  const known = new Map<string, Weighed | undefined>()
  function* weigh(levers: Levers, overrides: readonly Override[] = []): Generator<Question, Weighed | undefined, Reply> {
    const key = JSON.stringify([levers, overrides])
    if (!known.has(key)) {
      if (known.size >= MOST_WEIGHED) return undefined
      known.set(key, (yield { ask: 'weigh', proposal: { values: changed(start, levers), overrides } }) as Weighed | undefined)
    }
    return known.get(key)
  }
  const asItIs = yield* weigh(start)
  if (!asItIs) return { proposal: { values: {}, overrides: [] }, weighed: { timeS: Number.NaN, loadN: Number.NaN }, bears: false }
  let best: { readonly levers: Levers; readonly weighed: Weighed } = { levers: start, weighed: asItIs }
  while (best.weighed.loadN < wantedN) {
    const now = best.weighed
    const ups: { levers: Levers; weighed: Weighed; worth: number }[] = []
    for (const levers of stronger(best.levers)) {
      const weighed = yield* weigh(levers)
      if (!weighed || weighed.loadN <= now.loadN * (1 + HARDLY)) continue
      // What is above the wanted load is worth nothing.
      const gained = Math.min(weighed.loadN, wantedN) - now.loadN
      ups.push({ levers, weighed, worth: gained / Math.max(1, weighed.timeS - now.timeS) })
    }
    const up = ups.reduce<(typeof ups)[number] | undefined>((most, one) => (!most || one.worth > most.worth ? one : most), undefined)
    if (!up) return told(start, best.levers, best.weighed, false)
    best = up
  }
  for (;;) {
    const now = best.weighed
    let next: { levers: Levers; weighed: Weighed } | undefined
    for (const levers of lighter(best.levers)) {
      const weighed = yield* weigh(levers)
      if (!weighed || weighed.loadN < wantedN || weighed.timeS > now.timeS * (1 - HARDLY)) continue
      if (!next || weighed.timeS < next.weighed.timeS) next = { levers, weighed }
    }
    if (!next) break
    best = next
  }
  const whole = told(start, best.levers, best.weighed, true)
  return (yield* withPlace(start, best.levers, whole, wantedN, weigh)) ?? whole
}

type Weigh = (levers: Levers, overrides?: readonly Override[]) => Generator<Question, Weighed | undefined, Reply>

/** The same strong values only where the part is near to failing, and lighter ones elsewhere; nothing where that saves no time. */
function* withPlace(
  start: Levers,
  strong: Levers,
  whole: LeastTime,
  wantedN: number,
  weigh: Weigh,
): Generator<Question, LeastTime | undefined, Reply> {
  const zone = (yield { ask: 'zone', proposal: whole.proposal }) as Zone | undefined
  if (!zone) return undefined
  const override: Override = {
    name: 'Where it is loaded most',
    fromZ: Math.max(0, zone.low[2]),
    toZ: zone.high[2],
    box: { minX: zone.low[0], maxX: zone.high[0], minY: zone.low[1], maxY: zone.high[1] },
    values: { wallCount: strong.wallCount, infillDensity: strong.infillDensity, infillPattern: strong.infillPattern },
  }
  let found: LeastTime | undefined
  let levers = strong
  // One wall or one step of infill less elsewhere at a time.
  for (;;) {
    const lighterElsewhere = [
      { ...levers, wallCount: levers.wallCount - 1 },
      { ...levers, infillDensity: levers.infillDensity - POINTS },
    ].filter(isSensible)
    let next: { levers: Levers; weighed: Weighed } | undefined
    for (const one of lighterElsewhere) {
      const weighed = yield* weigh(one, [override])
      if (!weighed || weighed.loadN < wantedN || weighed.timeS > (next ?? found ?? whole).weighed.timeS * (1 - HARDLY)) continue
      next = { levers: one, weighed }
    }
    if (!next) return found
    levers = next.levers
    found = { proposal: { values: changed(start, levers), overrides: [override] }, weighed: next.weighed, bears: true }
  }
}

const pick = (settings: Settings): Levers => Object.fromEntries(names.map((name) => [name, settings[name]])) as unknown as Levers

/** Only what differs from the profile. */
const changed = (start: Levers, levers: Levers): SettingValues =>
  Object.fromEntries(names.filter((name) => levers[name] !== start[name]).map((name) => [name, levers[name]])) as SettingValues

const told = (start: Levers, levers: Levers, weighed: Weighed, bears: boolean): LeastTime => ({
  proposal: { values: changed(start, levers), overrides: [] },
  weighed,
  bears,
})

const isSensible = ({ wallCount, topLayers, bottomLayers, infillDensity }: Levers): boolean =>
  wallCount >= 1 &&
  wallCount <= MOST_WALLS &&
  Math.min(topLayers, bottomLayers) >= LEAST_SKINS &&
  Math.max(topLayers, bottomLayers) <= MOST_SKINS &&
  infillDensity >= LEAST_DENSITY &&
  infillDensity <= MOST_DENSITY

/** Single steps up. */
const stronger = (levers: Levers): Levers[] =>
  [
    { ...levers, wallCount: levers.wallCount + 1 },
    { ...levers, topLayers: levers.topLayers + 1, bottomLayers: levers.bottomLayers + 1 },
    { ...levers, infillDensity: levers.infillDensity + 2 * POINTS },
    ...patterns.filter((one) => one !== levers.infillPattern).map((infillPattern) => ({ ...levers, infillPattern })),
  ].filter(isSensible)

/** Single steps down, and exchanges of one lever for another. */
const lighter = (levers: Levers): Levers[] =>
  [
    { ...levers, wallCount: levers.wallCount - 1 },
    { ...levers, topLayers: levers.topLayers - 1, bottomLayers: levers.bottomLayers - 1 },
    { ...levers, infillDensity: levers.infillDensity - POINTS },
    { ...levers, wallCount: levers.wallCount + 1, infillDensity: levers.infillDensity - 2 * POINTS },
    { ...levers, wallCount: levers.wallCount - 1, infillDensity: levers.infillDensity + 2 * POINTS },
    { ...levers, wallCount: levers.wallCount + 1, topLayers: levers.topLayers - 1, bottomLayers: levers.bottomLayers - 1 },
    ...patterns.filter((one) => one !== levers.infillPattern).map((infillPattern) => ({ ...levers, infillPattern })),
  ].filter(isSensible)
