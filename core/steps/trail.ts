import type { Override } from '../profile/overrides'
import type { SettingName, SettingValues } from '../profile/settings'
import { settingNames } from '../profile/settings'

/** What a candidate is made of, by the keys of the shelf. */
export interface Made {
  readonly printer: string
  readonly nozzle: string
  readonly material: string
  readonly spool?: string | undefined
  readonly values: SettingValues
  readonly overrides: readonly Override[]
}

const setupFields = ['printer', 'nozzle', 'material'] as const

/** One of the single changes that lead from one candidate to another. */
export type Step =
  | {
      readonly id: string
      readonly kind: 'setup'
      readonly field: (typeof setupFields)[number]
      readonly from: string
      readonly to: string
    }
  | { readonly id: string; readonly kind: 'spool'; readonly from: string | undefined; readonly to: string | undefined }
  | {
      readonly id: string
      readonly kind: 'value'
      readonly name: SettingName
      /** What the profile says; nothing where the value comes from the shelf. */
      readonly from: number | string | undefined
      readonly to: number | string | undefined
    }
  | { readonly id: string; readonly kind: 'overrides' }

/** Every single change between two candidates, in the order of the ledger. */
export function stepsBetween(from: Made, to: Made): Step[] {
  return [
    ...setupFields.flatMap((field): Step[] =>
      from[field] === to[field] ? [] : [{ id: field, kind: 'setup', field, from: from[field], to: to[field] }],
    ),
    ...(from.spool === to.spool ? [] : [{ id: 'spool', kind: 'spool', from: from.spool, to: to.spool } as const]),
    ...settingNames.flatMap((name): Step[] =>
      from.values[name] === to.values[name] ? [] : [{ id: name, kind: 'value', name, from: from.values[name], to: to.values[name] }],
    ),
    ...(JSON.stringify(from.overrides) === JSON.stringify(to.overrides) ? [] : [{ id: 'overrides', kind: 'overrides' } as const]),
  ]
}

/** The candidate with some of the steps taken; with all of them it is the other one, with none it is itself. */
export function withSteps(from: Made, to: Made, steps: readonly Step[], taken: ReadonlySet<string>): Made {
  let made: Made = from
  for (const step of steps) {
    if (!taken.has(step.id)) continue
    if (step.kind === 'setup') made = { ...made, [step.field]: step.to }
    else if (step.kind === 'overrides') made = { ...made, overrides: to.overrides }
    else if (step.kind === 'spool') made = { ...made, spool: step.to }
    else {
      const { [step.name]: _, ...rest } = made.values
      made = { ...made, values: (step.to === undefined ? rest : { ...rest, [step.name]: step.to }) as SettingValues }
    }
  }
  return made
}

/** A spool of another material than the one that is loaded cannot be used: its own numbers stay away until both have changed. */
export const withoutStraySpool = (made: Made, materialOfSpool: (spool: string) => string | undefined): Made =>
  made.spool === undefined || materialOfSpool(made.spool) === made.material ? made : { ...made, spool: undefined }

/**
 * The order in which a hobbyist trades quality for time (CP-T3, common practice): infill density, infill pattern, layer height,
 * line width with the number of walls, nozzle. What is not named there comes last, in its own order.
 */
const practice: readonly string[] = ['infillDensity', 'infillPattern', 'layerHeight', 'lineWidth', 'wallCount', 'nozzle']

export function inPracticeOrder(steps: readonly Step[]): Step[] {
  const rank = ({ id }: Step): number => (practice.includes(id) ? practice.indexOf(id) : practice.length)
  return [...steps].sort((a, b) => rank(a) - rank(b))
}

/** All prefixes of an order: none, the first, the first two … all. */
export const prefixes = (order: readonly Step[]): ReadonlySet<string>[] =>
  Array.from({ length: order.length + 1 }, (_, n) => new Set(order.slice(0, n).map(({ id }) => id)))

/** A set of steps by name, whatever their order: so that no set is computed twice. */
export const setKey = (taken: ReadonlySet<string>): string => [...taken].sort().join('+')
/** The set that a key names. */
export const setOfKey = (key: string): ReadonlySet<string> => new Set(key === '' ? [] : key.split('+'))

/** Every order of few steps, or so many random ones of more. @param random gives numbers from 0 up to 1 */
export function orders(steps: readonly Step[], most: number, random: () => number): Step[][] {
  if (factorial(steps.length) <= most) return permutations(steps)
  return Array.from({ length: most }, () => shuffled(steps, random))
}

/**
 * What each step does on average over some orders (with all orders: the Shapley value; Shapley 1953): its own share of the
 * whole, whatever it is taken before or after. The averages sum to the difference between the two ends.
 *
 * @param worth of a set of steps that is taken
 */
export function averageEffects(
  steps: readonly Step[],
  some: readonly (readonly Step[])[],
  worth: (taken: ReadonlySet<string>) => number,
): Map<string, number> {
  const sums = new Map(steps.map(({ id }) => [id, 0]))
  for (const order of some) {
    const sets = prefixes(order)
    for (const [n, { id }] of order.entries()) sums.set(id, sums.get(id)! + worth(sets[n + 1]!) - worth(sets[n]!))
  }
  return new Map([...sums].map(([id, sum]) => [id, sum / Math.max(1, some.length)]))
}

const factorial = (n: number): number => (n <= 1 ? 1 : n * factorial(n - 1))

function permutations(steps: readonly Step[]): Step[][] {
  if (steps.length === 0) return [[]]
  return steps.flatMap((step, i) => permutations(steps.toSpliced(i, 1)).map((rest) => [step, ...rest]))
}

/** Fisher and Yates. */
function shuffled(steps: readonly Step[], random: () => number): Step[] {
  const order = [...steps]
  for (let i = order.length - 1; i > 0; i--) {
    const j = Math.floor(random() * (i + 1))
    ;[order[i], order[j]] = [order[j]!, order[i]!]
  }
  return order
}
