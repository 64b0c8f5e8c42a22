import { describe, expect, it } from 'vitest'
import type { Settings } from '../profile/settings'
import { settingsOf } from '../testing/setups'
import { type LeastTime, leastTime, MOST_WEIGHED, type Proposal, type Weighed, type Zone } from './leastTime'

const start = settingsOf({ wallCount: 3, topLayers: 4, bottomLayers: 4, infillDensity: 20, infillPattern: 'grid' })
const zone: Zone = { low: [-5, -5, 0], high: [5, 5, 9] }
const patternWorth = { grid: 1, triangles: 1.05, gyroid: 0.95, lines: 0.8 } as Record<string, number>

/** A part whose strength and time are sums of what its levers add; a place of its own takes a third of the part's time. */
function weighed({ values, overrides }: Proposal, settings: Settings = start): Weighed {
  const of = (own: Settings): { n: number; s: number } => ({
    n: 10 * own.wallCount + 2 * (own.topLayers + own.bottomLayers) + 0.3 * own.infillDensity * patternWorth[own.infillPattern]!,
    s: 300 * own.wallCount + 60 * (own.topLayers + own.bottomLayers) + 20 * own.infillDensity,
  })
  const elsewhere = of({ ...settings, ...values } as Settings)
  if (overrides.length === 0) return { timeS: elsewhere.s, loadN: elsewhere.n }
  const within = of({ ...settings, ...values, ...overrides[0]!.values } as Settings)
  return { timeS: (2 * elsewhere.s + within.s) / 3, loadN: within.n }
}

function run(wantedN: number, of = weighed, where: Zone | undefined = undefined): { found: LeastTime; asked: number } {
  const work = leastTime(start, wantedN)
  let asked = 0
  let step = work.next()
  while (!step.done) {
    if (step.value.ask === 'weigh') asked++
    step = work.next(step.value.ask === 'weigh' ? of(step.value.proposal) : where)
  }
  return { found: step.value, asked }
}

/** The least time of all by looking at everything. */
function brute(wantedN: number): number {
  let least = Infinity
  for (let wallCount = 1; wallCount <= 8; wallCount++)
    for (let skins = 2; skins <= 8; skins++)
      for (let infillDensity = 5; infillDensity <= 60; infillDensity += 5)
        for (const infillPattern of Object.keys(patternWorth) as Settings['infillPattern'][]) {
          const one = weighed({ values: { wallCount, topLayers: skins, bottomLayers: skins, infillDensity, infillPattern }, overrides: [] })
          if (one.loadN >= wantedN) least = Math.min(least, one.timeS)
        }
  return least
}

describe('the least time that bears a load', () => {
  it('bears it, in no more than a tenth above the best of all, whether the profile bore it or not', () => {
    for (const wantedN of [30, 45, 52, 60, 75, 90]) {
      const { found, asked } = run(wantedN)
      expect(found.bears).toBe(true)
      expect(found.weighed.loadN).toBeGreaterThanOrEqual(wantedN)
      expect(found.weighed.timeS / brute(wantedN)).toBeLessThan(1.1)
      expect(weighed(found.proposal)).toEqual(found.weighed)
      expect(asked).toBeLessThanOrEqual(MOST_WEIGHED)
    }
  })

  it('says so where nothing bears it, with the strongest that was found', () => {
    const { found } = run(1000)
    expect(found.bears).toBe(false)
    expect(found.weighed.loadN).toBeGreaterThan(weighed({ values: {}, overrides: [] }).loadN)
  })

  it('lays the strong values only where they are needed, where that saves time and still bears it', () => {
    const [everywhere, placed] = [run(60).found, run(60, weighed, zone).found]
    expect(placed.proposal.overrides).toHaveLength(1)
    expect(placed.proposal.overrides[0]).toMatchObject({ fromZ: 0, toZ: 9, box: { minX: -5, maxY: 5 } })
    expect(placed.weighed.timeS).toBeLessThan(everywhere.weighed.timeS)
    expect(placed.weighed.loadN).toBeGreaterThanOrEqual(60)
    // Where the place is what fails then, nothing of it is taken.
    const notThere = run(60, (proposal) => (proposal.overrides.length > 0 ? { timeS: 1, loadN: 10 } : weighed(proposal)), zone).found
    expect(notThere.proposal.overrides).toEqual([])
  })

  it('leaves out what cannot be printed', () => {
    const { found } = run(60, (proposal) => ((proposal.values.wallCount ?? 3) > 3 ? (undefined as unknown as Weighed) : weighed(proposal)))
    expect(found.bears).toBe(true)
    expect(found.proposal.values.wallCount ?? 3).toBeLessThanOrEqual(3)
  })
})
