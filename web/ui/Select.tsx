/** A choice among a few, with its label before it. */
export function Select<Id extends string>({
  label,
  name = label,
  value,
  of,
  onChange,
}: {
  label: string
  /** What it is called where its label alone would not tell. */
  name?: string
  value: Id
  of: readonly { readonly id: Id; readonly name: string }[]
  onChange: (id: Id) => void
}) {
  return (
    <label className="flex items-center gap-2 text-[12.5px]">
      {label !== '' && <span className="text-muted">{label}</span>}
      <select
        aria-label={name}
        value={value}
        onChange={(event) => onChange(event.target.value as Id)}
        className="h-7 max-w-44 rounded border border-line bg-sunk px-1"
      >
        {of.map((one) => (
          <option key={one.id} value={one.id}>
            {one.name}
          </option>
        ))}
      </select>
    </label>
  )
}
