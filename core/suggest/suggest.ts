import { figureOf } from '../figures/figures'
import type { FigureId } from '../figures/table/figure'
import { definitionOf, type SettingName } from '../profile/settings'
import { type FigureLimit, type Figures, scoreOf, usually } from '../search/figures'
import { signedPercent } from '../units/format'
import type { Try } from './tries'

/** What three suggestions are asked to be. */
export const roles = ['fastest', 'smoothest', 'strongest'] as const
export type Role = (typeof roles)[number]
const figureOfRole: Readonly<Record<Role, FigureId>> = { fastest: 'time', smoothest: 'surface', strongest: 'strength' }

/** A try with what it came to; nothing where it cannot be printed. */
export interface Tried extends Try {
  readonly figures: Figures | undefined
}

export interface Suggestion {
  /** What it is the best at, of those that keep the limits; nothing where none does, and it only comes nearest. */
  readonly roles: readonly Role[]
  readonly tried: Tried
  /** It keeps all limits, and nothing would stop it. */
  readonly keeps: boolean
  /** One line: what it is best at, by how much, and by what. */
  readonly why: string
}

/**
 * The fastest, the smoothest and the strongest of what was tried, that keep the limits; where none does, only the one that comes nearest.
 * One that is best at two things stands once.
 */
export function suggest(tries: readonly Tried[], limits: readonly FigureLimit[]): Suggestion[] {
  const printable = tries.filter(({ figures }) => figures !== undefined)
  const everyday = printable.find(({ aim }) => aim === 'everyday') ?? printable[0]
  const keeping = printable.filter((tried) => missesOf(tried, limits) === 0)
  if (keeping.length === 0) {
    const nearest = bestAt('fastest', printable, limits)
    return nearest ? [{ roles: [], tried: nearest, keeps: false, why: nearestWords(nearest, limits) }] : []
  }
  const found = new Map<Tried, Role[]>()
  for (const role of roles) {
    const best = bestAt(role, keeping, limits)
    if (best) found.set(best, [...(found.get(best) ?? []), role])
  }
  return [...found].map(([tried, own]) => ({
    roles: own,
    tried,
    keeps: true,
    why: whyOf(tried, own, everyday),
  }))
}

const missesOf = ({ figures }: Tried, limits: readonly FigureLimit[]): number => scoreOf(figures, [], limits).misses

/** The best at a figure of those that miss the limits least. */
function bestAt(role: Role, tries: readonly Tried[], limits: readonly FigureLimit[]): Tried | undefined {
  const objective = usually(figureOfRole[role])
  const scored = tries.map((tried) => ({ tried, ...scoreOf(tried.figures, [objective], limits) }))
  return scored.reduce<(typeof scored)[number] | undefined>((best, one) => {
    if (!best || one.misses < best.misses) return one
    return one.misses === best.misses && one.costs[0]! < best.costs[0]! ? one : best
  }, undefined)?.tried
}

/** Settings that tell most of what a profile is. */
const telling = ['layerHeight', 'wallCount', 'infillDensity', 'outerWallSpeed'] as const satisfies readonly SettingName[]

/** "Layer height 0.2 mm, walls 3" */
const madeWords = ({ values }: Tried): string =>
  telling
    .flatMap((name) => {
      const value = values[name]
      const { label, ...setting } = definitionOf(name)
      const unit = setting.kind === 'number' && setting.unit !== '' ? ` ${setting.unit}` : ''
      return value === undefined ? [] : [`${label.toLowerCase()} ${value}${unit}`]
    })
    .join(', ')

function whyOf(tried: Tried, own: readonly Role[], everyday: Tried | undefined): string {
  const parts = own.map((role) => {
    const id = figureOfRole[role]
    const value = tried.figures![id]
    const usual = everyday?.figures?.[id]
    if (value === undefined) return role
    const against =
      everyday === tried || usual === undefined || !(usual > 0) ? '' : `, ${signedPercent(value / usual - 1)} against everyday`
    return `${role} at ${figureOf[id].shown(value)}${against}`
  })
  return `${sentence(parts.join(', '))}: ${madeWords(tried)}.`
}

/** Why there is no such thing, and how near this one comes. */
function nearestWords(tried: Tried, limits: readonly FigureLimit[]): string {
  const figures = tried.figures!
  if (figures.stops > 0) return `Something would stop every one of them; this one is stopped by least: ${madeWords(tried)}.`
  const missed = limits.filter((limit) => missesOf(tried, [limit]) > 0)
  const short = missed.map(({ figure }) => `${figureOf[figure].noun} ${figureOf[figure].shown(figures[figure] ?? Number.NaN)}`)
  return `Nothing that was tried keeps all limits. The nearest misses with ${short.join(', ')}: ${madeWords(tried)}.`
}

const sentence = (text: string): string => `${text[0]!.toUpperCase()}${text.slice(1)}`
