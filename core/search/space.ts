import { z } from 'zod'
import { sixOrientations } from '../mesh/orientations'
import type { Placement } from '../mesh/place'
import { carriedTo } from '../physics/strength/carriedTo'
import type { Purpose } from '../physics/strength/purpose'
import { checkValue, definitionOf, isSettingName, nameToday, type SettingName, type SettingValues } from '../profile/settings'
import { stages } from '../profile/table/setting'
import type { Made } from '../steps/trail'
import type { Variant } from './explore'

/** Most choices of one dimension, and most dimensions of one search. */
export const MOST_CHOICES = 60
export const MOST_DIMENSIONS = 12

const keys = z.array(z.string().min(1).max(64)).min(1).max(MOST_CHOICES)

/** Something that may vary: a setting over a list of values, what is printed with, or how the part lies. */
export const dimensionSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('setting'),
    name: z.preprocess(
      (name) => (typeof name === 'string' ? nameToday(name) : name),
      z.custom<SettingName>((name) => typeof name === 'string' && isSettingName(name), 'There is no such setting.'),
    ),
    values: z
      .array(z.union([z.number(), z.string()]))
      .min(1)
      .max(MOST_CHOICES),
  }),
  z.object({ kind: z.enum(['printer', 'nozzle', 'material', 'spool']), keys }),
  /** Orientations, by their names. */
  z.object({ kind: z.literal('orientation'), ways: keys }),
])
export type Dimension = z.infer<typeof dimensionSchema>

/** What tells dimensions apart; no search has two alike. */
export const idOf = (dimension: Dimension): string => (dimension.kind === 'setting' ? dimension.name : dimension.kind)

export const choicesOf = (dimension: Dimension): readonly (number | string)[] =>
  dimension.kind === 'setting' ? dimension.values : dimension.kind === 'orientation' ? dimension.ways : dimension.keys

/** @throws InputError for a value that its setting cannot have, naming both */
export function checkDimension(dimension: Dimension): void {
  if (dimension.kind === 'setting') for (const value of dimension.values) checkValue(dimension.name, value)
}

export interface Start {
  readonly base: Made
  readonly placement: Placement
  readonly purpose: Purpose
}

/** What a variant of a search prints: its candidate, how the part lies, and the load turned with it. */
export function startOf({ base, placement, purpose }: Start, dimensions: readonly Dimension[], variant: Variant): Start {
  let made: Made = base
  let lies = { placement, purpose }
  for (const [d, dimension] of dimensions.entries()) {
    const choice = choicesOf(dimension)[variant[d]!]!
    if (dimension.kind === 'setting') made = { ...made, values: { ...made.values, [dimension.name]: choice } as SettingValues }
    else if (dimension.kind === 'orientation') {
      const way = sixOrientations(placement).find(({ name }) => name === choice)
      if (way) lies = { placement: way.placement, purpose: carriedTo(way, purpose) }
    } else if (dimension.kind === 'material') {
      // Another material is not on the reel that was chosen.
      const { spool, ...rest } = made
      made = { ...rest, material: String(choice), ...(spool !== undefined && choice === made.material ? { spool } : {}) }
    } else made = { ...made, [dimension.kind]: String(choice) }
  }
  return { base: made, ...lies }
}

/**
 * Variants in the order in which they are computed with least work: those that share the stages farthest up the pipeline
 * follow one another.
 */
export function inOrderOfReuse(variants: readonly Variant[], dimensions: readonly Dimension[]): Variant[] {
  const order = dimensions.map((_, d) => d).sort((a, b) => depthOf(dimensions[a]!) - depthOf(dimensions[b]!) || a - b)
  return [...variants].sort((a, b) => {
    for (const d of order) if (a[d] !== b[d]) return a[d]! - b[d]!
    return 0
  })
}

/** What tells variants apart that share neither layers nor regions: a number that is the same for those that share both. */
export function familyOf(variant: Variant, dimensions: readonly Dimension[]): number {
  let family = 0
  for (const [d, dimension] of dimensions.entries())
    if (depthOf(dimension) <= stages.indexOf('regions')) family = family * choicesOf(dimension).length + variant[d]!
  return family
}

/** Which stage of the pipeline a dimension is first read by; the part's place comes before all, its filament last. */
function depthOf(dimension: Dimension): number {
  switch (dimension.kind) {
    case 'orientation':
      return -1
    case 'printer':
    case 'nozzle':
      return stages.indexOf('regions')
    case 'material':
    case 'spool':
      return stages.indexOf('figures')
    default:
      return stages.indexOf(definitionOf(dimension.name).stage)
  }
}
