import { medians } from '@sable/core/constants/constants'
import { throughLadder } from '@sable/core/physics/melt/flowLimit'
import { typedNumber } from '@sable/core/units/typedNumber'
import { Plus, X } from 'lucide-react'
import { CartesianGrid, ComposedChart, Line, ResponsiveContainer, Scatter, XAxis, YAxis } from 'recharts'
import { Button, IconButton } from '../ui/Button'
import { DraftField } from '../ui/DraftField'

interface Point {
  readonly temperature: number
  readonly flow: number
}

/** Flows at which extrusion failed, by nozzle temperature, and the line that is drawn through them. */
export function LadderEditor({ points, onChange }: { points: readonly Point[]; onChange: (points: Point[]) => void }) {
  const set = (i: number, part: Partial<Point>): boolean => {
    const next = { ...points[i]!, ...part }
    const ok = next.temperature >= 100 && next.temperature <= 600 && next.flow > 0 && next.flow <= 200
    if (ok) onChange(points.with(i, next))
    return ok
  }
  const last = points.at(-1)
  return (
    <section>
      <h2 className="text-[12.5px] font-semibold text-lantern-ink">Flow ladder</h2>
      <p className="text-[12px] text-muted">
        Flows at which it was seen to fail, by nozzle temperature. They take the place of the assumed limit: 85 % of the line through them
        is what a column asks at most.
      </p>
      <div className="mt-2 flex flex-wrap items-start gap-6">
        <div className="space-y-2">
          {points.map((point, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: points have no identity but their order, and keep their fields by it.
            <div key={i} className="flex items-end gap-3">
              <DraftField
                label={i === 0 ? 'Nozzle' : ''}
                name={`Nozzle of point ${i + 1}`}
                unit="°C"
                text={String(point.temperature)}
                onCommit={(text) => set(i, { temperature: typedNumber(text) })}
              />
              <DraftField
                label={i === 0 ? 'Failed at' : ''}
                name={`Flow of point ${i + 1}`}
                unit="mm³/s"
                text={String(point.flow)}
                onCommit={(text) => set(i, { flow: typedNumber(text) })}
              />
              <IconButton label={`Remove point ${i + 1}`} onClick={() => onChange(points.toSpliced(i, 1))}>
                <X className="size-3.5" />
              </IconButton>
            </div>
          ))}
          <Button
            onClick={() => onChange([...points, { temperature: (last?.temperature ?? 200) + (last ? 10 : 0), flow: last?.flow ?? 12 }])}
          >
            <Plus className="size-3.5" aria-hidden /> Point
          </Button>
        </div>
        {points.length > 1 && <Ladder points={points} />}
      </div>
    </section>
  )
}

/** The line bends: flow grows by shares. */
const DRAWN = 12

function Ladder({ points }: { points: readonly Point[] }) {
  const temperatures = points.map(({ temperature }) => temperature)
  const [low, high] = [Math.min(...temperatures) - 5, Math.max(...temperatures) + 5]
  const line = Array.from({ length: DRAWN + 1 }, (_, i) => low + ((high - low) * i) / DRAWN).map((temperature) => ({
    temperature,
    through: throughLadder(points, temperature, medians.melt.ladderSlope),
  }))
  const axis = { stroke: 'var(--muted)', fontSize: 12, tickLine: false } as const
  return (
    <div
      role="img"
      aria-label={`Flow ladder: ${points.map(({ temperature, flow }) => `${flow} mm³/s at ${temperature} °C`).join(', ')}`}
      className="h-44 w-80"
    >
      <p aria-hidden className="text-[12px] text-muted">
        mm³/s
      </p>
      <ResponsiveContainer height="90%">
        <ComposedChart data={[...line, ...points]} margin={{ top: 6, right: 12, bottom: 4, left: 0 }}>
          <CartesianGrid stroke="var(--line)" />
          <XAxis
            dataKey="temperature"
            type="number"
            domain={[low, high]}
            ticks={[...new Set(temperatures)].sort((a, b) => a - b)}
            unit=" °C"
            {...axis}
          />
          <YAxis type="number" domain={[0, (most: number) => 5 * Math.ceil(most / 5)]} width={34} {...axis} />
          <Line dataKey="through" data={line} stroke="var(--muted)" dot={false} isAnimationActive={false} />
          <Scatter dataKey="flow" data={[...points]} fill="var(--lantern)" isAnimationActive={false} />
        </ComposedChart>
      </ResponsiveContainer>
    </div>
  )
}
