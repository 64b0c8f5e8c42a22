import { formatForce } from '@sable/core/units/format'
import { ticks } from 'd3-array'
import { CartesianGrid, ComposedChart, Line, ReferenceArea, ReferenceDot, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts'
import type { Bearing } from './bearing'

export interface Borne {
  readonly name: string
  readonly bearing: Bearing
}

export const CHART_LEFT = 48
export const CHART_RIGHT = 16

const lines = [{ stroke: 'var(--better)' }, { stroke: 'var(--worse)', strokeDasharray: '6 3' }] as const

/** The load that each section along the part would bear; the least of them is what the part bears. */
export function AlongChart({ borne, wantedN }: { borne: readonly Borne[]; wantedN: number | undefined }) {
  const [first] = borne as [Borne]
  const { from, to, low, high } = first.bearing
  const most = 3 * Math.max(...borne.map(({ bearing }) => bearing.load.loadN), wantedN ?? 0)
  const axis = { stroke: 'var(--muted)', fontSize: 12, tickLine: false } as const
  return (
    <div
      role="img"
      aria-label={borne
        .map(
          ({ name, bearing }) =>
            `${name} bears ${formatForce(bearing.load.loadN)}, least ${(bearing.load.weakestAtMm - bearing.from).toFixed(1)} mm along it`,
        )
        .join('; ')}
      data-chart="load along the part"
      className="h-full min-h-0"
    >
      <ResponsiveContainer>
        <ComposedChart margin={{ top: 6, right: CHART_RIGHT, bottom: 0, left: 0 }}>
          <CartesianGrid stroke="var(--line)" />
          <XAxis dataKey="mm" type="number" domain={[0, to - from]} ticks={ticks(0, to - from, 8)} unit=" mm" {...axis} />
          <YAxis
            type="number"
            domain={[0, most]}
            ticks={ticks(0, most, 5)}
            allowDataOverflow
            width={CHART_LEFT}
            tickFormatter={(n: number) => `${n.toFixed(0)} N`}
            {...axis}
          />
          <ReferenceArea x1={0} x2={low - from} fill="var(--strong)" fillOpacity={0.35} />
          <ReferenceArea x1={high - from} x2={to - from} fill="var(--strong)" fillOpacity={0.35} />
          {borne.map(({ name, bearing }, i) => (
            <Line
              key={name}
              data={pointsOf(bearing, most)}
              dataKey="newtons"
              name={name}
              {...lines[i % lines.length]}
              strokeWidth={1.75}
              dot={false}
              isAnimationActive={false}
            />
          ))}
          {wantedN !== undefined && (
            <ReferenceLine
              y={wantedN}
              stroke="var(--ink)"
              strokeDasharray="3 3"
              label={{ value: `wanted ${wantedN} N`, position: 'insideTopRight', fontSize: 12, fill: 'var(--ink)' }}
            />
          )}
          {borne.map(({ name, bearing }, i) => (
            <ReferenceDot
              key={name}
              x={bearing.load.weakestAtMm - bearing.from}
              y={bearing.load.loadN}
              r={4}
              fill={lines[i % lines.length]!.stroke}
              stroke="var(--ground)"
            />
          ))}
        </ComposedChart>
      </ResponsiveContainer>
    </div>
  )
}

/** Sections that bear far more than the weakest would squeeze it into the foot of the chart: they are cut off above it. */
function pointsOf({ sections, load, from }: Bearing, most: number): { mm: number; newtons: number | null }[] {
  return Array.from(sections.atMm, (at, i) => {
    const newtons = sections.loadN[load.kind][i]!
    return { mm: at - from, newtons: Number.isFinite(newtons) ? Math.min(newtons, 1.5 * most) : null }
  })
}
