import { MOST_OVERRIDES, type Override, shiftedMark } from '../profile/overrides'
import type { Settings } from '../profile/settings'
import { repeatLayer } from '../toolpath/repeatLayer'
import { layerTop, type Toolpath, ToolpathBuilder } from '../toolpath/toolpath'
import { InputError } from '../units/errors'
import type { PlateOrder, PlatePart, Standing } from './platePart'
import { turnsOf } from './turns'

/** What belongs to no part: the ways between them. */
export const SHARED = 255
/** Most parts of a plate: each needs a number of its own. */
export const MOST_PARTS = 64

/** Nozzle clears what is already printed by this much, mm: finished parts, and those that are a layer ahead. */
const CLEARANCE = { inTurn: 2, together: 0.4 } as const
/** Tops nearer to each other than this, mm, are one height. */
const SAME = 1e-6

/** The path of a plate, and whose each move is. */
export interface PlatePath {
  readonly path: Toolpath
  /** Part of each move, or `SHARED`. */
  readonly owner: Uint8Array
  /** Parts in the order in which each is begun. */
  readonly turns: readonly number[]
  readonly settings: Settings
  /** The whole profile of each part as a place of its own, and behind it what it says of its places. */
  readonly overrides: readonly Override[]
}

/** A layer of a part, or those of several parts that lie at the same height and are of the same rank. */
interface Step {
  readonly rank: number
  readonly top: number
  readonly parts: number[]
}

/**
 * Joins the paths of parts where they stand on a plate. Between parts filament is pulled back; over what is higher the nozzle
 * rises first.
 *
 * @throws InputError where there are more parts or places than can be told apart
 */
export function mergePaths(parts: readonly PlatePart[], standing: readonly Standing[], order: PlateOrder): PlatePath {
  const { overrides, sets, scopes } = joinedScopes(parts)
  const turns = turnsOf(parts)
  const steps = order === 'inTurn' ? turns.flatMap((i) => stepsOf(parts[i]!, i)) : together(parts, turns)
  const out = new ToolpathBuilder(parts.reduce((sum, { path }) => sum + path.feature.length + 8 * path.rank.length, 0))
  const owners = new Owners()
  const highest = new Float64Array(parts.length)
  out.startAt(0, 0, 0)
  let last: number | undefined
  for (const [n, step] of steps.entries()) {
    out.startLayer(step.rank)
    // Back and forth over the parts, so that none is far from the next.
    for (const part of n % 2 === 0 ? step.parts : step.parts.toReversed()) {
      const others = highest.reduce((most, height, i) => (i === part ? most : Math.max(most, height)), 0)
      const over = others > step.top + SAME ? others + CLEARANCE[order] : 0
      const { path } = parts[part]!
      const own = repeatLayer(out, { path, layer: step.rank, at: standing[part]!, goesOn: part === last, over, scopes: scopes[part]! })
      owners.upTo(own, SHARED)
      owners.upTo(out.count, part)
      highest[part] = Math.max(highest[part]!, step.top)
      last = part
    }
  }
  return { path: out.finish(sets), owner: owners.finish(out.count), turns, settings: parts[0]!.settings, overrides }
}

/** Every profile becomes a place of its own; what its paths call a set is told anew with it in front. */
function joinedScopes(parts: readonly PlatePart[]) {
  const overrides: Override[] = []
  const sets: (readonly number[])[] = [[]]
  const scopes = parts.map(({ name, settings, overrides: own, path }) => {
    const whole = overrides.length
    overrides.push({ name, fromZ: 0, values: settings }, ...own)
    return path.sets.map((set) => sets.push([whole, ...set.map((mark) => shiftedMark(mark, whole + 1))]) - 1)
  })
  if (parts.length > MOST_PARTS || overrides.length > MOST_OVERRIDES || sets.length > 0xffff)
    throw new InputError(
      'plate-too-many',
      `The plate has ${parts.length} parts with ${overrides.length - parts.length} places of their own; ${MOST_PARTS} parts, and ${MOST_OVERRIDES} of both together, can be told apart.`,
      'plate',
      'Make two plates of it.',
    )
  return { overrides, sets, scopes }
}

const stepsOf = ({ path }: PlatePart, part: number): Step[] =>
  Array.from({ length: path.rank.length }, (_, rank) => ({ rank, top: layerTop(path, rank), parts: [part] }))

/** Layers of all parts from the bed up; those of one height and rank are laid as one. */
function together(parts: readonly PlatePart[], turns: readonly number[]): Step[] {
  const all = turns.flatMap((part) => stepsOf(parts[part]!, part)).filter(({ top }) => top > 0)
  const steps: Step[] = []
  for (const step of all.sort((a, b) => a.top - b.top || a.rank - b.rank || a.parts[0]! - b.parts[0]!)) {
    const last = steps.at(-1)
    if (last && last.rank === step.rank && step.top - last.top < SAME) last.parts.push(...step.parts)
    else steps.push({ ...step, parts: [...step.parts] })
  }
  return steps
}

/** Whose the moves are, told stretch by stretch. */
class Owners {
  private readonly stretches: { readonly to: number; readonly owner: number }[] = []

  upTo(to: number, owner: number): void {
    this.stretches.push({ to, owner })
  }

  finish(moves: number): Uint8Array {
    const owner = new Uint8Array(moves).fill(SHARED)
    let from = 0
    for (const { to, owner: own } of this.stretches) {
      owner.fill(own, from, to)
      from = to
    }
    return owner
  }
}
