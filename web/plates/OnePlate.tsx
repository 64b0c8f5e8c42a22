import type { PlateItem, StoredPlate } from '@sable/contract/plate'
import { MOST_ON_PLATE } from '@sable/contract/plate'
import type { Shelf } from '@sable/contract/shelf'
import { plateOrders } from '@sable/core/plate/platePart'
import { LayoutGrid, Plus, Redo2, Trash2, Undo2 } from 'lucide-react'
import { useState } from 'react'
import { Button, IconButton } from '../ui/Button'
import { Choices } from '../ui/Choices'
import { download, fileNameFrom } from '../ui/download'
import { EditableText } from '../ui/EditableText'
import type { Refusal } from '../ui/Notice'
import { ViewBar } from '../ui/ViewBar'
import { AddColumns } from './AddColumns'
import { Onward } from './Onward'
import { PlateDrawing } from './PlateDrawing'
import { PlateTable } from './PlateTable'
import { usePlacing } from './usePlacing'
import { sharesSetup, usePlateColumns, whyNot } from './usePlateColumns'
import { usePlateEdits } from './usePlateEdits'
import { plateWorker, useDrawnParts, usePlateFigures } from './usePlateFigures'

const orderNames = { together: 'together, layer by layer', inTurn: 'one after another' } as const

/** A plate: its parts on the bed, what all of it takes, what keeps it from being printed, and where it goes from here. */
export function OnePlate({
  stored,
  shelf,
  onRemove,
  onRefusal,
}: {
  stored: StoredPlate
  shelf: Shelf
  onRemove: () => void
  onRefusal: (refusal: Refusal | undefined) => void
}) {
  const { plate, isSaved, change, setItem, undo, redo } = usePlateEdits(stored, onRefusal)
  const columns = usePlateColumns(plate.items, shelf)
  const { items, gone, isLoading, isUnread } = columns
  const { drawn, failed } = useDrawnParts(items)
  const { figures, isOld, refused } = usePlateFigures(items, plate.order)
  const [chosenId, setChosen] = useState<string>()
  const [isAdding, setAdding] = useState(false)
  const [first] = items
  const chosen = items.some(({ id }) => id === chosenId) ? chosenId : first?.id
  const printer = shelf.printers.find(({ key }) => key === first?.candidateOf.printer)
  const differs = items.filter((item) => first && !sharesSetup(item, first))
  const problems = [
    ...differs.map(
      ({ column }) => `${column.name} is printed with something else than ${first!.column.name}: a plate has one printer, nozzle and reel.`,
    ),
    ...gone.map(() => 'A column of this plate is gone, or its part or shelf record is. Take it off.'),
    ...(isUnread ? ['Some of its columns could not be read from the server. Reload the page.'] : []),
    ...(refused ? [refused] : []),
    ...(figures && !isOld ? figures.problems : []),
  ]
  const put = (next: readonly PlateItem[]): void => change({ ...plate, items: [...next] })
  const { arrange, add, copy } = usePlacing({ plate, change, columns, drawn, shelf, onPut: setChosen, onRefusal })
  const program = async (): Promise<void> => {
    const answer = await plateWorker().writePlateProgram(
      plate.name,
      items.map(({ column }) => column),
      items.map(({ x, y, turn }) => ({ x, y, turn })),
      plate.order,
      first!.column.request.setup,
    )
    if (answer.kind === 'done') download(`${fileNameFrom(plate.name)}.gcode`, answer.program)
    else onRefusal(answer)
  }
  const isReady = items.length > 0 && problems.length === 0 && !isOld && figures !== undefined
  return (
    <section aria-label={`Plate ${plate.name}`} className="flex min-h-0 flex-1 flex-col">
      <ViewBar>
        <EditableText
          label="Name of the plate"
          text={plate.name}
          onCommit={(name) => name.trim() !== '' && change({ ...plate, name: name.trim().slice(0, 80) })}
          className="max-w-72 font-semibold"
        />
        <span className="text-[12px] text-muted">{isSaved ? 'Saved' : 'Saving …'}</span>
        <Choices
          label=""
          name="In which order parts are printed"
          of={plateOrders.map((id) => ({ id, name: orderNames[id] }))}
          value={plate.order}
          onChange={(order) => order && change({ ...plate, order })}
        />
        <div className="flex-1" />
        <IconButton label="Undo (Ctrl Z)" disabled={!undo} onClick={undo}>
          <Undo2 className="size-4" />
        </IconButton>
        <IconButton label="Redo (Ctrl Shift Z)" disabled={!redo} onClick={redo}>
          <Redo2 className="size-4" />
        </IconButton>
        <Button disabled={items.length === 0} onClick={() => void arrange()}>
          <LayoutGrid className="size-3.5" aria-hidden /> Arrange
        </Button>
        <Button disabled={plate.items.length >= MOST_ON_PLATE} onClick={() => setAdding(true)}>
          <Plus className="size-3.5" aria-hidden /> Columns
        </Button>
        <IconButton label="Delete the plate" onClick={onRemove}>
          <Trash2 className="size-4" />
        </IconButton>
      </ViewBar>
      <div className="flex min-h-0 flex-1">
        {printer ? (
          <PlateDrawing
            items={items}
            drawn={drawn}
            printer={printer}
            turnOf={(index) => (plate.order === 'inTurn' && figures?.turns.includes(index) ? figures.turns.indexOf(index) + 1 : undefined)}
            chosen={chosen}
            onChoose={setChosen}
            onMove={(id, to) => setItem(id, to)}
            onRemove={(id) => put(plate.items.filter((item) => item.id !== id))}
          />
        ) : (
          <p className="m-auto max-w-sm p-8 text-center text-muted">
            {isLoading
              ? 'Looking for its columns …'
              : 'Nothing is on the plate yet. Add columns of lineups; they are put where there is room.'}
          </p>
        )}
        <aside aria-label="What the plate takes" className="w-[23rem] shrink-0 overflow-y-auto border-l border-line p-3">
          {printer && (
            <p className="mb-2 text-[12.5px] text-muted">
              {printer.name}, {shelf.nozzles.find(({ key }) => key === first!.candidateOf.nozzle)?.name},{' '}
              {first!.column.request.setup.spool?.name ?? first!.column.request.setup.material.name}
            </p>
          )}
          {problems.length > 0 && (
            <ul role="alert" className="mb-3 space-y-1.5 rounded-md border border-stop/50 bg-raised p-2.5 text-[12.5px]">
              {problems.map((problem, i) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: sentences have no names, and may say the same.
                <li key={i}>{problem}</li>
              ))}
            </ul>
          )}
          {gone.length > 0 && (
            <Button className="mb-3" onClick={() => put(plate.items.filter((item) => !gone.some(({ id }) => id === item.id)))}>
              Take off what is gone
            </Button>
          )}
          {items.length > 0 && (
            <PlateTable
              items={items}
              figures={figures}
              isOld={isOld}
              failed={failed}
              chosen={chosen}
              onChoose={setChosen}
              onSet={setItem}
              onCopy={(id) => copy(items.find((item) => item.id === id)!)}
              onRemove={(id) => put(plate.items.filter((item) => item.id !== id))}
            />
          )}
          {isOld && items.length > 0 && (
            <p role="status" className="mt-2 text-[12px] text-muted">
              Planning all of it …
            </p>
          )}
          {items.length > 0 && (
            <Onward plate={plate} items={items} figures={isReady ? figures : undefined} onProgram={program} onRefusal={onRefusal} />
          )}
        </aside>
      </div>
      {isAdding && (
        <AddColumns
          why={(lineup, candidate) => whyNot(lineup, candidate, first)}
          onAdd={(lineup, candidate) => void add(lineup, candidate)}
          onClose={() => setAdding(false)}
        />
      )}
    </section>
  )
}
