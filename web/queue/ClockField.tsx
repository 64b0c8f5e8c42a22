/** An hour of the day. */
export function ClockField({ name, value, onChange }: { name: string; value: string; onChange: (clock: string) => void }) {
  return (
    <input
      type="time"
      aria-label={name}
      value={value}
      onChange={({ target }) => target.value !== '' && onChange(target.value)}
      className="figure h-7 rounded border border-line bg-sunk px-1.5 text-[12px]"
    />
  )
}
