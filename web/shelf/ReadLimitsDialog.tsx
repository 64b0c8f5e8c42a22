import type { Printer } from '@sable/core/shelf/printer'
import { limitChanges, readLimits, withLimits } from '@sable/core/shelf/readLimits'
import { inWords } from '@sable/core/units/format'
import { useMemo, useState } from 'react'
import { Button } from '../ui/Button'
import { Sheet } from '../ui/Dialog'

/** Takes the limits that a machine prints about itself, once it is seen what they would change. */
export function ReadLimitsDialog({
  printer,
  onTake,
  onClose,
}: {
  printer: Printer
  onTake: (printer: Printer) => void
  onClose: () => void
}) {
  const [text, setText] = useState('')
  const told = useMemo(() => readLimits(text), [text])
  const changes = useMemo(() => limitChanges(printer, told), [printer, told])
  const isEmpty = text.trim() === ''
  return (
    <Sheet title={`Read the limits of ${printer.name}`} onClose={onClose}>
      <p className="mb-2 text-[12.5px] text-muted">
        Ask the machine for its settings over its terminal, and paste what it prints. Lines with M201, M203, M204, M205, M593 and M900 are
        read, or a configuration of keys and values (max_accel: 3000); all others are passed over.
      </p>
      <textarea
        aria-label="Text from the machine"
        rows={7}
        value={text}
        onChange={(event) => setText(event.target.value)}
        placeholder={'M201 X3000 Y3000 Z300 E5000\nM203 X300 Y300 Z15 E60\nM204 P3000 T3000\nM205 J0.02'}
        className="figure w-full rounded border border-line bg-sunk p-2 text-[12px] placeholder:text-muted/70"
      />
      {!isEmpty && (
        <>
          {told.remarks.map((remark) => (
            <p key={remark} className="mt-2 text-[12.5px] text-worse">
              {remark}
            </p>
          ))}
          {changes.length > 0 ? (
            <table className="mt-3 w-full text-[12.5px]">
              <thead>
                <tr className="text-left text-[12px] text-muted">
                  <th className="font-normal">Limit</th>
                  <th className="text-right font-normal">now</th>
                  <th className="text-right font-normal">reported</th>
                  <th />
                </tr>
              </thead>
              <tbody>
                {changes.map(({ label, unit, stored, told: now }) => (
                  <tr key={label} className="border-t border-line/60">
                    <td className="py-0.5">{label}</td>
                    <td className="figure text-right text-muted">{inWords(stored)}</td>
                    <td className="figure text-right">{inWords(now)}</td>
                    <td className="w-16 pl-2 text-[12px] text-muted">{unit}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          ) : (
            told.remarks.length === 0 && <p className="mt-3 text-muted">Nothing differs from what the record has now.</p>
          )}
        </>
      )}
      <div className="mt-4 flex justify-end gap-2">
        <Button onClick={onClose}>Leave as it is</Button>
        <Button
          tone="main"
          disabled={changes.length === 0}
          onClick={() => {
            onTake(withLimits(printer, told))
            onClose()
          }}
        >
          Take {changes.length === 1 ? '1 change' : `${changes.length} changes`}
        </Button>
      </div>
    </Sheet>
  )
}
