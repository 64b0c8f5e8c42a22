import type { Lineup } from '@sable/contract/lineup'
import type { Plate, PlateItem } from '@sable/contract/plate'
import type { Shelf } from '@sable/contract/shelf'
import { placedFootprint } from '@sable/core/plate/footprint'
import { freeSpot } from '@sable/core/plate/freeSpot'
import type { Printer } from '@sable/core/shelf/printer'
import { useEffect, useRef } from 'react'
import { asRefusal } from '../api/asRefusal'
import { fetchLineup } from '../api/lineups'
import type { DrawnPart } from '../predictions/worker/plating'
import type { Refusal } from '../ui/Notice'
import { useAddress } from '../ui/useAddress'
import { type Item, itemOf, type PlateColumns } from './usePlateColumns'
import { keepDrawn, plateWorker } from './usePlateFigures'

/** Puts columns on a plate where there is room, and arranges them. What is refused is told, and changes nothing. */
export function usePlacing({
  plate,
  change,
  columns: { items, parts, isLoading },
  drawn,
  shelf,
  onPut,
  onRefusal,
}: {
  plate: Plate
  change: (next: Plate) => void
  columns: PlateColumns
  drawn: ReadonlyMap<string, DrawnPart>
  shelf: Shelf
  onPut: (id: string) => void
  onRefusal: (refusal: Refusal | undefined) => void
}) {
  // What comes back from the worker belongs to the plate as it stands by then: another column may have been put there meanwhile.
  const latest = useRef({ plate, items })
  useEffect(() => {
    latest.current = { plate, items }
  })
  const arrange = async (): Promise<void> => {
    const answer = await plateWorker().arrangePlate(
      items.map(({ column }) => column),
      items.map(({ turn }) => turn),
      plate.order,
      items[0]!.column.request.setup,
    )
    if (answer.kind !== 'done') return onRefusal(answer)
    onRefusal(undefined)
    const at = new Map(items.map(({ id }, i) => [id, answer.standing[i]!]))
    const { plate: now } = latest.current
    change({ ...now, items: now.items.map((item) => ({ ...item, ...at.get(item.id) })) })
  }
  /** Puts a part where there is room for it. */
  const putBeside = (item: PlateItem, part: DrawnPart, name: string, room: Printer): void => {
    try {
      const { plate: now, items: there } = latest.current
      const stood = there.flatMap((one) => {
        const own = drawn.get(one.key)
        return own ? [{ name: one.column.name, heightMm: own.heightMm, footprint: placedFootprint(own.footprint, one) }] : []
      })
      const footprint = placedFootprint(part.footprint, { x: 0, y: 0, turn: item.turn })
      change({
        ...now,
        items: [...now.items, { ...item, ...freeSpot(stood, { name, footprint, heightMm: part.heightMm }, now.order, room) }],
      })
      onPut(item.id)
      onRefusal(undefined)
    } catch (error) {
      onRefusal(asRefusal(error))
    }
  }
  const add = async (lineup: Lineup, candidate: string): Promise<void> => {
    const item = { id: crypto.randomUUID(), lineup: lineup.id, candidate, x: 0, y: 0, turn: 0 }
    const whole = itemOf(item, lineup, parts, shelf)
    const room = shelf.printers.find(({ key }) => key === whole?.candidateOf.printer)
    if (!whole || !room) return
    const answer = await plateWorker().drawOnPlate(whole.column)
    if (answer.kind !== 'done') return onRefusal(answer)
    keepDrawn(whole.key, answer.part)
    putBeside(item, answer.part, whole.column.name, room)
  }
  const copy = ({ id: _, key, column, ...own }: Item): void => {
    const part = drawn.get(key)
    const { lineup, candidate, turn } = own
    const printer = shelf.printers.find((one) => one.key === own.candidateOf.printer)
    if (part && printer) putBeside({ id: crypto.randomUUID(), lineup, candidate, x: 0, y: 0, turn }, part, column.name, printer)
  }
  const { get, set } = useAddress()
  const asked = get('add')
  const isThere = parts !== undefined
  // A column was sent here from its ledger.
  // biome-ignore lint/correctness/useExhaustiveDependencies: it is put there once.
  useEffect(() => {
    const [lineup, candidate] = asked?.split(' ') ?? []
    if (!isThere || isLoading || lineup === undefined || candidate === undefined) return
    set({ add: undefined })
    fetchLineup(lineup)
      .then((found) => add(found, candidate))
      .catch((error: unknown) => onRefusal(asRefusal(error)))
  }, [asked, isThere, isLoading])
  return { arrange, add, copy }
}
