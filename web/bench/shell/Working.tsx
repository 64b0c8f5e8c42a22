import { X } from 'lucide-react'
import { useEffect, useState } from 'react'
import { resumeForecast, stopForecast, useForecasts } from '../../predictions/predictionStore'
import { Button, IconButton } from '../../ui/Button'

const SHOW_AFTER_MS = 300

/** Progress of a computation that takes long enough to wonder, and how to stop it. */
export function Working({ id }: { id: string }) {
  const forecast = useForecasts((all) => all[id])
  const startedAt = forecast?.state === 'running' ? forecast.startedAt : undefined
  const [late, setLate] = useState(false)
  useEffect(() => {
    setLate(false)
    if (startedAt === undefined) return
    const timer = setTimeout(() => setLate(true), SHOW_AFTER_MS)
    return () => clearTimeout(timer)
  }, [startedAt])
  if (forecast?.state === 'stopped') {
    return (
      <Button className="h-6 px-1.5" onClick={() => resumeForecast(id)}>
        Compute
      </Button>
    )
  }
  if (forecast?.state !== 'running' || !late) return null
  const share = overall(forecast.stage, forecast.share ?? 0)
  return (
    <>
      <span
        role="status"
        data-hint={forecast.again ? 'The computation ended without a word, most likely for lack of memory. It is done again.' : undefined}
        className="figure text-[12px] text-muted"
      >
        {forecast.again ? 'once more, ' : ''}
        {forecast.stage ?? 'reading'} {Math.round(share * 100)} %
      </span>
      <IconButton label="Stop computing this column" onClick={() => stopForecast(id)}>
        <X className="size-3.5" />
      </IconButton>
      <span aria-hidden className="absolute bottom-0 left-0 h-0.5 bg-lantern transition-[width]" style={{ width: `${share * 100}%` }} />
    </>
  )
}

/** Where each stage begins and ends in the whole, by the time that they took on the demo's largest part. */
const SPANS = { layers: [0, 0.25], regions: [0.25, 0.78], toolpath: [0.78, 0.9], motion: [0.9, 1], figures: [1, 1] } as const

function overall(stage: keyof typeof SPANS | undefined, share: number): number {
  if (stage === undefined) return 0
  const [from, to] = SPANS[stage]
  return from + share * (to - from)
}
