import { closestCenter, DndContext, type DragEndEvent, PointerSensor, useSensor, useSensors } from '@dnd-kit/core'
import { arrayMove, SortableContext, verticalListSortingStrategy } from '@dnd-kit/sortable'
import type { Candidate } from '@sable/contract/lineup'
import {
  averageEffects,
  inPracticeOrder,
  orders,
  prefixes,
  type Step,
  stepsBetween,
  withoutStraySpool,
  withSteps,
} from '@sable/core/steps/trail'
import { seeded } from '@sable/core/units/seeded'
import { useEffect, useMemo, useState } from 'react'
import { useNavigate, useParams, useSearchParams } from 'react-router'
import { useBench } from '../../desk/bench'
import { edit } from '../../desk/deskStore'
import { addCandidate, nextName } from '../../desk/edits'
import { requestFor } from '../../predictions/predictionStore'
import { Button } from '../../ui/Button'
import { Checkbox } from '../../ui/Checkbox'
import { download, fileNameFrom } from '../../ui/download'
import { SaveMenu } from '../../ui/SaveMenu'
import { Select } from '../../ui/Select'
import { tableCsv } from '../../ui/TableSheet'
import { useAddress } from '../../ui/useAddress'
import { BarGap, ViewBar } from '../../ui/ViewBar'
import { bestFirst } from './bestFirst'
import { columnsFor, measures, senseOf, signed } from './measures'
import { Sentence } from './Sentence'
import { EndRow, StepRow } from './StepRow'
import { stepWords } from './stepWords'
import { predictionOf, useSets } from './useSets'

/** Steps that are being put in order of what each gains. */
interface Sorting {
  readonly stop: Int32Array
  readonly done: number
  readonly of: number
}

/** The same random orders whenever they are asked for. */
const SEED = 20260

/** Most orders over which effects are averaged; few steps have no more than that. */
const MOST_ORDERS = 12

/** The differences of two candidates as a trail of single changes, and what each of them did. */
export function StepsView() {
  const { candidates } = useBench().content
  const [search] = useSearchParams()
  const from = candidates.find(({ id }) => id === search.get('from')) ?? candidates[0]
  const to = candidates.find(({ id }) => id === search.get('to')) ?? candidates.find(({ id }) => id !== from?.id)
  if (!from || !to) {
    return (
      <p className="m-auto max-w-sm p-8 text-center text-muted">
        Steps lead from one candidate to another, and here {candidates.length === 0 ? 'is none' : 'is only one'}. Add one on the ledger.
      </p>
    )
  }
  return <Trail key={`${from.id} ${to.id}`} from={from} to={to} />
}

function Trail({ from, to }: { from: Candidate; to: Candidate }) {
  const { content, part, shelf } = useBench()
  const navigate = useNavigate()
  const { lineupId } = useParams()
  const { get, set } = useAddress()
  const measure = measures.find(({ id }) => id === get('by')) ?? measures[0]!
  const off = useMemo(() => new Set((get('off') ?? '').split(',').filter(Boolean)), [get])
  const averaged = get('average') === 'on'
  const [sorting, setSorting] = useState<Sorting>()

  const steps = useMemo(() => stepsBetween(from, to), [from, to])
  const order = useMemo(() => ordered(steps, get('order')), [steps, get])
  const taken = order.filter(({ id }) => !off.has(id))
  const sets = useMemo(() => prefixes(order.filter(({ id }) => !off.has(id))), [order, off])
  const some = useMemo(() => (averaged ? orders(steps, MOST_ORDERS, seeded(SEED)) : []), [averaged, steps])
  const asked = useMemo(() => [...sets, ...some.flatMap(prefixes)], [sets, some])
  const materialOf = (spool: string): string | undefined => shelf.spools.find(({ key }) => key === spool)?.material
  const madeOf = (ids: ReadonlySet<string>): Candidate => {
    const made = withoutStraySpool(withSteps(from, to, steps, ids), materialOf)
    return { ...from, ...made, overrides: [...made.overrides] }
  }
  const request = (ids: ReadonlySet<string>) => requestFor(madeOf(ids), content, part, shelf)
  const ends = JSON.stringify([{ ...from, name: '' }, { ...to, name: '' }, part.contentKey, content.placement, content.purpose.load, shelf])
  const known = useSets(ends, asked, request)

  const predictions = sets.map((ids) => predictionOf(known, ids))
  const value = (p: (typeof predictions)[number]): number | undefined => p && measure.of(p, content.purpose)
  const values = predictions.map(value)
  const seen = values.filter((one): one is number => one !== undefined)
  const scale = { low: Math.min(0, ...seen), high: Math.max(1e-9, ...seen) }
  const average =
    averaged && some.every((one) => prefixes(one).every((ids) => known.of(ids)?.prediction))
      ? averageEffects(steps, some, (ids) => value(predictionOf(known, ids)) ?? 0)
      : undefined

  const [start, end] = [values[0], values.at(-1)]
  const whole = start !== undefined && end !== undefined ? senseOf(measure, end - start) : 'same'

  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }))
  const moveTo = (at: number, to: number): void => {
    if (to < 0 || to >= order.length) return
    const moved = arrayMove(
      order.map(({ id }) => id),
      at,
      to,
    )
    set({ order: moved.join(',') })
  }
  const onDragEnd = ({ active, over }: DragEndEvent): void => {
    if (!over || active.id === over.id) return
    const ids = order.map(({ id }) => id)
    moveTo(ids.indexOf(String(active.id)), ids.indexOf(String(over.id)))
  }
  const sortingStop = sorting?.stop
  // Whoever looks elsewhere, or at other steps, does not want the order any more.
  // biome-ignore lint/correctness/useExhaustiveDependencies: other steps or another measure end it.
  useEffect(() => sortingStop && (() => void Atomics.store(sortingStop, 0, 1)), [sortingStop, steps, measure])
  const sortByGain = async (): Promise<void> => {
    const stop = new Int32Array(new SharedArrayBuffer(4))
    setSorting({ stop, done: 0, of: 1 })
    try {
      const best = await bestFirst(steps, request, (p) => measure.of(p, content.purpose), measure.better, {
        stop,
        onProgress: (done, of) => setSorting({ stop, done, of }),
      })
      if (best) set({ order: best.map(({ id }) => id).join(',') })
    } finally {
      setSorting(undefined)
    }
  }
  const saveTable = (): void => {
    const csv = tableCsv(
      [
        { label: 'Step', of: (row) => (row === 0 ? from.name : words.get(taken[row - 1]!.id)!.what) },
        { label: 'from', of: (row) => (row === 0 ? '' : words.get(taken[row - 1]!.id)!.from) },
        { label: 'to', of: (row) => (row === 0 ? '' : words.get(taken[row - 1]!.id)!.to) },
        ...measures.map((one) => ({
          label: one.label,
          of: (row: number) => predictions[row] && one.of(predictions[row], content.purpose),
        })),
      ],
      predictions.length,
    )
    download(`${fileNameFrom(`steps from ${from.name} to ${to.name}`)}.csv`, csv, 'text/csv')
  }
  const asCandidate = (): void => {
    const name = nextName(
      to.name,
      content.candidates.map((one) => one.name),
    )
    edit((before) => addCandidate(before, { ...madeOf(new Set(taken.map(({ id }) => id))), id: crypto.randomUUID(), name }))
    void navigate(`/bench/${lineupId}/ledger`)
  }
  const words = new Map(steps.map((step) => [step.id, stepWords(step, from, to, shelf)]))
  const running = known.done < known.wanted

  return (
    <section aria-label="Steps" className="flex min-h-0 flex-1 flex-col">
      <ViewBar>
        <Select label="From" name="From candidate" value={from.id} of={content.candidates} onChange={(id) => set({ from: id })} />
        <Select label="to" name="To candidate" value={to.id} of={content.candidates} onChange={(id) => set({ to: id })} />
        <Select
          label="measured by"
          name="Measured by"
          value={measure.id}
          of={measures.map(({ id, label }) => ({ id, name: label.toLowerCase() }))}
          onChange={(id) => set({ by: id })}
        />
        <Checkbox checked={averaged} onChange={(to) => set({ average: to ? 'on' : undefined })}>
          average over orders
        </Checkbox>
        <BarGap />
        {running && (
          <span role="status" className="figure text-[11.5px] text-muted">
            {known.done} of {known.wanted}
          </span>
        )}
        <SaveMenu name={`steps from ${from.name} to ${to.name}`} csv={saveTable} />
        <span className="text-[12.5px] text-muted">Order</span>
        <Button onClick={() => set({ order: undefined })}>As practised</Button>
        {sorting ? (
          <Button onClick={() => Atomics.store(sorting.stop, 0, 1)}>
            Stop <span className="figure text-muted">{Math.round((100 * sorting.done) / sorting.of)} %</span>
          </Button>
        ) : (
          <Button onClick={() => void sortByGain()}>Most gain first</Button>
        )}
      </ViewBar>
      {steps.length === 0 ? (
        <p className="m-auto p-8 text-muted">
          {from.name} and {to.name} say the same.
        </p>
      ) : (
        <div className="min-h-0 flex-1 overflow-auto px-3 py-2">
          <DndContext
            sensors={sensors}
            collisionDetection={closestCenter}
            onDragEnd={onDragEnd}
            accessibility={{ container: document.body }}
          >
            <table className="w-full border-separate border-spacing-0 text-[12.5px]" style={{ tableLayout: 'fixed' }}>
              <colgroup>
                <col style={{ width: 320 }} />
                <col />
                {columnsFor(measure).map(({ id }) => (
                  <col key={id} style={{ width: 86 }} />
                ))}
              </colgroup>
              <thead>
                <tr className="text-[11.5px] text-muted">
                  <th className="pb-1 text-left font-normal">Step</th>
                  <th className="pb-1 text-left font-normal">
                    {measure.label}
                    {average && `; ◇ on average over ${some.length} orders`}
                  </th>
                  {columnsFor(measure).map(({ id, label }) => (
                    <th key={id} className={`pb-1 text-right font-normal ${id === measure.id ? 'text-ink' : ''}`}>
                      {label}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                <EndRow name={from.name} prediction={predictions[0]} purpose={content.purpose} measure={measure} scale={scale} />
                <SortableContext items={order.map(({ id }) => id)} strategy={verticalListSortingStrategy}>
                  {order.map((step, place) => {
                    const at = taken.indexOf(step)
                    return (
                      <StepRow
                        key={step.id}
                        step={step}
                        words={words.get(step.id)!}
                        isOff={at < 0}
                        before={at < 0 ? undefined : predictions[at]}
                        after={at < 0 ? undefined : predictions[at + 1]}
                        refused={at >= 0 && known.of(sets[at + 1]!) !== undefined && !predictions[at + 1]}
                        average={average?.get(step.id)}
                        whole={whole}
                        purpose={content.purpose}
                        measure={measure}
                        scale={scale}
                        onMove={(by) => moveTo(place, place + by)}
                        onSwitch={(on) => set({ off: [...(on ? [...off].filter((id) => id !== step.id) : [...off, step.id])].join(',') })}
                      />
                    )
                  })}
                </SortableContext>
                <EndRow
                  name={off.size === 0 ? to.name : `${to.name}, ${taken.length} of ${steps.length} steps`}
                  prediction={predictions.at(-1)}
                  purpose={content.purpose}
                  measure={measure}
                  scale={scale}
                />
              </tbody>
            </table>
          </DndContext>
          <div className="mt-3 flex items-start gap-3">
            {off.size > 0 && (
              <Button tone="main" onClick={asCandidate}>
                As a candidate
              </Button>
            )}
            {start !== undefined && end !== undefined && (
              <Sentence
                text={`From ${measure.shown(start)} to ${measure.shown(end)}: ${taken
                  .map(({ id }, i) => {
                    const { what, from: was, to: is, unit } = words.get(id)!
                    const change = values[i + 1] === undefined ? '' : signed(measure, values[i + 1]! - values[i]!)
                    return `${what} ${was} to ${is}${unit === '' ? '' : ` ${unit}`}${change === '' ? '' : ` (${change})`}`
                  })
                  .join(', ')}.`}
              />
            )}
          </div>
        </div>
      )}
    </section>
  )
}

/** The steps in the order that an address names; without one, as they are practised. What it does not name comes last. */
function ordered(steps: readonly Step[], wanted: string | undefined): Step[] {
  if (!wanted) return inPracticeOrder(steps)
  const ids = wanted.split(',')
  const rank = ({ id }: Step): number => (ids.includes(id) ? ids.indexOf(id) : ids.length)
  return [...steps].sort((a, b) => rank(a) - rank(b))
}
