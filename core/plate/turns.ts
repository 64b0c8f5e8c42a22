import { InputError } from '../units/errors'
import { type Extent, extentOf, type Footprint, gapBetween } from './footprint'
import type { PlateOrder } from './platePart'

/** A part where it stands. */
export interface Stood {
  readonly name: string
  /** On the plate. */
  readonly footprint: Footprint
  readonly heightMm: number
}

/** What a printer's record says of the room on its bed and round its head. */
export interface PlateRoom {
  readonly name: string
  /** Along X, Y and Z, mm. */
  readonly buildVolume: readonly [number, number, number]
  /** That its head needs to every side of what is higher than this, mm; absent where nobody has measured it. */
  readonly clearance?: { readonly radius: number; readonly height: number } | undefined
}

/** Parts nearer than this would grow together, mm. */
export const LEAST_GAP = 0.5

/**
 * The order in which parts are printed one after another, as their places in the list: the lower ones first, so that the head
 * meets what is high as seldom as it can. Of two that stand close the lower is done before the other begins: only where that
 * one, too, is higher than what the head clears does no order help.
 */
export const turnsOf = (parts: readonly Pick<Stood, 'heightMm'>[]): number[] =>
  [...parts.keys()].sort((a, b) => parts[a]!.heightMm - parts[b]!.heightMm || a - b)

/**
 * What is wrong with how parts stand, in sentences; nothing where they can be printed so.
 *
 * @throws never: each is told beside the plate, and stops its print
 */
export function standsWrong(parts: readonly Stood[], order: PlateOrder, room: PlateRoom): InputError[] {
  const found: InputError[] = []
  for (const part of parts) {
    const beyond = beyondBed(extentOf(part.footprint), room)
    if (beyond > 0)
      found.push(
        new InputError(
          'off-the-bed',
          `${part.name} reaches ${beyond.toFixed(1)} mm beyond the bed of ${room.name}.`,
          part.name,
          'Move it further in, or let the parts be arranged.',
        ),
      )
    if (part.heightMm > room.buildVolume[2])
      found.push(
        new InputError(
          'too-high',
          `${part.name} is ${part.heightMm.toFixed(1)} mm high; ${room.name} reaches ${room.buildVolume[2]} mm.`,
          part.name,
          'Lay it otherwise, or take another printer.',
        ),
      )
  }
  for (const [i, a] of parts.entries())
    for (const b of parts.slice(i + 1)) {
      const gap = gapBetween(a.footprint, b.footprint)
      if (gap < LEAST_GAP) found.push(overlaps(a, b, gap))
      else if (order === 'inTurn') found.push(...headMeets(a, b, gap, room))
    }
  return found
}

function beyondBed({ minX, maxX, minY, maxY }: Extent, { buildVolume: [width, depth] }: PlateRoom): number {
  const beyond = Math.max(-width / 2 - minX, maxX - width / 2, -depth / 2 - minY, maxY - depth / 2)
  return beyond > 1e-6 ? beyond : 0
}

const overlaps = (a: Stood, b: Stood, gap: number): InputError =>
  new InputError(
    'bodies-collide',
    gap === 0
      ? `${a.name} and ${b.name} stand in each other.`
      : `${a.name} and ${b.name} stand ${gap.toFixed(1)} mm apart and would grow together.`,
    `${a.name}, ${b.name}`,
    `Move one of them, so that they stand ${LEAST_GAP} mm apart at least, or let the parts be arranged.`,
  )

function headMeets(a: Stood, b: Stood, gap: number, { name, clearance }: PlateRoom): InputError[] {
  if (!clearance)
    return [
      new InputError(
        'head-unknown',
        `How much room the head of ${name} needs is not known, so that nothing can be printed beside ${a.name} once it is done.`,
        `${a.name}, ${b.name}`,
        'Tell it in the printer’s record, or print the parts together.',
      ),
    ]
  const low = Math.min(a.heightMm, b.heightMm)
  if (low <= clearance.height || gap >= clearance.radius) return []
  return [
    new InputError(
      'head-collides',
      `The head of ${name} needs ${clearance.radius} mm beside what is higher than ${clearance.height} mm: ${a.name} and ${b.name} are ${low.toFixed(0)} mm high or more, and stand ${gap.toFixed(1)} mm apart.`,
      `${a.name}, ${b.name}`,
      'Move them apart, or print the parts together.',
    ),
  ]
}
