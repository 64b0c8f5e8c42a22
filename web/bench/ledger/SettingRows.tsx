import type { Candidate } from '@sable/contract/lineup'
import { describeRange } from '@sable/core/profile/settings'
import { Fragment, memo } from 'react'
import { showHelp } from '../../handbook/helpStore'
import { useForecasts } from '../../predictions/predictionStore'
import { CellEditor } from './CellEditor'
import { heldBack } from './heldBack'
import type { Cell, LedgerRow, RowGroup } from './rows'
import { contains } from './selection'
import { cellId, type LedgerKeys } from './useLedgerKeys'

interface Props {
  readonly groups: readonly RowGroup[]
  readonly candidates: readonly Candidate[]
  readonly columns: readonly Readonly<Record<string, Cell>>[]
  readonly keys: LedgerKeys
}

/** The settings in their groups. */
export function SettingRows({ groups, candidates, columns, keys }: Props) {
  let index = -1
  return (
    <>
      {groups.map((group) => (
        <tbody key={group.name}>
          <tr>
            <th
              scope="rowgroup"
              colSpan={candidates.length + 1}
              className="h-[25px] border-b border-line p-0 text-left align-bottom font-normal"
            >
              <span className="sticky left-0 inline-block px-[22px] pb-0.5">
                <span className="font-semibold text-lantern-ink">{group.name}</span>
                <span className="ml-2 text-[12px] text-muted">{group.shapes}</span>
              </span>
            </th>
          </tr>
          {group.rows.map((row) => {
            index++
            const rowIndex = index
            return (
              <tr key={row.id} data-setting={row.id}>
                <th
                  scope="row"
                  data-hint={helpOf(row)}
                  className="sticky left-0 z-10 border-b border-line/60 bg-ground py-0 pr-2 pl-[22px] text-left font-normal"
                >
                  {row.kind === 'setup' ? (
                    <span className="block truncate">{row.label}</span>
                  ) : (
                    <button
                      type="button"
                      tabIndex={-1}
                      aria-label={`${row.label}: what is it?`}
                      onClick={() => showHelp(`setting/${row.id}`)}
                      className="block max-w-full cursor-help truncate text-left decoration-line underline-offset-2 hover:underline"
                    >
                      {row.label}
                    </button>
                  )}
                </th>
                {candidates.map((candidate, column) => {
                  const active = keys.selection.row === rowIndex && keys.selection.column === column
                  return (
                    <Fragment key={candidate.id}>
                      <SettingCell
                        row={row}
                        cell={columns[column]?.[row.id]}
                        candidateId={candidate.id}
                        rowIndex={rowIndex}
                        column={column}
                        active={active}
                        selected={contains(keys.selection, rowIndex, column)}
                        editing={active ? keys.editing : undefined}
                        onPoint={keys.point}
                        onOpen={keys.open}
                        onLayers={keys.layers}
                        onCommit={keys.commit}
                        onCancel={keys.cancel}
                      />
                    </Fragment>
                  )
                })}
              </tr>
            )
          })}
        </tbody>
      ))}
    </>
  )
}

const helpOf = (row: LedgerRow): string =>
  row.kind === 'setup'
    ? row.label
    : `${row.setting.help} ${describeRange(row.setting)[0]?.toUpperCase()}${describeRange(row.setting).slice(1)}.${row.setting.synonyms.length > 0 ? ` Also called ${row.setting.synonyms.join(', ')}.` : ''}`

interface CellProps {
  readonly row: LedgerRow
  readonly cell: Cell | undefined
  readonly candidateId: string
  readonly rowIndex: number
  readonly column: number
  readonly active: boolean
  readonly selected: boolean
  readonly editing: { readonly text: string; readonly problem?: string } | undefined
  readonly onPoint: LedgerKeys['point']
  readonly onOpen: LedgerKeys['open']
  readonly onLayers: LedgerKeys['layers']
  readonly onCommit: LedgerKeys['commit']
  readonly onCancel: LedgerKeys['cancel']
}

const originNames = {
  fallback: 'from common practice',
  printer: 'from the printer',
  nozzle: 'from the nozzle',
  material: 'from the material',
  school: 'from the school that you chose',
  spool: 'from the spool',
  profile: 'set in this profile',
} as const

const SettingCell = memo(function SettingCell({
  row,
  cell,
  candidateId,
  rowIndex,
  column,
  active,
  selected,
  editing,
  onPoint,
  onOpen,
  onLayers,
  onCommit,
  onCancel,
}: CellProps) {
  const held = useForecasts((all) => heldBack(row, all[candidateId]))
  const unit = row.kind === 'setting' && row.setting.kind === 'number' ? row.setting.unit : ''
  const origin = cell ? originNames[cell.origin] : ''
  const own = cell?.origin === 'profile'
  return (
    // biome-ignore lint/a11y/useAriaPropsSupportedByRole: a td of a table with role="grid" is a gridcell.
    <td
      id={cellId(rowIndex, column)}
      aria-selected={selected}
      onMouseDown={(event) => onPoint(rowIndex, column, event.shiftKey)}
      onDoubleClick={() => onOpen()}
      onContextMenu={(event) => {
        if (row.kind !== 'setting') return
        event.preventDefault()
        onPoint(rowIndex, column, false)
        // The selection has to be there before what lies under it is asked for.
        setTimeout(onLayers)
      }}
      className={`relative h-[22px] border-b border-l border-line/60 border-l-line px-2 ${selected ? 'bg-glow' : ''} ${active ? 'z-[1] outline-2 -outline-offset-2 outline-strong group-focus-within/grid:outline-lantern' : ''}`}
    >
      {editing ? (
        <CellEditor row={row} start={editing.text} problem={editing.problem} onCommit={onCommit} onCancel={onCancel} />
      ) : (
        cell && (
          <div className="flex items-baseline gap-1.5">
            {cell.differs && (
              <span data-hint="Differs from the first column" className="text-[9px] text-lantern-ink">
                ◆<span className="sr-only"> differs</span>
              </span>
            )}
            {held !== undefined && <span className="truncate text-[12px] text-worse">{held}</span>}
            {cell.also !== undefined && <span className="truncate text-[12px] text-muted">{cell.also}</span>}
            <span
              data-hint={row.kind === 'setting' ? `${origin}. Right-click, or Alt Enter: every layer` : origin}
              className={`ml-auto truncate ${row.kind === 'setting' ? 'figure' : 'text-[12.5px]'} ${own ? 'text-ink' : 'text-muted'}`}
            >
              {cell.text}
              {!own && <span className="sr-only"> {origin}</span>}
            </span>
            {/* Figures without a unit leave its room free, so that all stand under each other. */}
            {row.kind === 'setting' && <span className="w-9 shrink-0 text-[12px] text-muted">{/\d/.test(cell.text) ? unit : ''}</span>}
          </div>
        )
      )}
    </td>
  )
})
