import { useVirtualizer } from '@tanstack/react-virtual'
import { Download } from 'lucide-react'
import { useRef } from 'react'
import { Button } from './Button'
import { toCsv } from './csv'
import { Sheet } from './Dialog'
import { download, fileNameFrom } from './download'

export interface TableColumn {
  readonly label: string
  readonly unit?: string
  /** Of numbers; CSV tells them unrounded. */
  readonly digits?: number
  readonly of: (row: number) => number | string | undefined
}

/** The numbers behind a picture, to be read or taken away. */
export function TableSheet({
  title,
  columns,
  rowCount,
  onClose,
}: {
  title: string
  columns: readonly TableColumn[]
  rowCount: number
  onClose: () => void
}) {
  return (
    <Sheet title={title} onClose={onClose} width="w-fit min-w-[28rem]">
      <Rows columns={columns} rowCount={rowCount} />
      <div className="mt-3 flex justify-end">
        <Button onClick={() => download(`${fileNameFrom(title)}.csv`, tableCsv(columns, rowCount), 'text/csv')}>
          <Download className="size-3.5" aria-hidden /> CSV
        </Button>
      </div>
    </Sheet>
  )
}

/** Only the rows in sight are there. Mounted with the sheet's frame, whose height it needs. */
function Rows({ columns, rowCount }: { columns: readonly TableColumn[]; rowCount: number }) {
  const frame = useRef<HTMLDivElement>(null)
  const rows = useVirtualizer({ count: rowCount, getScrollElement: () => frame.current, estimateSize: () => 24, overscan: 20 })
  const items = rows.getVirtualItems()
  return (
    <div ref={frame} className="max-h-[56vh] overflow-auto">
      <table className="w-full text-[12.5px]" aria-rowcount={rowCount + 1}>
        <thead className="sticky top-0 bg-raised text-[12px] text-muted">
          <tr>
            {columns.map(({ label, unit }) => (
              <th key={label} className="px-3 pb-1.5 text-right align-bottom font-normal whitespace-nowrap first:pl-0 first:text-left">
                {label}
                {unit !== undefined && <span className="block text-[12px]">{unit || '\u00a0'}</span>}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {items[0] && items[0].start > 0 && <tr style={{ height: items[0].start }} />}
          {items.map(({ index, key }) => (
            <tr key={key} className="border-t border-line/60" style={{ height: 24 }}>
              {columns.map(({ label, digits, of }) => (
                <td key={label} className="figure px-3 text-right whitespace-nowrap first:pl-0 first:text-left">
                  {shown(of(index), digits)}
                </td>
              ))}
            </tr>
          ))}
          <tr style={{ height: Math.max(0, rows.getTotalSize() - (items.at(-1)?.end ?? 0)) }} />
        </tbody>
      </table>
    </div>
  )
}

/** Every row, a cell without a value is empty. */
export function tableCsv(columns: readonly TableColumn[], rowCount: number): string {
  return toCsv([
    columns.map(({ label, unit }) => (unit ? `${label} (${unit})` : label)),
    ...Array.from({ length: rowCount }, (_, row) =>
      columns.map(({ of }) => {
        const value = of(row)
        return value === undefined || Number.isNaN(value) ? '' : value
      }),
    ),
  ])
}

const shown = (value: number | string | undefined, digits = 2): string =>
  value === undefined || Number.isNaN(value) ? '–' : typeof value === 'string' ? value : value.toFixed(digits)
