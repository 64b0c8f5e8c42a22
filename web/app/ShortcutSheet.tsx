import { Sheet } from '../ui/Dialog'

const keys: readonly (readonly [place: string, rows: readonly (readonly [keys: string, does: string])[]])[] = [
  [
    'Everywhere',
    [
      ['Ctrl K', 'find a place, lineup, part, setting, action, entry'],
      ['?', 'these keys'],
      ['F1', 'the handbook'],
      ['Ctrl Z, Ctrl Y', 'undo, redo'],
      ['Escape', 'close what is open'],
    ],
  ],
  [
    'Ledger',
    [
      ['arrows, Home, End, Page', 'from cell to cell; with Shift a range'],
      ['typing, F2, Enter', 'a new value'],
      ['Enter, Tab, Escape', 'commit; commit and go on; leave'],
      ['=0.4/2, +10 %', 'a sum; a change of what is there'],
      ['Delete', 'back to where it came from'],
      ['Ctrl C, Ctrl V', 'cells, also from and to a spreadsheet'],
      ['Ctrl D', 'fill to the right'],
      ['Alt Enter', 'where a value comes from'],
      ['?', 'what the row is'],
    ],
  ],
  [
    'Layers',
    [
      ['arrows', 'a layer up or down; along the layer'],
      ['Space', 'play along time'],
    ],
  ],
  [
    'Trials, Log, Matrix',
    [
      ['arrows', 'band to band, print to print, cell to cell'],
      ['1 to 9', 'answer about a band'],
      ['Enter', 'a cell of the matrix becomes a column'],
    ],
  ],
]

/** The keys of every place on one sheet. */
export default function ShortcutSheet({ onClose }: { onClose: () => void }) {
  return (
    <Sheet title="Keys" onClose={onClose} width="w-[44rem]">
      <div className="columns-2 gap-8 text-[12.5px]">
        {keys.map(([place, rows]) => (
          <section key={place} className="mb-4 break-inside-avoid">
            <h3 className="mb-1 font-semibold text-lantern-ink">{place}</h3>
            <dl>
              {rows.map(([combination, does]) => (
                <div key={combination} className="grid grid-cols-[8.5rem_1fr] gap-2 border-b border-line/60 py-1">
                  <dt>
                    <kbd className="figure text-[12px]">{combination}</kbd>
                  </dt>
                  <dd className="text-muted">{does}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </div>
    </Sheet>
  )
}
