import { useDraft } from './useDraft'

/** A field that hands on what is typed at once, and shows what cannot be taken without losing it. */
export function DraftField({
  label,
  name = label,
  text,
  unit = '',
  hint = '',
  width = 'w-20',
  onCommit,
}: {
  label: string
  /** What it is called where its label alone would not tell. */
  name?: string
  text: string
  unit?: string
  hint?: string
  width?: string
  /** Returns whether the text could be taken. */
  onCommit: (text: string) => boolean
}) {
  const { wrong, ...field } = useDraft(text, onCommit)
  return (
    <label className="block text-[12px]">
      <span className="text-muted">{label}</span>
      <span className="mt-0.5 flex items-center gap-1">
        <input
          aria-label={name}
          {...field}
          placeholder={hint}
          aria-invalid={wrong}
          className={`${width} figure h-7 rounded border border-line bg-sunk px-2 aria-[invalid=true]:border-stop`}
        />
        {unit !== '' && <span className="text-muted">{unit}</span>}
      </span>
    </label>
  )
}
