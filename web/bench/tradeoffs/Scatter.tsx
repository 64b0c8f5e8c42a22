import { figureOf } from '@sable/core/figures/figures'
import type { FigureId } from '@sable/core/figures/table/figure'
import { type FigureLimit, meets, type Objective } from '@sable/core/search/figures'
import { ticks as roundTicks } from 'd3-array'
import { memo, type PointerEvent, useMemo, useRef, useState } from 'react'
import { scaleColour } from '../../charts/palettes'
import { plainOf } from './figureWords'
import { LimitLine } from './LimitLine'
import { type Box, beatenBy, extentOf, frontAlong, isKnown, limitOn, type Named, nearestPoint, type Point } from './plot'

/** A candidate of the ledger, for comparison. */
export interface Mark {
  readonly name: string
  readonly figures: Readonly<Record<FigureId, number>>
}

export interface Shades {
  readonly figure: FigureId
  readonly low: number
  readonly high: number
}

interface Props {
  readonly width: number
  readonly height: number
  readonly points: readonly Point[]
  readonly x: Objective
  readonly y: Objective
  readonly colour: Shades
  /** What the size of points tells; all are alike without. */
  readonly size: Shades | undefined
  readonly limits: readonly FigureLimit[]
  readonly marks: readonly Mark[]
  readonly named: readonly Named[]
  readonly picked: Point | undefined
  readonly brush: Box | undefined
  readonly onPick: (point: Point | undefined) => void
  readonly onHover: (point: Point | undefined, at: readonly [number, number]) => void
  readonly onBrush: (box: Box | undefined) => void
  readonly onLimit: (axis: Objective, value: number | undefined) => void
}

const LEFT = 58
const BOTTOM = 40
const TOP = 12
const RIGHT = 18

/** Variants as points over two figures: the front, what it beats, and limits that can be dragged. */
export function Scatter(props: Props) {
  const { width, height, points, x, y, colour, size, limits, marks, named, picked, brush, onPick, onHover, onBrush, onLimit } = props
  const frame = useRef<SVGSVGElement>(null)
  const [drag, setDrag] = useState<readonly [number, number]>()
  const scales = useMemo(() => {
    const of = (figure: FigureId) => [...points, ...marks].map(({ figures }) => figures[figure])
    const [lowX, highX] = extentOf([...of(x.figure), ...around(limits, x.figure)])
    const [lowY, highY] = extentOf([...of(y.figure), ...around(limits, y.figure)])
    const [w, h] = [width - LEFT - RIGHT, height - TOP - BOTTOM]
    return {
      x: [lowX, highX] as const,
      y: [lowY, highY] as const,
      toX: (value: number) => LEFT + ((value - lowX) / (highX - lowX)) * w,
      toY: (value: number) => TOP + h - ((value - lowY) / (highY - lowY)) * h,
      fromX: (px: number) => lowX + ((px - LEFT) / w) * (highX - lowX),
      fromY: (py: number) => lowY + ((TOP + h - py) / h) * (highY - lowY),
    }
  }, [points, marks, x.figure, y.figure, limits, width, height])
  const { toX, toY, fromX, fromY } = scales
  const at = (point: Point): [number, number] => [toX(point.figures[x.figure]), toY(point.figures[y.figure])]
  const front = useMemo(
    () =>
      frontAlong(
        points.filter(({ figures }) => meets(figures, limits)),
        x,
        y,
      ),
    [points, limits, x, y],
  )
  const beaten = beatenBy(front, x, y, scales.x, scales.y)

  const place = (event: PointerEvent): [number, number] => {
    const bounds = frame.current!.getBoundingClientRect()
    return [event.clientX - bounds.left, event.clientY - bounds.top]
  }
  const boxTo = ([px, py]: readonly [number, number], [qx, qy]: readonly [number, number]): Box => ({
    x: x.figure,
    y: y.figure,
    low: [fromX(Math.min(px, qx)), fromY(Math.max(py, qy))],
    high: [fromX(Math.max(px, qx)), fromY(Math.min(py, qy))],
  })
  return (
    // biome-ignore lint/a11y/useSemanticElements: a drawing is no fieldset; a picture could not hold the limits that are moved in it.
    <svg
      ref={frame}
      width={width}
      height={height}
      role="group"
      aria-label={`${points.length} variants by ${figureOf[x.figure].label} and ${figureOf[y.figure].label}; ${front.length} of them are on the front`}
      data-chart="trade-offs"
      className="touch-none select-none"
      onPointerDown={(event) => {
        if (event.button !== 0) return
        event.currentTarget.setPointerCapture(event.pointerId)
        setDrag(place(event))
      }}
      onPointerMove={(event) => {
        const here = place(event)
        if (!drag) return onHover(nearestPoint(points, at, here), here)
        if (Math.hypot(here[0] - drag[0], here[1] - drag[1]) > 5) onBrush(boxTo(drag, here))
      }}
      onPointerUp={(event) => {
        const here = place(event)
        if (drag && Math.hypot(here[0] - drag[0], here[1] - drag[1]) <= 5) {
          onPick(nearestPoint(points, at, here))
          onBrush(undefined)
        }
        setDrag(undefined)
      }}
      onPointerLeave={() => onHover(undefined, [0, 0])}
    >
      <Axes x={x.figure} y={y.figure} scales={scales} width={width} height={height} />
      {beaten.length > 2 && (
        <path d={`M${beaten.map(([bx, by]) => `${toX(bx).toFixed(1)} ${toY(by).toFixed(1)}`).join('L')}Z`} className="fill-strong/25" />
      )}
      <Dots points={points} x={x.figure} y={y.figure} scales={scales} colour={colour} size={size} limits={limits} />
      {beaten.length > 2 && (
        <path
          d={`M${beaten
            .slice(1, -1)
            .map(([bx, by]) => `${toX(bx).toFixed(1)} ${toY(by).toFixed(1)}`)
            .join('L')}`}
          className="fill-none stroke-ink"
          strokeWidth={1.25}
        />
      )}
      {marks.map(({ name, figures }) => (
        <g key={name} transform={`translate(${toX(figures[x.figure])} ${toY(figures[y.figure])})`}>
          <path d="M0 -6L6 0L0 6L-6 0Z" className="fill-ground stroke-ink" strokeWidth={1.5} />
          <text x={9} y={4} className="fill-ink stroke-ground text-[12px]" strokeWidth={3} paintOrder="stroke">
            {name}
          </text>
        </g>
      ))}
      {named.map(({ id, label, point }) => {
        const [px, py] = at(point)
        return (
          <circle key={id} cx={px} cy={py} r={7} className="fill-none stroke-lantern" strokeWidth={2}>
            <title>{label}</title>
          </circle>
        )
      })}
      {picked && (
        <circle
          cx={at(picked)[0]}
          cy={at(picked)[1]}
          r={10}
          className="fill-none stroke-lantern-ink"
          strokeWidth={1.5}
          strokeDasharray="3 2"
        />
      )}
      {brush && brush.x === x.figure && brush.y === y.figure && (
        <rect
          x={toX(brush.low[0])}
          y={toY(brush.high[1])}
          width={Math.max(0, toX(brush.high[0]) - toX(brush.low[0]))}
          height={Math.max(0, toY(brush.low[1]) - toY(brush.high[1]))}
          className="fill-lantern/10 stroke-lantern"
          strokeDasharray="4 3"
        />
      )}
      <LimitLine
        axis={x}
        value={limitOn(limits, x.figure)}
        upright
        to={toX}
        from={fromX}
        span={[TOP, height - BOTTOM]}
        nearEnd={toX(limitOn(limits, x.figure) ?? 0) > width - 150}
        onMove={onLimit}
      />
      <LimitLine
        axis={y}
        value={limitOn(limits, y.figure)}
        upright={false}
        to={toY}
        from={fromY}
        span={[LEFT, width - RIGHT]}
        onMove={onLimit}
      />
    </svg>
  )
}

/** A limit must be in sight to be dragged. */
const around = (limits: readonly FigureLimit[], figure: FigureId): number[] => {
  const limit = limitOn(limits, figure)
  return limit === undefined ? [] : [limit]
}

interface Scales {
  readonly x: readonly [number, number]
  readonly y: readonly [number, number]
  readonly toX: (value: number) => number
  readonly toY: (value: number) => number
}

function Axes({ x, y, scales, width, height }: { x: FigureId; y: FigureId; scales: Scales; width: number; height: number }) {
  const ticks = (figure: FigureId, [low, high]: readonly [number, number], wanted: number) =>
    roundTicks(low / figureOf[figure].plain.per, high / figureOf[figure].plain.per, wanted).map((value) => ({
      value: value * figureOf[figure].plain.per,
      text: String(Number(value.toPrecision(6))),
    }))
  const name = (figure: FigureId): string => {
    const { label } = figureOf[figure]
    const { unit } = plainOf(figure)
    return unit === '' ? label : `${label}, ${unit}`
  }
  return (
    <g aria-hidden className="text-[12px]">
      {ticks(x, scales.x, Math.max(3, width / 110)).map(({ value, text }) => (
        <g key={text}>
          <line x1={scales.toX(value)} x2={scales.toX(value)} y1={TOP} y2={height - BOTTOM} className="stroke-line" />
          <text x={scales.toX(value)} y={height - BOTTOM + 15} textAnchor="middle" className="figure fill-muted">
            {text}
          </text>
        </g>
      ))}
      {ticks(y, scales.y, Math.max(3, height / 70)).map(({ value, text }) => (
        <g key={text}>
          <line x1={LEFT} x2={width - RIGHT} y1={scales.toY(value)} y2={scales.toY(value)} className="stroke-line" />
          <text x={LEFT - 8} y={scales.toY(value) + 4} textAnchor="end" className="figure fill-muted">
            {text}
          </text>
        </g>
      ))}
      <text x={(LEFT + width - RIGHT) / 2} y={height - 6} textAnchor="middle" className="fill-muted">
        {name(x)}
      </text>
      <text transform={`translate(13 ${(TOP + height - BOTTOM) / 2}) rotate(-90)`} textAnchor="middle" className="fill-muted">
        {name(y)}
      </text>
    </g>
  )
}

const SHADES = 12
const SIZES = [2.5, 3.5, 4.5, 6, 7.5]

/** All points of a shade and size are one path: thousands of them are drawn at once. */
const Dots = memo(function Dots({
  points,
  x,
  y,
  scales,
  colour,
  size,
  limits,
}: {
  points: readonly Point[]
  x: FigureId
  y: FigureId
  scales: Scales
  colour: Shades
  size: Shades | undefined
  limits: readonly FigureLimit[]
}) {
  const paths = new Map<string, { d: string; fill: string | undefined; r: number }>()
  for (const { figures } of points.filter(isKnown(x, y))) {
    const good = meets(figures, limits)
    const shade = stepOf(figures[colour.figure], colour, SHADES)
    const r = size ? SIZES[stepOf(figures[size.figure], size, SIZES.length)]! : 4
    const key = `${good ? shade : 'not'} ${r}`
    const own = paths.get(key) ?? { d: '', fill: good ? `rgb(${scaleColour('viridis', shade / (SHADES - 1)).join(' ')})` : undefined, r }
    own.d += circle(scales.toX(figures[x]), scales.toY(figures[y]), good ? r : r - 1)
    paths.set(key, own)
  }
  const sorted = [...paths].sort((a, b) => Number(a[1].fill !== undefined) - Number(b[1].fill !== undefined))
  return (
    <g aria-hidden>
      {sorted.map(([key, { d, fill }]) =>
        fill === undefined ? (
          <path key={key} d={d} className="fill-none stroke-strong" />
        ) : (
          <path key={key} d={d} fill={fill} className="stroke-ground" strokeWidth={0.75} />
        ),
      )}
    </g>
  )
})

const circle = (cx: number, cy: number, r: number): string =>
  `M${(cx - r).toFixed(1)} ${cy.toFixed(1)}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0Z`

const stepOf = (value: number, { low, high }: Shades, steps: number): number =>
  Math.max(0, Math.min(steps - 1, Math.floor(((value - low) / Math.max(1e-12, high - low)) * steps)))
