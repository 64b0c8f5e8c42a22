import { Download, ImagePlus, X } from 'lucide-react'
import { useRef, useState } from 'react'
import { IconButton } from './Button'
import { Checkbox } from './Checkbox'

/** Photographs of a print: dropped here or chosen, kept small. */
export function Photos({
  photos,
  addressOf,
  onAdd,
  onRemove,
}: {
  /** Their ids. */
  photos: readonly string[]
  addressOf: (id: string) => string
  /** Takes them in; whatever goes wrong is told there. */
  onAdd: (files: readonly File[], withOriginals: boolean) => Promise<void>
  onRemove: (id: string) => void
}) {
  const picker = useRef<HTMLInputElement>(null)
  const [over, setOver] = useState(false)
  const [busy, setBusy] = useState(false)
  const [withOriginals, setWithOriginals] = useState(false)
  const take = async (files: Iterable<File>): Promise<void> => {
    setBusy(true)
    await onAdd([...files], withOriginals)
    setBusy(false)
  }
  return (
    <section
      aria-label="Photographs"
      className={`flex flex-wrap items-center gap-2 rounded border border-dashed p-1.5 ${over ? 'border-lantern' : 'border-line'}`}
      onDragOver={(event) => {
        event.preventDefault()
        setOver(true)
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        event.preventDefault()
        setOver(false)
        void take(event.dataTransfer.files)
      }}
    >
      {photos.map((id, i) => (
        <span key={id} className="relative">
          <a href={addressOf(id)} target="_blank" rel="noreferrer">
            <img src={addressOf(id)} alt={`Photograph ${i + 1} of the print`} className="h-14 w-20 rounded object-cover" />
          </a>
          <IconButton
            label={`Remove photograph ${i + 1}`}
            className="absolute top-0 right-0 size-5 bg-ground/80"
            onClick={() => onRemove(id)}
          >
            <X className="size-3" />
          </IconButton>
          <a
            href={`${addressOf(id)}/original`}
            download
            aria-label={`Photograph ${i + 1} as a file`}
            className="absolute right-0 bottom-0 grid size-5 place-items-center rounded bg-ground/80"
          >
            <Download className="size-3" aria-hidden />
          </a>
        </span>
      ))}
      <button
        type="button"
        disabled={busy}
        onClick={() => picker.current?.click()}
        className="flex h-7 items-center gap-1.5 rounded px-1.5 text-[12px] text-muted hover:text-ink disabled:opacity-50"
      >
        <ImagePlus className="size-4" aria-hidden /> {busy ? 'Taking it in …' : 'Photographs, or drop them here'}
      </button>
      <Checkbox checked={withOriginals} onChange={setWithOriginals} className="text-muted">
        and as the camera took them
      </Checkbox>
      <input
        ref={picker}
        type="file"
        accept="image/*"
        multiple
        className="sr-only"
        tabIndex={-1}
        aria-label="Photographs of the print"
        onChange={({ target }) => {
          void take(target.files ?? [])
          target.value = ''
        }}
      />
    </section>
  )
}
