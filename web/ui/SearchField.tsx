import clsx from 'clsx'

/** Finds something among many while it is typed. */
export function SearchField({
  label,
  value,
  onChange,
  className,
}: {
  label: string
  value: string
  onChange: (value: string) => void
  className?: string
}) {
  return (
    <input
      type="search"
      placeholder={label}
      aria-label={label}
      value={value}
      onChange={(event) => onChange(event.target.value)}
      className={clsx('h-7 rounded-md border border-line bg-sunk px-2 text-[12.5px] placeholder:text-muted', className)}
    />
  )
}
