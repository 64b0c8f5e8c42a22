import { type MatrixCell, valueIn } from '@sable/core/matrix/matrix'
import { noPurpose, type Purpose } from '@sable/core/physics/strength/purpose'
import { definitionOf, type SettingName, type SettingValues } from '@sable/core/profile/settings'
import { resolveSettings, type Setup } from '@sable/core/setup/resolve'
import { starterMaterials, starterNozzles, starterPrinters } from '@sable/core/shelf/starter'
import { planTrial } from '@sable/core/trials/plan'
import { useEffect, useState } from 'react'
import { Line, LineChart, ReferenceDot, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts'
import { shown } from '../bench/tradeoffs/figureWords'
import { predictionPool } from '../predictions/predictionStore'
import { trialRequest } from '../trials/trialRequest'

const drawn = ['time', 'surface', 'strength'] as const
const names = { time: 'Time', surface: 'Surface Ra', strength: 'Strength' } as const
/** The block's spires and bridge are so thin that no setting moves them: it is its body that is bent, across its layers. */
const purpose: Purpose = { ...noPurpose, load: { ...noPurpose.load, axis: 'z' } }
/** Values about the usual one that are worked out. */
const shares = [0.5, 0.75, 1, 1.4, 1.9] as const

const setup: Setup = {
  printer: starterPrinters.find(({ key }) => key === 'lugger') ?? starterPrinters[0]!,
  nozzle: starterNozzles.find(({ key }) => key === 'bore-0.4') ?? starterNozzles[0]!,
  material: starterMaterials[0]!,
}

interface Point {
  readonly at: number
  readonly cell: MatrixCell
}

/** What a setting does to time, surface and strength of a small block with overhangs, a bridge and spires, worked out as one looks. */
export function LiveEffect({ name }: { name: SettingName }) {
  const setting = definitionOf(name)
  const usual = resolveSettings(setup, {}).settings[name]
  const [points, setPoints] = useState<readonly Point[]>()
  useEffect(() => {
    setPoints(undefined)
    if (setting.kind !== 'number' || typeof usual !== 'number') return
    const base = usual === 0 ? setting.min + 4 * setting.step : usual
    const values = [...new Set(shares.map((share) => asPossible(base * share, setting)))].sort((a, b) => a - b)
    const { spec } = planTrial('allRound', setup)
    const requests = values.map((value) => {
      const own = { ...spec, values: { ...spec.values, supports: 'plain', [name]: value } as SettingValues }
      return trialRequest(own, setup)
    })
    const stop = new Int32Array(new SharedArrayBuffer(4))
    const found: Point[] = []
    predictionPool()
      .figuresOfAll(requests, purpose, stop, (index, cell) => {
        found.push({ at: values[index]!, cell })
        if (Atomics.load(stop, 0) === 0) setPoints([...found].sort((a, b) => a.at - b.at))
      })
      .catch(() => {})
    return () => {
      Atomics.store(stop, 0, 1)
    }
  }, [name, setting, usual])
  if (setting.kind !== 'number') return null
  if (!points) return <p className="text-[12px] text-muted">Working out what it does to a small block …</p>
  const moving = drawn.filter((figure) => isMoved(points.map(({ cell }) => valueIn(cell, figure))))
  return (
    <figure aria-label={`What ${setting.label.toLowerCase()} does`} className="space-y-2">
      <figcaption className="text-[12px] text-muted">
        {moving.length === 0
          ? 'On the all-round block in PLA it moves neither time nor surface nor strength by itself.'
          : 'On the all-round block in PLA, all else as usual; its strength is that of its body, bent across its layers:'}
      </figcaption>
      {moving.map((figure) => (
        <div key={figure} className="grid grid-cols-[5.5rem_minmax(0,1fr)] items-center gap-2">
          <span className="text-[12px]">
            {names[figure]}
            <span className="figure block text-[12px] text-muted">{shown(figure, valueIn(points[0]!.cell, figure))}</span>
            <span className="figure block text-[12px] text-muted">{shown(figure, valueIn(points.at(-1)!.cell, figure))}</span>
          </span>
          <div className="h-[74px]">
            <ResponsiveContainer width="100%" height="100%">
              <LineChart
                data={points.map(({ at, cell }) => ({ at, value: valueIn(cell, figure) }))}
                margin={{ top: 6, right: 8, bottom: 0, left: 8 }}
              >
                <XAxis
                  dataKey="at"
                  type="number"
                  domain={['dataMin', 'dataMax']}
                  ticks={points.map(({ at }) => at)}
                  tick={{ fontSize: 12, fill: 'var(--muted)' }}
                  tickLine={false}
                  axisLine={{ stroke: 'var(--line)' }}
                  height={22}
                />
                <YAxis hide domain={[0, 'dataMax']} />
                <Tooltip
                  formatter={(value) => [shown(figure, Number(value)), names[figure]]}
                  labelFormatter={(at) => `${at} ${setting.unit}`}
                  contentStyle={{ background: 'var(--raised)', border: '1px solid var(--strong)', fontSize: 12 }}
                />
                <Line
                  dataKey="value"
                  type="linear"
                  stroke="var(--ink)"
                  strokeWidth={1.5}
                  dot={{ r: 2.5, fill: 'var(--ink)' }}
                  isAnimationActive={false}
                />
                {typeof usual === 'number' && points.some(({ at }) => at === usual) && (
                  <ReferenceDot
                    x={usual}
                    y={valueIn(points.find(({ at }) => at === usual)!.cell, figure)}
                    r={4}
                    fill="var(--lantern)"
                    stroke="none"
                  />
                )}
              </LineChart>
            </ResponsiveContainer>
          </div>
        </div>
      ))}
    </figure>
  )
}

/** By half a per cent at least. */
const isMoved = (values: readonly number[]): boolean => {
  const known = values.filter((value) => !Number.isNaN(value))
  return known.length > 1 && Math.max(...known) - Math.min(...known) > 0.005 * Math.max(...known)
}

function asPossible(value: number, { min, max, step, whole }: { min: number; max: number; step: number; whole: boolean }): number {
  const unit = whole ? 1 : Math.min(step, 0.05)
  return Number(Math.min(max, Math.max(min, Math.round(value / unit) * unit)).toFixed(4))
}
