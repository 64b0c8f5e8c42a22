import type { Search } from '@sable/contract/search'
import { formatDuration } from '@sable/core/units/format'

/** How a search stands: how far it is, how long it will take, and how much of the work it was spared. */
export function StateWords({
  search,
  secondsLeft,
  away,
  solving,
}: {
  search: Search
  secondsLeft: number | undefined
  away: boolean
  /** How many of the front are solved while that goes on. */
  solving?: { readonly done: number; readonly of: number } | undefined
}) {
  const { state, done, of, reused, computed, seconds, problem } = search
  const share = reused + computed > 0 ? Math.round((100 * reused) / (reused + computed)) : 0
  const words = {
    waiting: 'Waiting for its turn',
    running: solving ? `Solving the front, ${solving.done} of ${solving.of}; searched` : 'Searching',
    paused: 'Paused',
    done: 'Done',
    cancelled: 'Ended early',
    failed: `Failed: ${problem ?? 'for a reason it does not know'}`,
  }[state]
  return (
    <span role="status" className="flex items-center gap-2">
      {state === 'running' && <progress value={done} max={of} className="h-1.5 w-28 accent-lantern" aria-label="Variants computed" />}
      <span>
        {away ? 'The server does not answer; trying again' : words},{' '}
        <span className="figure">
          {done} of {of}
        </span>
      </span>
      <span className="text-muted">
        {state === 'running' && secondsLeft !== undefined && `${formatDuration(Math.max(1, secondsLeft))} left`}
        {state !== 'running' && seconds > 0 && `in ${formatDuration(seconds)}`}
        {reused + computed > 0 && `, ${share} % of stages reused`}
      </span>
    </span>
  )
}
