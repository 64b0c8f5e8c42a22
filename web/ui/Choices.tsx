import clsx from 'clsx'

/** A few words to choose from, all in sight. Pressing what is chosen takes it back. */
export function Choices<Id extends string | number>({
  label,
  name = label,
  of,
  value,
  numbered = false,
  onChange,
}: {
  label: string
  /** What it is called where its label alone would not tell. */
  name?: string
  of: readonly { readonly id: Id; readonly name: string }[]
  value: Id | undefined
  /** Their digits are keys. */
  numbered?: boolean
  onChange: (value: Id | undefined) => void
}) {
  return (
    <fieldset className="flex flex-wrap items-center gap-1 text-[12px]">
      <legend className="sr-only">{name}</legend>
      {label !== '' && (
        <span aria-hidden className="min-w-24 flex-1 text-muted">
          {label}
        </span>
      )}
      {of.map(({ id, name: own }, i) => (
        <button
          key={id}
          type="button"
          aria-pressed={value === id}
          onClick={() => onChange(value === id ? undefined : id)}
          className={clsx(
            'h-6 rounded border px-1.5 text-[12px]',
            value === id ? 'border-lantern bg-glow text-lantern-ink' : 'border-line bg-raised hover:border-strong',
          )}
        >
          {numbered && (
            <span aria-hidden className="figure mr-1 text-[12px] text-muted">
              {i + 1}
            </span>
          )}
          {own}
        </button>
      ))}
    </fieldset>
  )
}
