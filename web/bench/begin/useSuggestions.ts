import type { StoredPart } from '@sable/contract/part'
import type { Shelf } from '@sable/contract/shelf'
import type { MatrixCell } from '@sable/core/matrix/matrix'
import { limitsOf } from '@sable/core/search/figures'
import { type Suggestion, suggest, type Tried } from '@sable/core/suggest/suggest'
import { type Try, triesFor } from '@sable/core/suggest/tries'
import { useMemo } from 'react'
import { requestFor } from '../../predictions/predictionStore'
import { useCells } from '../matrix/useCells'
import { type Answers, setupOfAnswers } from './answers'

const placement = { scale: 1, rotateDeg: [0, 0, 0] as [number, number, number] }
/** What asks for supports, by the ids of checks. */
const hangs: readonly string[] = ['overhangs-without-supports', 'begins-in-mid-air', 'overhang-unheld']

export interface Suggested {
  readonly suggestions: readonly Suggestion[]
  /** Of so many tries, so many are worked out. */
  readonly done: number
  readonly of: number
}

/** Three candidates for a part as it is asked for: one is tried first, to see whether it hangs over; then all the others. */
export function useSuggestions(part: StoredPart, answers: Answers, shelf: Shelf): Suggested {
  const { printer, nozzle, material, spool, purpose } = answers
  const setup = useMemo(
    () => setupOfAnswers({ printer, nozzle, material, spool, purpose }, shelf),
    [printer, nozzle, material, spool, purpose, shelf],
  )
  const requestsOf = useMemo(
    () => (tries: readonly Try[]) =>
      tries.map(({ name, values }) =>
        requestFor(
          { id: name, name, printer, nozzle, material, ...(spool === undefined ? {} : { spool }), values, overrides: [] },
          { placement, purpose },
          part,
          shelf,
        ),
      ),
    [printer, nozzle, material, spool, purpose, part, shelf],
  )
  const first = useMemo(() => (setup ? requestsOf(triesFor(setup, false).slice(0, 1)) : []), [setup, requestsOf])
  const { cells: begun } = useCells(first, purpose)
  const [seen] = begun
  const isHeld = seen && 'figures' in seen ? seen.checks.some((id) => hangs.includes(id)) : undefined
  const tries = useMemo(() => (setup && seen ? triesFor(setup, isHeld ?? false) : []), [setup, seen, isHeld])
  const requests = useMemo(() => requestsOf(tries), [tries, requestsOf])
  const { cells, done } = useCells(requests, purpose)
  const suggestions = useMemo(
    () =>
      suggest(
        tries.map((one, i) => triedAs(one, cells[i])),
        limitsOf(purpose),
      ),
    [tries, cells, purpose],
  )
  const all = tries.length > 0 ? tries.length : setup ? triesFor(setup, false).length : 0
  return { suggestions: done === tries.length ? suggestions : [], done, of: all }
}

const triedAs = (one: Try, cell: MatrixCell | undefined): Tried => ({
  ...one,
  figures: cell && 'figures' in cell ? cell.figures : undefined,
})
