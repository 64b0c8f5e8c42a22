import type { PrintLine } from '@sable/contract/prints'
import { CartesianGrid, ComposedChart, Line, ReferenceLine, ResponsiveContainer, Scatter, Tooltip, XAxis, YAxis } from 'recharts'
import { stateNames } from './stateNames'

/** What of a print is held against what was foretold. */
export type Measure = 'time' | 'mass'

interface Point {
  readonly index: number
  readonly day: string
  readonly name: string
  /** Real over foretold, and the 80 % range, per cent off. */
  readonly off: number
  readonly low: number
  readonly high: number
}

const per = (value: number, of: number): number => 100 * (value / of - 1)

/** Prints that were timed or weighed, in their order. */
export function pointsOf(lines: readonly PrintLine[], measure: Measure): Point[] {
  return lines
    .toReversed()
    .flatMap((line) => {
      const [actual, foretold, range] =
        measure === 'time' ? [line.actualS, line.timeS, line.timeRange] : [line.weighedG, line.massG, line.massRange]
      if (actual === undefined || line.leftOut || (line.state !== 'good' && line.state !== 'usable')) return []
      return [
        {
          day: line.plannedAt.slice(0, 10),
          name: `${line.name} ${line.profile}, ${line.printer}, ${stateNames[line.state]}`,
          off: per(actual, foretold),
          low: per(range[0], foretold),
          high: per(range[1], foretold),
        },
      ]
    })
    .map((point, index) => ({ ...point, index }))
}

/** Real over foretold print by print, with the ranges that were told beforehand: how doubt shrank as prints were logged. */
export function OffChart({ points, what }: { points: readonly Point[]; what: string }) {
  const within = points.filter(({ off, low, high }) => off >= low && off <= high).length
  const reach = Math.max(10, ...points.map(({ off, low, high }) => Math.max(Math.abs(off), Math.abs(low), high)))
  const most = Math.ceil(reach / 10) * 10
  const axis = { stroke: 'var(--muted)', fontSize: 12, tickLine: false } as const
  return (
    <div role="img" aria-label={`${what}: ${within} of ${points.length} prints ended within their 80 % range`} className="h-64 min-h-0">
      <ResponsiveContainer>
        <ComposedChart data={[...points]} margin={{ top: 8, right: 16, bottom: 0, left: 0 }}>
          <CartesianGrid stroke="var(--line)" vertical={false} />
          <XAxis
            dataKey="index"
            type="number"
            domain={[-0.5, points.length - 0.5]}
            ticks={
              points.length > 12
                ? points.filter((_, i) => i % Math.ceil(points.length / 8) === 0).map(({ index }) => index)
                : points.map(({ index }) => index)
            }
            tickFormatter={(index: number) => points[index]?.day.slice(5) ?? ''}
            {...axis}
          />
          <YAxis
            type="number"
            domain={[-most, most]}
            ticks={[-most, -most / 2, 0, most / 2, most]}
            width={52}
            tickFormatter={(share: number) => `${share > 0 ? '+' : share < 0 ? '−' : ''}${Math.abs(share).toFixed(0)} %`}
            {...axis}
          />
          <ReferenceLine y={0} stroke="var(--muted)" />
          <Line
            dataKey="low"
            stroke="var(--strong)"
            strokeDasharray="4 3"
            dot={false}
            isAnimationActive={false}
            type="step"
            name="80 % range, from"
          />
          <Line dataKey="high" stroke="var(--strong)" strokeDasharray="4 3" dot={false} isAnimationActive={false} type="step" name="to" />
          <Scatter dataKey="off" fill="var(--lantern)" isAnimationActive={false} name="off by" />
          <Tooltip
            isAnimationActive={false}
            contentStyle={{ background: 'var(--raised)', border: '1px solid var(--strong)', fontSize: 12 }}
            formatter={(value: unknown) => `${Number(value).toFixed(1)} %`}
            labelFormatter={(index: unknown) => {
              const point = points[Number(index)]
              return point ? `${point.day} ${point.name}` : ''
            }}
          />
        </ComposedChart>
      </ResponsiveContainer>
    </div>
  )
}
