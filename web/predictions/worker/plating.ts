import { arranged } from '@sable/core/plate/arrange'
import type { Footprint } from '@sable/core/plate/footprint'
import { footOf, layPartWork } from '@sable/core/plate/layPart'
import type { PlateOrder, PlatePart, Standing } from '@sable/core/plate/platePart'
import { plateProgram } from '@sable/core/plate/plateProgram'
import { type ForetoldPlate, type PlateFigures, plateWork } from '@sable/core/plate/plateWork'
import type { Setup } from '@sable/core/setup/resolve'
import type { Work } from '@sable/core/work/work'
import { inTurn, loadPart, triedCache } from './atHand'
import { type PredictRequest, refusalOf } from './request'

/** A column as it is put on a plate. */
export interface PlateColumn {
  readonly name: string
  readonly request: PredictRequest
}

/** A part as it is drawn on a plate, before it is moved anywhere. */
export interface DrawnPart {
  readonly footprint: Footprint
  readonly foot: readonly (readonly number[])[]
  readonly heightMm: number
}

type Refused = ReturnType<typeof refusalOf>
type Told<T> = ({ readonly kind: 'done' } & T) | Refused

/** Problems as sentences: classes do not survive the way between threads. */
export type ToldFigures = Omit<PlateFigures, 'problems'> & { readonly problems: readonly string[] }

/** Parts that were laid last, by what they were laid from. */
const laid = new Map<string, Promise<PlatePart>>()
const MOST_LAID = 24

/** Plates: parts are laid once, and joined anew wherever they stand. @param run does work with what helps there is */
export const plating = (run: <T>(work: Work<T>) => Promise<T>) => {
  const partOf = ({ name, request }: PlateColumn): Promise<PlatePart> => {
    const { placement, setup, values, overrides } = request
    const key = JSON.stringify([request.contentKey, placement, setup, values, overrides])
    const known = laid.get(key)
    if (known) return known.then((part) => ({ ...part, name }))
    const laying = loadPart(request).then((part) =>
      inTurn(() => run(layPartWork({ name, part, placement, setup, values, overrides }, triedCache))),
    )
    laid.set(key, laying)
    laying.catch(() => laid.delete(key))
    if (laid.size > MOST_LAID) laid.delete(laid.keys().next().value as string)
    return laying
  }
  const foretell = async (
    columns: readonly PlateColumn[],
    standing: readonly Standing[],
    order: PlateOrder,
    setup: Setup,
  ): Promise<ForetoldPlate> => {
    const parts: PlatePart[] = []
    for (const column of columns) parts.push(await partOf(column))
    return inTurn(() => run(plateWork(parts, standing, order, setup)))
  }
  const told = async <T>(work: () => Promise<T>): Promise<Told<T>> => {
    try {
      return { kind: 'done', ...(await work()) }
    } catch (error) {
      return refusalOf(error)
    }
  }
  return {
    /** A part as it is drawn. */
    drawOnPlate: (column: PlateColumn): Promise<Told<{ part: DrawnPart }>> =>
      told(async () => {
        const part = await partOf(column)
        return { part: { footprint: [...part.footprint], foot: footOf(part), heightMm: part.heightMm } }
      }),

    /** What is foretold of a plate. */
    foretellPlate: (
      columns: readonly PlateColumn[],
      standing: readonly Standing[],
      order: PlateOrder,
      setup: Setup,
    ): Promise<Told<{ figures: ToldFigures }>> =>
      told(async () => {
        const { figures } = await foretell(columns, standing, order, setup)
        return { figures: { ...figures, problems: figures.problems.map(({ message, remedy }) => `${message} ${remedy}`) } }
      }),

    /** Where parts stand beside each other, each turned as it is. */
    arrangePlate: (
      columns: readonly PlateColumn[],
      turns: readonly number[],
      order: PlateOrder,
      setup: Setup,
    ): Promise<Told<{ standing: Standing[] }>> =>
      told(async () => {
        const parts = await Promise.all(columns.map(partOf))
        return {
          standing: arranged(
            parts.map(({ name, footprint, heightMm }, i) => ({ name, footprint, heightMm, turn: turns[i]! })),
            order,
            setup.printer,
          ),
        }
      }),

    /** The program of a plate, as a file. */
    writePlateProgram: (
      name: string,
      columns: readonly PlateColumn[],
      standing: readonly Standing[],
      order: PlateOrder,
      setup: Setup,
    ): Promise<Told<{ program: Blob }>> =>
      told(async () => {
        const plate = await foretell(columns, standing, order, setup)
        const pieces: string[] = []
        plateProgram(name, plate, setup, { filament: 'relative' }, (text) => pieces.push(text))
        return { program: new Blob(pieces, { type: 'text/plain' }) }
      }),
  }
}
