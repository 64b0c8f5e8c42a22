import type { Trail } from '@sable/contract/prints'
import { formatDuration } from '@sable/core/units/format'
import { useQuery } from '@tanstack/react-query'
import { max } from 'd3-array'
import { Link } from 'react-router'
import { trailQuery } from '../api/prints'
import { dayOf } from '../ui/dates'
import { Loading } from '../ui/Loading'
import { stateNames, stateSigns } from './stateNames'

/** Changes that are told before the rest is counted. */
const TOLD = 3
const verdictWords = { better: 'better', same: 'the same', worse: 'worse' } as const

/** One part's prints as a trail, the oldest first: what was changed for each, how long it took, and what was said of it. */
export function PrintTrail({ name, nameOf }: { name: string; nameOf: (key: string) => string }) {
  const trail = useQuery(trailQuery(name))
  if (!trail.data) return <Loading what="the trail" failed={trail.failureReason} />
  const longest = max(trail.data, ({ line }) => line.actualS ?? line.timeS) ?? 1
  return (
    <section aria-label={`Trail of ${name}`} className="mt-4">
      <h2 className="mb-1 text-[14px] font-semibold">Trail of {name}</h2>
      <table className="w-full text-[12.5px]">
        <thead className="text-[12px] text-muted">
          <tr className="border-b border-line text-left">
            <th className="py-1 font-normal">print</th>
            <th className="font-normal">changed since the one before</th>
            <th className="w-52 font-normal">time</th>
            <th className="text-right font-normal">g</th>
            <th className="pl-3 text-right font-normal whitespace-nowrap">mark of 5</th>
            <th className="pl-4 font-normal">came out</th>
          </tr>
        </thead>
        <tbody>
          {trail.data.map((step, i) => (
            <Step key={step.line.id} step={step} isFirst={i === 0} longest={longest} nameOf={nameOf} />
          ))}
        </tbody>
      </table>
    </section>
  )
}

function Step({
  step: { line, changed, mark, verdict },
  isFirst,
  longest,
  nameOf,
}: {
  step: Trail[number]
  isFirst: boolean
  longest: number
  nameOf: (key: string) => string
}) {
  const seconds = line.actualS ?? line.timeS
  const { sign, tone } = stateSigns[line.state]
  return (
    <tr className="border-b border-line/60 align-baseline">
      <th className="py-1 pr-3 text-left font-normal whitespace-nowrap">
        <Link to={`/log/${line.id}`} className="underline decoration-line underline-offset-2">
          {dayOf(line.plannedAt)}
        </Link>
        <span className="ml-2 text-muted">{line.profile}</span>
      </th>
      <td className="pr-3">
        {isFirst ? (
          <span className="text-muted">where it began</span>
        ) : changed.length === 0 ? (
          <span className="text-muted">nothing</span>
        ) : (
          <>
            {changed
              .slice(0, TOLD)
              .map(({ label, was, is }) => `${label} ${nameOf(was)} → ${nameOf(is)}`)
              .join('; ')}
            {changed.length > TOLD && <span className="text-muted"> and {changed.length - TOLD} more</span>}
          </>
        )}
      </td>
      <td className="whitespace-nowrap">
        <span className="inline-block w-24 align-middle">
          <span
            className={`block h-2 rounded-sm ${line.actualS === undefined ? 'border border-strong' : 'bg-strong'}`}
            style={{ width: `${(100 * seconds) / longest}%` }}
          />
        </span>
        <span className="figure ml-2">{formatDuration(seconds)}</span>
        {line.actualS === undefined && <span className="ml-1 text-[12px] text-muted">foretold</span>}
      </td>
      <td className="figure text-right">{(line.weighedG ?? line.massG).toFixed(1)}</td>
      <td className="figure text-right">{mark === undefined ? '–' : mark.toFixed(1)}</td>
      <td className="pl-4 whitespace-nowrap">
        <span className={tone}>
          <span aria-hidden>{sign}</span> {stateNames[line.state]}
        </span>
        {verdict && <span className={verdict === 'worse' ? 'ml-2 text-worse' : 'ml-2 text-lantern-ink'}>{verdictWords[verdict]}</span>}
      </td>
    </tr>
  )
}
