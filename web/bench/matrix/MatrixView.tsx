import { MOST_CANDIDATES } from '@sable/contract/lineup'
import { figureOf, figures } from '@sable/core/figures/figures'
import type { FigureId } from '@sable/core/figures/table/figure'
import { bestsOf, type MatrixCell, valueIn } from '@sable/core/matrix/matrix'
import { limitsOf } from '@sable/core/search/figures'
import { Download } from 'lucide-react'
import { useMemo, useRef } from 'react'
import { toast } from 'sonner'
import { useBench } from '../../desk/bench'
import { edit, undo } from '../../desk/deskStore'
import { addCandidate, nextName } from '../../desk/edits'
import { requestFor } from '../../predictions/predictionStore'
import { Button } from '../../ui/Button'
import { Checkbox } from '../../ui/Checkbox'
import { Choices } from '../../ui/Choices'
import { toCsv } from '../../ui/csv'
import { download, fileNameFrom } from '../../ui/download'
import { Select } from '../../ui/Select'
import { savePng } from '../../ui/savePicture'
import { useAddress } from '../../ui/useAddress'
import { limitWords } from '../part/limits'
import { plainOf } from '../tradeoffs/figureWords'
import { type Across, acrossKinds, cellCandidate, columnsOf, type MatrixColumn, type MatrixRow, OWN, rowsOf } from './axes'
import { MatrixTable } from './MatrixTable'
import { useCells } from './useCells'

const acrossNames: Readonly<Record<Across, string>> = { materials: 'materials', spools: 'spools', printers: 'printers', nozzles: 'nozzles' }
/** A matrix of more cells than this is not begun: a family or a shorter shelf is chosen first. */
const MOST_CELLS = 240
/** Stands in the address for profiles without a family. */
const NO_FAMILY = '-'

/** Profiles of the library and this lineup's columns, each on every material, spool, printer or nozzle: one figure a cell. */
export function MatrixView() {
  const { content, part, shelf, onRefusal } = useBench()
  const { get, set } = useAddress()
  const across = acrossKinds.find((kind) => kind === get('across')) ?? 'materials'
  const figure = (figures.find(({ id }) => id === get('figure'))?.id ?? 'time') as FigureId
  const isCarried = get('asis') === undefined
  const all = useMemo(() => rowsOf(shelf, content.candidates), [shelf, content.candidates])
  const families = [...new Set(all.map(({ family }) => family))]
  const family = get('family')
  const rows = useMemo(
    () => all.filter((row) => family === undefined || row.family === (family === NO_FAMILY ? '' : family)),
    [all, family],
  )
  const columns = useMemo(() => columnsOf(shelf, across), [shelf, across])
  const candidates = useMemo(
    () => rows.flatMap((row) => columns.map(({ key }) => cellCandidate(row, across, key, shelf, isCarried))),
    [rows, columns, across, shelf, isCarried],
  )
  const isTooLarge = candidates.length > MOST_CELLS
  const { placement, purpose } = content
  const requests = useMemo(
    () => (isTooLarge ? [] : candidates.map((candidate) => requestFor(candidate, { placement, purpose }, part, shelf))),
    [candidates, isTooLarge, placement, purpose, part, shelf],
  )
  const { cells, done, running, stop, resume } = useCells(requests, purpose)
  const limits = useMemo(() => limitsOf(purpose), [purpose])
  const grid = rows.map((_, r) => columns.map((__, c): MatrixCell | undefined => cells[r * columns.length + c]))
  const bests = bestsOf(grid, figure, limits)
  const frame = useRef<HTMLDivElement>(null)
  const name = `${content.name} matrix`
  const take = (row: number, column: number): void => {
    const { id: _, ...candidate } = candidates[row * columns.length + column]!
    if (content.candidates.length >= MOST_CANDIDATES) {
      onRefusal({ where: content.name, message: `The ledger holds ${MOST_CANDIDATES} columns at most.`, remedy: 'Remove one first.' })
      return
    }
    const names = content.candidates.map((one) => one.name)
    const wanted = `${candidate.name}, ${columns[column]!.name}`.slice(0, 60)
    const own = names.includes(wanted) ? nextName(wanted, names) : wanted
    edit((before) => addCandidate(before, { ...candidate, id: crypto.randomUUID(), name: own }))
    toast(`${own} is a column now.`, { action: { label: 'Undo', onClick: undo } })
  }
  return (
    <section aria-label="Matrix" className="flex min-h-0 flex-1 flex-col">
      <div className="flex min-h-11 shrink-0 flex-wrap items-center gap-x-5 gap-y-1.5 border-b border-line px-3 py-1.5">
        <Select
          label="Profiles"
          value={family ?? '*'}
          of={[
            { id: '*', name: 'all' },
            ...families.map((id) => ({ id: id === '' ? NO_FAMILY : id, name: id === '' ? 'of no family' : id })),
          ]}
          onChange={(id) => set({ family: id === '*' ? undefined : id })}
        />
        <Choices
          label=""
          name="Across"
          of={acrossKinds.map((id) => ({ id, name: acrossNames[id] }))}
          value={across}
          onChange={(id) => id && set({ across: id === 'materials' ? undefined : id })}
        />
        <Select
          label="Figure"
          value={figure}
          of={figures.map(({ id, label }) => ({ id, name: label }))}
          onChange={(id) => set({ figure: id === 'time' ? undefined : id })}
        />
        <Checkbox
          checked={isCarried}
          onChange={(to) => set({ asis: to ? undefined : 'yes' })}
          help="Values that rest on what a profile was made with are worked out anew."
        >
          carried over
        </Checkbox>
        <div className="flex-1" />
        {running ? (
          <span role="status" className="flex items-center gap-2 text-[12px] text-muted">
            <span className="figure">
              {done} of {candidates.length}
            </span>
            <Button className="h-6" onClick={stop}>
              Stop
            </Button>
          </span>
        ) : (
          done < requests.length && (
            <Button className="h-6" onClick={resume}>
              Go on
            </Button>
          )
        )}
        <Button onClick={() => download(`${fileNameFrom(name)}.csv`, csvOf(rows, columns, grid), 'text/csv')}>
          <Download className="size-3.5" aria-hidden /> CSV
        </Button>
        <Button onClick={() => frame.current && void savePng(frame.current, name)}>
          <Download className="size-3.5" aria-hidden /> PNG
        </Button>
      </div>
      {isTooLarge ? (
        <p className="m-auto max-w-sm p-8 text-center text-muted">
          {candidates.length} cells are more than {MOST_CELLS}: choose one family of profiles, or put away on the shelf what you do not
          print with.
        </p>
      ) : (
        // biome-ignore lint/a11y/noNoninteractiveTabindex: it is scrolled by keys while its cells are still computed.
        <div ref={frame} tabIndex={0} className="min-h-0 flex-1 overflow-auto bg-ground p-3">
          <MatrixTable rows={rows} columns={columns} cells={grid} bests={bests} figure={figure} limits={limits} onTake={take} />
          <Key figure={figure} hasOwn={rows.some((row) => row.family === OWN)} limits={Object.entries(purpose.limits)} />
        </div>
      )}
    </section>
  )
}

/** What the marks mean, and what is kept to. */
function Key({
  figure,
  hasOwn,
  limits,
}: {
  figure: FigureId
  hasOwn: boolean
  limits: readonly (readonly [string, number | undefined])[]
}) {
  const set = limits.flatMap(([limit, wanted]) => (wanted === undefined ? [] : [limitWords(limit as never, wanted)]))
  return (
    <p className="mt-3 max-w-4xl text-[12px] text-muted">
      {figureOf[figure].label}. ★ best of all, → best of its row, ↓ best of its column, among those that keep the limits
      {set.length > 0 ? ` (${set.join(', ')})` : ''}; hatched: a limit is missed; ✕: something would stop it; n !: cautions. A cell becomes
      a column by a press.
      {hasOwn && ' Above the line: this lineup’s own columns.'}
    </p>
  )
}

/** The figures of every cell, one row a profile. */
function csvOf(
  rows: readonly MatrixRow[],
  columns: readonly MatrixColumn[],
  cells: readonly (readonly (MatrixCell | undefined)[])[],
): string {
  const lines = rows.flatMap((row, r) =>
    columns.map((column, c) => {
      const cell = cells[r]![c]
      const told = Object.fromEntries(
        figures.map(({ id, label }) => {
          const { unit, per } = plainOf(id)
          const value = valueIn(cell, id)
          return [`${label}${unit === '' ? '' : `, ${unit}`}`, Number.isNaN(value) ? '' : Number((value / per).toPrecision(6))]
        }),
      )
      const refused = cell && 'refused' in cell ? cell.refused : ''
      return { profile: row.name, family: row.family, with: column.name, ...told, refused }
    }),
  )
  return toCsv(lines)
}
