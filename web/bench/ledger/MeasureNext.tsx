import { whatToMeasure } from '@sable/core/doubt/doubt'
import { Ruler } from 'lucide-react'
import { useMemo } from 'react'
import { useBench } from '../../desk/bench'
import { requestFor, useForecasts } from '../../predictions/predictionStore'
import { useDoubts } from '../../predictions/useDoubts'
import { Button } from '../../ui/Button'
import { Popover } from '../../ui/Popover'

/** A measurement that removes less than this share of the doubt is not worth the time. */
const WORTH = 0.01

/** What to measure next, by how much of the doubt of this lineup it would remove. */
export function MeasureNext() {
  const forecasts = useForecasts()
  const { candidates } = useBench().content
  if (!candidates.some(({ id }) => forecasts[id]?.prediction)) return null
  return (
    <Popover
      label="What to measure next"
      width="w-[27rem]"
      trigger={
        <Button>
          <Ruler className="size-3.5" aria-hidden /> Measure next
        </Button>
      }
    >
      <Wanted />
    </Popover>
  )
}

/** Worked out while it is looked at. */
function Wanted() {
  const { content, part, shelf } = useBench()
  const requests = useMemo(
    () => content.candidates.flatMap((candidate) => requestFor(candidate, content, part, shelf) ?? []),
    [content, part, shelf],
  )
  const { found, share } = useDoubts(requests, content.purpose)
  const wanted = whatToMeasure(found.filter((one) => one !== undefined)).filter(({ removes }) => removes >= WORTH)
  return (
    <>
      <p className="mb-2 text-[12px] text-muted">By how much of the doubt in this lineup’s figures it would remove.</p>
      {share !== undefined && (
        <p role="status" className="mb-2 text-[12px] text-muted">
          Moving each constant to see what it does: {Math.round(100 * share)} %
        </p>
      )}
      <ol className="space-y-2">
        {wanted.map(({ how, label, removes }) => (
          <li key={how}>
            <div className="flex items-baseline justify-between gap-4">
              <span>{how}</span>
              <span className="figure text-muted">{Math.round(100 * removes)} %</span>
            </div>
            <div className="text-[11.5px] text-muted">{label}</div>
            <div aria-hidden className="mt-0.5 h-[2px] bg-lantern" style={{ width: `${Math.min(100, 300 * removes)}%` }} />
          </li>
        ))}
      </ol>
    </>
  )
}
