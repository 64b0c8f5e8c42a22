import { formatDuration } from '@sable/core/units/format'

const shown = { time: formatDuration, mass: (grams: number) => `${grams.toFixed(grams < 20 ? 1 : 0)} g` } as const

/** A figure with its 80 % range, and what it really was where that is known. */
export function RangeLine({
  label,
  value,
  range: [low, high],
  actual,
  as,
}: {
  label: string
  value: number
  range: readonly [number, number]
  actual?: number | undefined
  as: 'time' | 'mass'
}) {
  const tell = shown[as]
  return (
    <div className="flex items-baseline gap-3 border-b border-line/60 py-0.5">
      <dt className="flex-1 text-muted">{label}</dt>
      <dd className="figure text-right whitespace-nowrap">
        {tell(value)}
        <span className="ml-2 text-[12px] text-muted">
          {tell(low)} to {tell(high)}
        </span>
      </dd>
      {actual !== undefined && (
        <dd className="figure w-36 text-right whitespace-nowrap text-lantern-ink">
          {tell(actual)}
          <span className="ml-2 text-[12px]">
            {actual >= low && actual <= high ? 'within' : actual > high ? 'above' : 'below'} {((100 * actual) / value - 100).toFixed(1)} %
          </span>
        </dd>
      )}
    </div>
  )
}
