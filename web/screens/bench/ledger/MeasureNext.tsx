import type { Candidate } from '@sable/contract/lineup'
import { whatToMeasure } from '@sable/core/doubt/doubt'
import type { Purpose } from '@sable/core/physics/strength/purpose'
import { Ruler } from 'lucide-react'
import { useForecasts } from '../../../predictions/predictionStore'
import { Button } from '../../../ui/Button'
import { Popover } from '../../../ui/Popover'

/** A measurement that removes less than this share of the doubt is not worth the time. */
const WORTH = 0.01

/** What to measure next, by how much of the doubt of this lineup it would remove. */
export function MeasureNext({ candidates, purpose }: { candidates: readonly Candidate[]; purpose: Purpose }) {
  const forecasts = useForecasts()
  const predictions = candidates.flatMap(({ id }) => forecasts[id]?.prediction ?? [])
  if (predictions.length === 0) return null
  const wanted = whatToMeasure(predictions, purpose).filter(({ removes }) => removes >= WORTH)
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
      <p className="mb-2 text-[12px] text-muted">By how much of the doubt in this lineup’s figures it would remove.</p>
      <ol className="space-y-2">
        {wanted.map(({ input, label, measure, removes }) => (
          <li key={input}>
            <div className="flex items-baseline justify-between gap-4">
              <span>{measure}</span>
              <span className="figure text-muted">{Math.round(100 * removes)} %</span>
            </div>
            <div className="text-[11.5px] text-muted">{label}</div>
            <div aria-hidden className="mt-0.5 h-[2px] bg-lantern" style={{ width: `${Math.min(100, 300 * removes)}%` }} />
          </li>
        ))}
      </ol>
    </Popover>
  )
}
