import { closestCenter, DndContext, type DragEndEvent, PointerSensor, useSensor, useSensors } from '@dnd-kit/core'
import { arrayMove, SortableContext, verticalListSortingStrategy } from '@dnd-kit/sortable'
import { columnsFor, type Measure } from './measures'
import { EndRow, StepRow } from './StepRow'
import type { Trail } from './useTrail'

/** The steps of a trail between its ends, each with what it did; they are moved by dragging or by keys. */
export function TrailTable({ trail }: { trail: Trail }) {
  const { from, to, order, taken, predictions, purpose, measure, scale } = trail
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }))
  const ids = order.map(({ id }) => id)
  const moveTo = (at: number, place: number): void => {
    if (place >= 0 && place < ids.length) trail.put(arrayMove(ids, at, place))
  }
  const onDragEnd = ({ active, over }: DragEndEvent): void => {
    if (over && active.id !== over.id) moveTo(ids.indexOf(String(active.id)), ids.indexOf(String(over.id)))
  }
  const measured = { purpose, measure, scale }
  const allTaken = taken.length === order.length
  return (
    <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={onDragEnd} accessibility={{ container: document.body }}>
      <table className="w-full border-separate border-spacing-0 text-[12.5px]" style={{ tableLayout: 'fixed' }}>
        <colgroup>
          <col style={{ width: 320 }} />
          <col />
          {columnsFor(measure).map(({ id }) => (
            <col key={id} style={{ width: 86 }} />
          ))}
        </colgroup>
        <TrailHead measure={measure} averagedOver={trail.average && trail.averagedOver} />
        <tbody>
          <EndRow name={from.name} prediction={predictions[0]} {...measured} />
          <SortableContext items={ids} strategy={verticalListSortingStrategy}>
            {order.map((step, place) => {
              const at = taken.indexOf(step)
              return (
                <StepRow
                  key={step.id}
                  step={step}
                  words={trail.words.get(step.id)!}
                  isOff={at < 0}
                  before={at < 0 ? undefined : predictions[at]}
                  after={at < 0 ? undefined : predictions[at + 1]}
                  refused={at >= 0 && trail.refusedAfter(at + 1)}
                  average={trail.average?.get(step.id)}
                  whole={trail.whole}
                  {...measured}
                  onMove={(by) => moveTo(place, place + by)}
                  onSwitch={(on) => trail.leaveOut(step.id, !on)}
                />
              )
            })}
          </SortableContext>
          <EndRow
            name={allTaken ? to.name : `${to.name}, ${taken.length} of ${order.length} steps`}
            prediction={predictions.at(-1)}
            {...measured}
          />
        </tbody>
      </table>
    </DndContext>
  )
}

function TrailHead({ measure, averagedOver }: { measure: Measure; averagedOver: number | undefined }) {
  return (
    <thead>
      <tr className="text-[12px] text-muted">
        <th className="pb-1 text-left font-normal">Step</th>
        <th className="pb-1 text-left font-normal">
          {measure.label}
          {averagedOver !== undefined && `; ◇ on average over ${averagedOver} orders`}
        </th>
        {columnsFor(measure).map(({ id, label }) => (
          <th key={id} className={`pb-1 text-right font-normal ${id === measure.id ? 'text-ink' : ''}`}>
            {label}
          </th>
        ))}
      </tr>
    </thead>
  )
}
