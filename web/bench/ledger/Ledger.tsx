import { closestCenter, DndContext, type DragEndEvent, KeyboardSensor, PointerSensor, useSensor, useSensors } from '@dnd-kit/core'
import { horizontalListSortingStrategy, SortableContext, sortableKeyboardCoordinates } from '@dnd-kit/sortable'
import type { Candidate, LineupContent } from '@sable/contract/lineup'
import { setupOf } from '@sable/contract/shelf'
import type { FigureId } from '@sable/core/figures/table/figure'
import type { SettingName } from '@sable/core/profile/settings'
import type { Profile } from '@sable/core/shelf/profile'
import { useMemo, useRef, useState } from 'react'
import { asRefusal } from '../../api/asRefusal'
import { useBench } from '../../desk/bench'
import { edit } from '../../desk/deskStore'
import { addCandidate, moveCandidate, nextName } from '../../desk/edits'
import { predictionPool, requestFor, useForecasts } from '../../predictions/predictionStore'
import { Button } from '../../ui/Button'
import { Checkbox } from '../../ui/Checkbox'
import { download, fileNameFrom } from '../../ui/download'
import { Notice } from '../../ui/Notice'
import { SearchField } from '../../ui/SearchField'
import { useSize } from '../../ui/useSize'
import { firstCandidate, fromProfile } from '../shell/firstCandidate'
import { AddCandidate } from './AddCandidate'
import { ColumnHeader } from './ColumnHeader'
import { Converters } from './Converters'
import { EachPrinterSheet } from './EachPrinterSheet'
import { FigureRows } from './FigureRows'
import { LayersDrawer } from './LayersDrawer'
import { MeasureNext } from './MeasureNext'
import { OverrideRow } from './OverrideRow'
import { PrintDialog } from './PrintDialog'
import { RederivedDrawer } from './RederivedDrawer'
import { restrictToHorizontal } from './restrictToHorizontal'
import { type Cell, cellsOf, filterRows, ledgerRows } from './rows'
import { SettingRows } from './SettingRows'
import { useLedgerKeys } from './useLedgerKeys'
import { WhyDrawer } from './WhyDrawer'

/** What is open beside the ledger: one thing at a time. */
type Beside = { readonly candidateId: string } & (
  | { readonly kind: 'why'; readonly figure: FigureId }
  | { readonly kind: 'layers'; readonly name: SettingName }
  | { readonly kind: 'changes'; readonly before: Candidate }
  | { readonly kind: 'print' }
)

/** The ledger: candidates as columns, predicted figures and settings as rows. */
export function Ledger() {
  const { content, part, shelf, onRefusal } = useBench()
  const [search, setSearch] = useState('')
  const [onlyDifferences, setOnlyDifferences] = useState(false)
  const [beside, setBeside] = useState<Beside>()
  const { candidates } = content
  const allRows = useMemo(() => ledgerRows(shelf, candidates), [shelf, candidates])
  const columns = useMemo(() => candidates.map((candidate) => cellsOf(candidate, candidates[0], shelf) ?? {}), [candidates, shelf])
  const groups = useMemo(
    () => filterRows(allRows, search, onlyDifferences ? differingRows(columns) : undefined, meaninglessRows(columns)),
    [allRows, search, onlyDifferences, columns],
  )
  const rows = useMemo(() => groups.flatMap((group) => group.rows), [groups])
  const grid = useRef<HTMLTableElement>(null)
  const { ref: frame, width } = useSize()
  const columnWidth = columnWidthFor(candidates.length, width)
  const [everywhere, setEverywhere] = useState<string>()
  const keys = useLedgerKeys({
    content,
    rows,
    columns,
    grid,
    onRefusal,
    onSetup: (before, { id }) => setBeside({ kind: 'changes', before, candidateId: id }),
    onLayers: (row, { id }) => row.kind === 'setting' && setBeside({ kind: 'layers', name: row.id, candidateId: id }),
  })
  const byId = (id: string | undefined): Candidate | undefined => candidates.find((candidate) => candidate.id === id)
  const [asked, sent] = [byId(beside?.candidateId), byId(everywhere)]
  const closeBeside = (): void => setBeside(undefined)
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  )

  const onDragEnd = ({ active, over }: DragEndEvent): void => {
    const to = candidates.findIndex(({ id }) => id === over?.id)
    if (over && active.id !== over.id) edit((before) => moveCandidate(before, String(active.id), to))
  }
  const writeProgram = async (candidate: Candidate): Promise<void> => {
    try {
      const request = requestFor(candidate, content, part, shelf)
      if (request)
        download(`${fileNameFrom(`${part.name} ${candidate.name}`)}.gcode`, await predictionPool().anyWorker.writeProgram(request))
    } catch (error) {
      onRefusal(asRefusal(error))
    }
  }
  const add = (): void => {
    const like = candidates.at(-1)
    edit((before) =>
      addCandidate(
        before,
        firstCandidate(
          shelf,
          like,
          nextName(
            'candidate',
            before.candidates.map(({ name }) => name),
          ),
        ),
      ),
    )
  }

  const addProfile = (profile: Profile): void => edit((before) => addCandidate(before, fromProfile(profile, shelf, candidates.at(-1))))

  return (
    <section aria-label="Ledger" className="flex min-h-0 flex-1 flex-col">
      <div className="flex min-h-10 shrink-0 items-center max-lg:flex-wrap gap-3 px-3">
        <SearchField label="Find a setting" value={search} onChange={setSearch} className="w-52" />
        <Checkbox checked={onlyDifferences} onChange={(to) => setOnlyDifferences(to)}>
          Only differences
        </Checkbox>
        <p className="ml-auto hidden text-[12px] text-muted xl:block">
          <Lamp className="bg-ink" /> calculated <Lamp className="ml-3 bg-muted/60" /> rests on an assumed number
        </p>
        <MeasureNext />
        <Converters
          setup={candidates[keys.selection.column] && setupOf(candidates[keys.selection.column]!, shelf)}
          cells={columns[keys.selection.column]}
        />
        <AddCandidate onEmpty={add} onProfile={addProfile} />
      </div>
      <Refusals content={content} />
      {candidates.length === 0 ? (
        <Empty onAdd={add} />
      ) : (
        <div ref={frame} className="min-h-0 flex-1 overflow-auto">
          <DndContext
            sensors={sensors}
            collisionDetection={closestCenter}
            modifiers={[restrictToHorizontal]}
            onDragEnd={onDragEnd}
            // Hidden texts for screen readers belong outside the table.
            accessibility={{ container: document.body }}
          >
            <table
              ref={grid}
              // biome-ignore lint/a11y/noNoninteractiveElementToInteractiveRole: a spreadsheet with its own keys is what role="grid" is for.
              role="grid"
              aria-label="Candidates and their settings"
              aria-activedescendant={keys.editing ? undefined : keys.activeId}
              tabIndex={0}
              onKeyDown={keys.onKeyDown}
              onCopy={keys.onCopy}
              onPaste={keys.onPaste}
              className="group/grid border-separate border-spacing-0 outline-none"
              style={{ tableLayout: 'fixed', width: `max(100%, ${LABEL_WIDTH + candidates.length * columnWidth}px)` }}
            >
              <colgroup>
                <col style={{ width: LABEL_WIDTH }} />
                {candidates.map(({ id }) => (
                  <col key={id} style={{ width: columnWidth }} />
                ))}
                {/* Candidates do not spread over a wide window: figures stay near each other. */}
                <col />
              </colgroup>
              <thead>
                <tr>
                  <th className="sticky top-0 left-0 z-30 border-b border-line bg-ground" />
                  <SortableContext items={candidates.map(({ id }) => id)} strategy={horizontalListSortingStrategy}>
                    {candidates.map((candidate, index) => (
                      <ColumnHeader
                        key={candidate.id}
                        candidate={candidate}
                        index={index}
                        count={candidates.length}
                        purpose={content.purpose}
                        onProgram={writeProgram}
                        onEverywhere={() => setEverywhere(candidate.id)}
                        onWhy={(figure) => setBeside({ kind: 'why', figure, candidateId: candidate.id })}
                        onPrint={() => setBeside({ kind: 'print', candidateId: candidate.id })}
                        onRefusal={onRefusal}
                      />
                    ))}
                  </SortableContext>
                  <th aria-hidden className="sticky top-0 z-20 border-b border-line bg-ground" />
                </tr>
              </thead>
              <FigureRows
                candidates={candidates}
                purpose={content.purpose}
                onWhy={(figure, candidateId) => setBeside({ kind: 'why', figure, candidateId })}
              />
              <SettingRows groups={groups} candidates={candidates} columns={columns} keys={keys} />
              {search.trim() === '' && <OverrideRow candidates={candidates} />}
            </table>
          </DndContext>
          {rows.length === 0 && (
            <p className="p-6 text-muted">
              {search.trim() === '' ? 'All candidates agree in every setting.' : `No setting is called “${search.trim()}”.`}
            </p>
          )}
        </div>
      )}
      {beside?.kind === 'layers' && asked && <LayersDrawer name={beside.name} candidate={asked} onClose={closeBeside} />}
      {beside?.kind === 'changes' && asked && <RederivedDrawer before={beside.before} candidate={asked} onClose={closeBeside} />}
      {beside?.kind === 'print' && asked && <PrintDialog candidate={asked} onClose={closeBeside} />}
      {beside?.kind === 'why' && asked && <WhyDrawer figure={beside.figure} candidate={asked} onClose={closeBeside} />}
      {sent && <EachPrinterSheet candidate={sent} onClose={() => setEverywhere(undefined)} />}
    </section>
  )
}

const LABEL_WIDTH = 196
const LEAST_COLUMN = 180
const MOST_COLUMN = 320

/** Four candidates fill a usual window; fewer leave room, more are scrolled to. */
const columnWidthFor = (count: number, width: number): number =>
  Math.min(MOST_COLUMN, Math.max(LEAST_COLUMN, Math.floor((width - LABEL_WIDTH) / Math.max(4, count))))

const Lamp = ({ className }: { className: string }) => <span aria-hidden className={`mr-1 inline-block size-2 rounded-full ${className}`} />

function differingRows(columns: readonly Readonly<Record<string, Cell>>[]): ReadonlySet<string> {
  return new Set(columns.flatMap((cells) => Object.entries(cells).flatMap(([id, cell]) => (cell.differs ? [id] : []))))
}

/** Rows that mean nothing in any column: a support's density where nothing is supported. */
function meaninglessRows(columns: readonly Readonly<Record<string, Cell>>[]): ReadonlySet<string> {
  const ids = Object.keys(columns[0] ?? {})
  return new Set(ids.filter((id) => columns.every((cells) => cells[id]?.applies === false)))
}

/** Columns that cannot be computed say why above the table, where the sentence has room. */
function Refusals({ content }: { content: LineupContent }) {
  const forecasts = useForecasts()
  const refused = content.candidates.flatMap(({ id, name }) => {
    const refusal = forecasts[id]?.refusal
    return refusal ? [{ id, refusal: { ...refusal, where: `${name}${refusal.where === '' ? '' : `, ${refusal.where}`}` } }] : []
  })
  if (refused.length === 0) return null
  return (
    <div className="space-y-1 px-3 pb-2">
      {refused.map(({ id, refusal }) => (
        <Notice key={id} refusal={refusal} />
      ))}
    </div>
  )
}

function Empty({ onAdd }: { onAdd: () => void }) {
  return (
    <div className="m-auto max-w-sm p-8 text-center">
      <p className="text-[15px] font-medium">No candidates</p>
      <p className="mt-1 mb-4 text-muted">
        A candidate is one way to print this part: a machine, a material and a profile. Its figures appear as soon as it is here.
      </p>
      <Button tone="main" onClick={onAdd}>
        Add a candidate
      </Button>
    </div>
  )
}
