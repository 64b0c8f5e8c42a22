import type { StoredPart } from '@sable/contract/part'
import clsx from 'clsx'
import { Upload } from 'lucide-react'
import { useRef, useState } from 'react'
import { Button } from '../../ui/Button'
import { type FileAsk, FilePicker } from '../../ui/FilePicker'
import type { Refusal } from '../../ui/Notice'
import { useUpload } from '../part/useUpload'

/** Where a model is dropped, and the parts that are here already. */
export function PartDrop({
  parts,
  onPart,
  onRefusal,
}: {
  parts: readonly StoredPart[]
  onPart: (part: StoredPart) => void
  onRefusal: (refusal: Refusal) => void
}) {
  const upload = useUpload(onPart, onRefusal)
  const [over, setOver] = useState(false)
  const picker = useRef<FileAsk>(null)
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_22rem] gap-8">
      {/* biome-ignore lint/a11y/noStaticElementInteractions: dropping is a shorter way to the button within. */}
      <div
        className={clsx(
          'grid min-h-[60vh] place-items-center rounded-md border border-dashed p-6 text-center',
          over ? 'border-lantern bg-glow' : 'border-strong',
        )}
        onDragOver={(event) => {
          event.preventDefault()
          setOver(true)
        }}
        onDragLeave={() => setOver(false)}
        onDrop={(event) => {
          event.preventDefault()
          setOver(false)
          const [file] = event.dataTransfer.files
          if (file) void upload.begin(file)
        }}
      >
        {upload.running === undefined ? (
          <div>
            <Button tone="main" onClick={() => picker.current?.ask()}>
              <Upload className="size-4" aria-hidden /> Load your model
            </Button>
            <p className="mt-3 text-[12.5px] text-muted">or drop it here: STL, 3MF or OBJ</p>
          </div>
        ) : (
          <p role="status" className="flex items-center gap-3 text-muted">
            Reading {upload.running} … <Button onClick={upload.cancel}>Cancel</Button>
          </p>
        )}
        <FilePicker ref={picker} label="Model file" accept=".stl,.3mf,.obj" onFile={(file) => void upload.begin(file)} />
      </div>
      {parts.length > 0 && (
        <section aria-label="Parts that are here">
          <h2 className="mb-1 text-[12.5px] font-semibold text-lantern-ink">Parts that are here</h2>
          <ul className="divide-y divide-line border-y border-line text-[12.5px]">
            {parts.map((part) => (
              <li key={part.id}>
                <button
                  type="button"
                  onClick={() => onPart(part)}
                  className="flex min-h-8 w-full items-center gap-3 px-1 text-left hover:bg-raised"
                >
                  <span className="min-w-0 flex-1 truncate">{part.name}</span>
                  <span className="figure text-[12px] text-muted">{part.report.sizeMm.map((mm) => mm.toFixed(0)).join(' × ')} mm</span>
                </button>
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  )
}
