import { type Shelf, setupOf } from '@sable/contract/shelf'
import type { Purpose } from '@sable/core/physics/strength/purpose'
import { sideOf } from '@sable/core/schools/schools'
import type { Setup } from '@sable/core/setup/resolve'
import { z } from 'zod'
import { today } from '../../ui/today'

/** What is answered before three candidates are suggested: keys of the shelf, and what the part is for. */
export interface Answers {
  readonly printer: string
  readonly nozzle: string
  readonly material: string
  readonly spool?: string | undefined
  readonly purpose: Purpose
}

const KEY = 'sable.begin'
const keptSchema = z.object({ printer: z.string(), nozzle: z.string(), material: z.string(), spool: z.string().optional() })

/** What was answered last in this browser, as far as the shelf still has it; else the first of everything. */
export function answersFor(shelf: Shelf, purpose: Purpose): Answers {
  const kept = keptSchema.safeParse(stored()).data
  const known = <R extends { key: string; archived: boolean }>(records: readonly R[], key: string | undefined): R | undefined =>
    records.find((record) => record.key === key && !record.archived)
  const first = <R extends { key: string; archived: boolean }>(records: readonly R[], wish?: (record: R) => boolean): string => {
    const here = records.filter(({ archived }) => !archived)
    return ((wish && here.find(wish)) ?? here[0])?.key ?? ''
  }
  const spool = known(shelf.spools, kept?.spool)
  const printer = known(shelf.printers, kept?.printer)?.key ?? first(shelf.printers, ({ kinematics }) => kinematics === 'movingBed')
  // The bore to begin with is a matter of schools.
  const bore = sideOf('S8', shelf.printers.find(({ key }) => key === printer)?.schools).id === '0.6' ? 0.6 : 0.4
  return {
    printer,
    nozzle: known(shelf.nozzles, kept?.nozzle)?.key ?? first(shelf.nozzles, (nozzle) => nozzle.bore === bore),
    material: spool?.material ?? known(shelf.materials, kept?.material)?.key ?? first(shelf.materials, ({ family }) => family === 'PLA'),
    ...(spool ? { spool: spool.key } : {}),
    purpose,
  }
}

export function keepAnswers({ purpose: _, ...answers }: Answers): void {
  localStorage.setItem(KEY, JSON.stringify(answers))
}

const stored = (): unknown => {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? 'null')
  } catch {
    return undefined
  }
}

export const setupOfAnswers = (answers: Answers, shelf: Shelf): Setup | undefined => setupOf(answers, shelf, today())
