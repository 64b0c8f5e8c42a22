import type { PrintLine } from '@sable/contract/prints'
import { formatDuration } from '@sable/core/units/format'
import { useEffect, useState } from 'react'
import { Button } from '../ui/Button'
import { clockOf } from '../ui/dates'

const TICK_MS = 1000

/** A print that runs: how far the clock is against what was foretold. One that nobody ended in time is asked about. */
export function Running({ line: { startedAt, endedAt, clockS, timeS, timeRange }, onEnd }: { line: PrintLine; onEnd: () => void }) {
  const [now, setNow] = useState(Date.now)
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), TICK_MS)
    return () => clearInterval(timer)
  }, [])
  if (startedAt === undefined) return null
  if (endedAt !== undefined)
    return (
      <section aria-label="Running" className="mt-3 space-y-2 text-[12.5px]">
        <p>
          The machine has come to its end
          {clockS === undefined ? (
            ''
          ) : (
            <>
              {' '}
              after <span className="figure">{formatDuration(clockS)}</span> of its own clock
            </>
          )}
          . Let it cool before you take the print off.
        </p>
        <Button tone="main" onClick={onEnd}>
          Say what came out
        </Button>
      </section>
    )
  const since = Math.max(0, (now - Date.parse(startedAt)) / 1000)
  const [low, high] = timeRange
  const whole = Math.max(high * 1.1, Math.min(since, 1.5 * high))
  const share = (seconds: number): string => `${Math.min(100, (100 * seconds) / whole)}%`
  const clock = (seconds: number): string => clockOf(new Date(Date.parse(startedAt) + seconds * 1000))
  return (
    <section aria-label="Running" className="mt-3 space-y-2">
      <div className="relative h-4 rounded bg-sunk">
        <div className="absolute inset-y-0 left-0 rounded-l bg-lantern/70" style={{ width: share(since) }} />
        <div
          className="absolute inset-y-0 border-x border-strong bg-strong/30"
          style={{ left: share(low), width: `calc(${share(high)} - ${share(low)})` }}
        />
      </div>
      <p className="figure text-[12.5px]">
        {formatDuration(since)} of {formatDuration(timeS)}; ends between {clock(low)} and {clock(high)}, four times in five.
      </p>
      {since > high && (
        <p role="alert" className="border-l-2 border-lantern pl-2 text-[12.5px]">
          It should have ended by {clock(high)}. What became of it? If the power went, say at which height it stands.
        </p>
      )}
      <Button tone="main" onClick={onEnd}>
        It ended
      </Button>
    </section>
  )
}
