import { bond } from './table/bond'
import type { Constant } from './table/constant'
import { cooling } from './table/cooling'
import { finish } from './table/finish'
import { fit } from './table/fit'
import { melt } from './table/melt'
import { print } from './table/print'
import { strength } from './table/strength'
import { strings } from './table/strings'
import { sway } from './table/sway'

/** The one place where a model's numbers stand, by model. */
export const constants = { print, melt, cooling, bond, finish, fit, strings, strength, sway } as const

type Table = typeof constants
export type Group = keyof Table
/** Values of all constants: what models take as an argument, each the groups that it reads. */
export type Constants = { readonly [G in Group]: { readonly [Name in keyof Table[G]]: number } }
/** "melt.sag" */
export type ConstantId = { [G in Group]: `${G}.${keyof Table[G] & string}` }[Group]

const entries: readonly (readonly [ConstantId, Constant])[] = Object.entries(constants).flatMap(([group, own]) =>
  Object.entries(own).map(([name, constant]) => [`${group}.${name}` as ConstantId, constant as Constant] as const),
)
export const constantIds: readonly ConstantId[] = entries.map(([id]) => id)
const byId = new Map(entries)
export const constantOf = (id: ConstantId): Constant => byId.get(id)!

/** Values of which each is given by its id. */
export const constantsFrom = (valueFor: (id: ConstantId) => number): Constants =>
  Object.fromEntries(
    Object.entries(constants).map(([group, own]) => [
      group,
      Object.fromEntries(Object.keys(own).map((name) => [name, valueFor(`${group}.${name}` as ConstantId)])),
    ]),
  ) as unknown as Constants

/** What is taken for each until something was read. */
export const medians: Constants = constantsFrom((id) => constantOf(id).median)

export function valueIn(values: Constants, id: ConstantId): number {
  const [group, name] = id.split('.') as [Group, string]
  return (values[group] as Readonly<Record<string, number>>)[name]!
}

/** All of them as they are but one. */
export const withValue = (values: Constants, id: ConstantId, value: number): Constants =>
  constantsFrom((own) => (own === id ? value : valueIn(values, own)))

/** A value so many standard deviations from another one, on the constant's own scale. */
export const moved = (id: ConstantId, value: number, spreads: number, spread = constantOf(id).spread): number =>
  constantOf(id).scale === 'log' ? value * Math.exp(spreads * spread) : value + spreads * spread
