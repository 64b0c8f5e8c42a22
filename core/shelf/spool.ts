import { median } from 'd3-array'
import { z } from 'zod'
import { settingValuesSchema } from '../profile/settings'
import { filamentLength } from '../units/flow'
import { ladderSchema, type Material, temperatureRange } from './material'

/** One reel of filament that is at hand. Weights g, temperatures °C, days as ISO dates. */
export const spoolSchema = z.object({
  key: z.string().regex(/^[a-z0-9.-]+$/),
  name: z.string().min(1).max(80),
  /** Key of the material. */
  material: z.string().min(1).max(64),
  /** Who made it; reels of one maker weigh alike. */
  maker: z.string().max(80).optional(),
  color: z
    .string()
    .regex(/^#[0-9a-f]{6}$/i)
    .optional(),
  /** Filament on it when it was new. */
  netG: z.number().positive().max(20_000),
  /** Of the empty reel, where it is known. */
  reelG: z.number().positive().max(2000).optional(),
  price: z.number().min(0).optional(),
  /** Reel and filament on the scale, in the order of weighing. */
  weighings: z.array(z.object({ on: z.iso.date(), grossG: z.number().positive().max(30_000) })).max(500),
  /** Days on which it was dried. */
  dried: z.array(z.iso.date()).max(500),
  /** Used up: the last weighing is then that of the empty reel. */
  empty: z.boolean().optional(),
  /** What the label of this spool says, where it differs from the material's. */
  nozzleRange: temperatureRange.optional(),
  bedRange: temperatureRange.optional(),
  /** Flow ladder measured with this very spool. */
  ladder: ladderSchema.optional(),
  /** Key of the nozzle that its own numbers were found with. */
  foundWith: z.string().max(64).optional(),
  /** Settings that were found for it: temperature, retraction, fan. */
  defaults: settingValuesSchema,
})
export type Spool = z.infer<typeof spoolSchema>

/** Empty 1 kg reels weigh about 200 to 250 g (CP-A1, common practice). */
const USUAL_REEL = { grams: 225, doubt: 25 }
/** How far a kitchen scale is off, g; assumed. */
const SCALE_DOUBT = 2
/** How much more or less than its label a new reel holds, as a share; assumed. */
const LABEL_DOUBT = 0.03

/** Weight of the maker's empty reel, as reels of its own that were emptied tell: their median. */
export function learnedReel(maker: string | undefined, spools: readonly Spool[]): number | undefined {
  if (maker === undefined || maker === '') return undefined
  // Asked for every spool of a shelf: thousands, each of which would look at all the others.
  let known = learned.get(spools)
  if (!known) {
    known = reelsByMaker(spools)
    learned.set(spools, known)
  }
  return known.get(maker)
}

const learned = new WeakMap<readonly Spool[], ReadonlyMap<string, number>>()

function reelsByMaker(spools: readonly Spool[]): ReadonlyMap<string, number> {
  const seen = new Map<string, number[]>()
  for (const { maker, reelG, empty, weighings } of spools) {
    const grams = reelG ?? (empty ? weighings.at(-1)?.grossG : undefined)
    if (maker !== undefined && grams !== undefined) seen.set(maker, [...(seen.get(maker) ?? []), grams])
  }
  return new Map([...seen].map(([maker, grams]) => [maker, median(grams)!]))
}

export interface Remaining {
  readonly grams: number
  /** How far that may be off, both ways. */
  readonly doubtG: number
  readonly metres: number
  /** What it rests on. */
  readonly from: 'weighed' | 'weighed, reel assumed' | 'label'
}

/** What is left on a spool: gross less reel. Where it was never weighed, what the label says. */
export function remainingOf(spool: Spool, spools: readonly Spool[], density: number, diameter: number): Remaining {
  const told = (grams: number, doubtG: number, from: Remaining['from']): Remaining => {
    const left = Math.max(0, grams)
    return { grams: left, doubtG, metres: filamentLength((left / density) * 1000, diameter) / 1000, from }
  }
  if (spool.empty) return told(0, 0, 'weighed')
  const last = spool.weighings.at(-1)
  if (!last) return told(spool.netG, LABEL_DOUBT * spool.netG, 'label')
  const reel = spool.reelG ?? learnedReel(spool.maker, spools)
  if (reel !== undefined) return told(last.grossG - reel, Math.hypot(SCALE_DOUBT, SCALE_DOUBT), 'weighed')
  return told(last.grossG - USUAL_REEL.grams, Math.hypot(SCALE_DOUBT, USUAL_REEL.doubt), 'weighed, reel assumed')
}

/** Whether a spool holds enough for a print, doubt included. */
export function sufficiency({ grams, doubtG }: Pick<Remaining, 'grams' | 'doubtG'>, neededG: number): 'enough' | 'perhaps' | 'short' {
  if (grams - doubtG >= neededG) return 'enough'
  return grams + doubtG >= neededG ? 'perhaps' : 'short'
}

/** Of several spools the one to use up: the least of those that surely hold enough. */
export function spoolToUseUp<S extends { readonly remaining: Remaining }>(spools: readonly S[], neededG: number): S | undefined {
  return spools
    .filter(({ remaining }) => sufficiency(remaining, neededG) === 'enough')
    .reduce<S | undefined>((least, next) => (least === undefined || next.remaining.grams < least.remaining.grams ? next : least), undefined)
}

/** Days in open air after which filament is likely wet enough to show. Assumed, by how fast the material takes up water. */
const STAYS_DRY: Readonly<Record<NonNullable<Material['moisture']>, number>> = { slow: 60, middling: 21, fast: 3 }

export const daysToGetWet = (moisture: Material['moisture'] = 'middling'): number => STAYS_DRY[moisture]

/** Share of the water that it takes up at most, 0–1, since it was dried; one that never was counts as opened long ago. */
export const waterTaken = ({ days }: Pick<SpoolStock, 'days'>, { moisture }: Pick<Material, 'moisture'>): number =>
  days === undefined ? 1 : 1 - Math.exp(-days / daysToGetWet(moisture))

/** Whole days since it was dried; undefined where it never was. */
export function daysSinceDrying({ dried }: Pick<Spool, 'dried'>, today: string): number | undefined {
  const last = [...dried].sort().at(-1)
  return last === undefined ? undefined : Math.max(0, Math.round((Date.parse(today) - Date.parse(last)) / 86_400_000))
}

/** Whether it has likely taken up water; a spool that was never dried counts as opened long ago. */
export function isLikelyWet(spool: Pick<Spool, 'dried'>, { moisture = 'middling' }: Pick<Material, 'moisture'>, today: string): boolean {
  const days = daysSinceDrying(spool, today)
  return days === undefined || days > STAYS_DRY[moisture]
}

/** A spool among its fellows, on a day. */
export interface SpoolStock {
  readonly remaining: Remaining
  /** Whole days since it was dried. */
  readonly days: number | undefined
  readonly wet: boolean
  /** Other spools of the same material. */
  readonly others: readonly { readonly key: string; readonly name: string; readonly material: string; readonly remaining: Remaining }[]
}

/** @param today ISO date */
export function stockOf(spool: Spool, spools: readonly Spool[], material: Material, diameter: number, today: string): SpoolStock {
  const left = (other: Spool): Remaining => remainingOf(other, spools, material.density, diameter)
  return {
    remaining: left(spool),
    days: daysSinceDrying(spool, today),
    wet: isLikelyWet(spool, material, today),
    others: spools
      .filter((other) => other.key !== spool.key && other.material === spool.material && !other.empty)
      .map((other) => ({ key: other.key, name: other.name, material: other.material, remaining: left(other) })),
  }
}

/** A material as one spool of it is: its label, its price and its own measurements instead of the kind's. */
export function materialOf(material: Material, spool: Spool | undefined): Material {
  if (!spool) return material
  return {
    ...material,
    ...(spool.nozzleRange ? { nozzleRange: spool.nozzleRange } : {}),
    ...(spool.bedRange ? { bedRange: spool.bedRange } : {}),
    ...(spool.ladder && spool.ladder.length > 0 ? { ladder: spool.ladder } : {}),
    ...(spool.price === undefined ? {} : { pricePerKg: (1000 * spool.price) / spool.netG }),
  }
}
