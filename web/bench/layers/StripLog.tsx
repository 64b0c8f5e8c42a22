import type { Severity } from '@sable/core/checks/check'
import type { Prediction } from '@sable/core/pipeline/predict'
import type { DrawnMoves } from '@sable/core/views/drawnMoves'
import { type KeyboardEvent, memo, type PointerEvent, type RefObject, useLayoutEffect, useMemo, useRef } from 'react'
import { useTheme } from '../../ui/theme'
import { scaleEnd, type Track, timeByGroup, timeGroups } from './tracks'

export interface Logged {
  readonly name: string
  readonly prediction: Prediction
  readonly moves: DrawnMoves | undefined
}

interface Props {
  /** One candidate, or two that share the height. */
  readonly logged: readonly Logged[]
  readonly tracks: readonly Track[]
  readonly byFeature: boolean
  readonly z: number
  /** Height of the drawing, px. */
  readonly height: number
  readonly onZ: (z: number) => void
}

const AXIS = 46
const HEAD = 34
const FOOT = 8
const GAP = 6
const WIDE = 66

/** Height upwards, a track for each thing that changes from layer to layer, as a borehole is drawn. */
export function StripLog({ logged, tracks, byFeature, z, height, onZ }: Props) {
  const svg = useRef<SVGSVGElement>(null)
  const [first] = logged
  const top = Math.max(...logged.map(({ prediction }) => prediction.tracks.z.at(-1) ?? 0), 0.1)
  const scale = (mm: number): number => height - FOOT - (mm / top) * (height - HEAD - FOOT)
  const width = AXIS + tracks.length * (WIDE + GAP) + 14
  if (!first) return null
  const zs = first.prediction.tracks.z
  const toLayer = (by: number): void => {
    const now = nearest(zs, z)
    onZ(zs[Math.max(0, Math.min(zs.length - 1, now + by))]!)
  }
  const onKeyDown = (event: KeyboardEvent): void => {
    const steps: Record<string, number> = { ArrowUp: 1, ArrowDown: -1, PageUp: 10, PageDown: -10, Home: -zs.length, End: zs.length }
    const by = steps[event.key]
    if (by === undefined) return
    event.preventDefault()
    toLayer(by)
  }
  const onPointer = (event: PointerEvent<HTMLDivElement>): void => {
    if (event.type === 'pointermove' && event.buttons !== 1) return
    if (event.type === 'pointerdown') event.currentTarget.setPointerCapture(event.pointerId)
    const y = event.clientY - event.currentTarget.getBoundingClientRect().top
    const mm = ((height - FOOT - y) / (height - HEAD - FOOT)) * top
    onZ(zs[nearest(zs, Math.max(0, Math.min(top, mm)))]!)
  }
  const layer = nearest(zs, z)
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label="Height"
      aria-orientation="vertical"
      aria-valuemin={zs[0]}
      aria-valuemax={top}
      aria-valuenow={z}
      aria-valuetext={`Layer ${layer + 1} of ${zs.length}, ${z.toFixed(2)} mm`}
      onKeyDown={onKeyDown}
      onPointerDown={onPointer}
      onPointerMove={onPointer}
      className="relative w-fit cursor-row-resize touch-none select-none"
    >
      <PaintedTracks svg={svg} width={width} height={height} of={[logged, tracks, byFeature]} />
      <svg
        ref={svg}
        width={width}
        height={height}
        className="absolute inset-0"
        role="img"
        aria-label={`Strip log of ${logged.map(({ name }) => name).join(' and ')}`}
        data-chart="strip log"
      >
        <HeightAxis top={top} scale={scale} />
        <Tracks logged={logged} tracks={tracks} byFeature={byFeature} height={height} top={top} />
        {tracks.map((track, i) => (
          <text key={track.id} x={AXIS + i * (WIDE + GAP)} y={11} className="fill-ink text-[12px]">
            <title>{track.help}</title>
            {track.label}
          </text>
        ))}
        <Marks logged={logged} scale={scale} x={width - 10} onZ={onZ} />
      </svg>
      {/* Of its own layer: moving it must not have the tracks painted anew. */}
      <div
        aria-hidden
        className="pointer-events-none absolute top-0 left-0 flex items-center will-change-transform"
        style={{ width: width - 14, height: 20, transform: `translateY(${scale(z) - 10}px)` }}
      >
        <span className="figure text-right font-semibold text-lantern-ink" style={{ width: AXIS - 8 }}>
          <span className="rounded bg-ground/90 px-0.5">{z.toFixed(z < 100 ? 2 : 1)}</span>
        </span>
        <span className="ml-1 h-[1.5px] flex-1 bg-lantern" />
      </div>
    </div>
  )
}

function HeightAxis({ top, scale }: { top: number; scale: (mm: number) => number }) {
  const step = [0.5, 1, 2, 5, 10, 20, 50, 100, 200, 500].find((mm) => top / mm <= 9) ?? 1000
  const ticks = Array.from({ length: Math.floor(top / step) + 1 }, (_, i) => i * step)
  return (
    <g aria-hidden>
      <text x={AXIS - 8} y={11} textAnchor="end" className="fill-muted text-[12px]">
        z mm
      </text>
      {ticks.map((mm) => (
        <g key={mm}>
          <line x1={AXIS - 4} x2={AXIS} y1={scale(mm)} y2={scale(mm)} className="stroke-strong" />
          <text x={AXIS - 8} y={scale(mm) + 4} textAnchor="end" className="figure fill-muted">
            {mm}
          </text>
        </g>
      ))}
    </g>
  )
}

/** The tracks themselves: drawn once, however often the height changes. */
const Tracks = memo(function Tracks({
  logged,
  tracks,
  byFeature,
  height,
  top,
}: Pick<Props, 'logged' | 'tracks' | 'byFeature' | 'height'> & { top: number }) {
  return (
    <g aria-hidden>
      {tracks.map((track, i) => (
        <g key={track.id} data-x={AXIS + i * (WIDE + GAP)} transform={`translate(${AXIS + i * (WIDE + GAP)} 0)`}>
          <OneTrack track={track} logged={logged} byFeature={byFeature && track.id === 'time'} height={height} top={top} />
        </g>
      ))}
    </g>
  )
})

function OneTrack({
  track,
  logged,
  byFeature,
  height,
  top,
}: {
  track: Track
  logged: readonly Logged[]
  byFeature: boolean
  height: number
  top: number
}) {
  const drawn = useMemo(() => {
    const all = logged.map(({ prediction, moves }) => track.of(prediction, moves))
    const end = scaleEnd(
      track,
      all.filter((values) => values !== undefined),
    )
    const x = (value: number): number => (Math.min(value, end) / end) * WIDE
    const y = (mm: number): number => height - FOOT - (mm / top) * (height - HEAD - FOOT)
    return { end, x, y, all }
  }, [track, logged, height, top])
  const { end, x, y, all } = drawn
  const [first] = logged
  return (
    <>
      <text x={WIDE} y={26} textAnchor="end" className="fill-muted figure text-[12px]">
        {Number(end.toPrecision(3))} {track.unit}
      </text>
      <g style={{ display: 'none' }} data-painted>
        <rect x={0} y={HEAD} width={WIDE} height={height - HEAD - FOOT} className="fill-sunk" />
        {logged.map(({ name, prediction }, k) => {
          const values = all[k]
          if (!values) return null
          return k === 0 ? (
            <path key={name} d={areaOf(prediction.tracks.z, values, x, y)} className={byFeature ? 'fill-none' : 'fill-better/70'} />
          ) : (
            <path key={name} d={outlineOf(prediction.tracks.z, values, x, y)} className="fill-none stroke-worse" strokeWidth={1.25} />
          )
        })}
        {byFeature && first?.moves && <StackedTime logged={first} moves={first.moves} x={x} y={y} />}
        {track.line !== undefined && track.line <= end && (
          <line x1={x(track.line)} x2={x(track.line)} y1={HEAD} y2={height - FOOT} className="stroke-ink" strokeDasharray="3 3" />
        )}
      </g>
    </>
  )
}

/**
 * The tracks as a bitmap. As shapes of the page they would be painted anew wherever the mark of the height passes over them; the
 * shapes stay in the drawing unseen, where they are read from, and saved from.
 */
function PaintedTracks({
  svg,
  width,
  height,
  of,
}: {
  svg: RefObject<SVGSVGElement | null>
  width: number
  height: number
  of: readonly unknown[]
}) {
  const canvas = useRef<HTMLCanvasElement>(null)
  const theme = useTheme((state) => state.theme)
  // biome-ignore lint/correctness/useExhaustiveDependencies: what the drawing shows is what is painted, in the colours of the theme.
  useLayoutEffect(() => {
    const to = canvas.current?.getContext('2d')
    if (!to || !svg.current) return
    const fine = window.devicePixelRatio
    to.setTransform(1, 0, 0, 1, 0, 0)
    to.clearRect(0, 0, to.canvas.width, to.canvas.height)
    for (const shape of svg.current.querySelectorAll<SVGGeometryElement>('[data-painted] :is(rect, path, line)')) {
      const left = Number(shape.closest('[data-x]')?.getAttribute('data-x') ?? 0)
      to.setTransform(fine, 0, 0, fine, fine * left, 0)
      paint(to, shape, getComputedStyle(shape))
    }
  }, [svg, width, height, theme, ...of])
  return (
    <canvas
      ref={canvas}
      width={Math.round(width * window.devicePixelRatio)}
      height={Math.round(height * window.devicePixelRatio)}
      style={{ width, height }}
      aria-hidden
    />
  )
}

function paint(to: CanvasRenderingContext2D, shape: SVGGeometryElement, style: CSSStyleDeclaration): void {
  const of = (name: string): number => Number(shape.getAttribute(name) ?? 0)
  const outline =
    shape.tagName === 'rect'
      ? new Path2D(`M${of('x')} ${of('y')}h${of('width')}v${of('height')}h${-of('width')}Z`)
      : shape.tagName === 'line'
        ? new Path2D(`M${of('x1')} ${of('y1')}L${of('x2')} ${of('y2')}`)
        : new Path2D(shape.getAttribute('d') ?? '')
  if (style.fill !== 'none' && shape.tagName !== 'line') {
    to.fillStyle = style.fill
    to.globalAlpha = Number(style.fillOpacity)
    to.fill(outline)
  }
  if (style.stroke === 'none') return
  to.strokeStyle = style.stroke
  to.globalAlpha = 1
  to.lineWidth = Number.parseFloat(style.strokeWidth)
  to.setLineDash((style.strokeDasharray.match(/[\d.]+/g) ?? []).map(Number))
  to.stroke(outline)
}

function StackedTime({
  logged,
  moves,
  x,
  y,
}: {
  logged: Logged
  moves: DrawnMoves
  x: (value: number) => number
  y: (mm: number) => number
}) {
  const z = logged.prediction.tracks.z
  const groups = useMemo(() => timeByGroup(moves), [moves])
  const below = new Float64Array(z.length)
  return groups.map((seconds, g) => {
    const from = below.slice()
    for (let layer = 0; layer < z.length; layer++) below[layer]! += seconds[layer]!
    return <path key={timeGroups[g]!.id} d={areaOf(z, below, x, y, from)} fill={timeGroups[g]!.colour} />
  })
}

function Marks({
  logged,
  scale,
  x,
  onZ,
}: {
  logged: readonly Logged[]
  scale: (mm: number) => number
  x: number
  onZ: (z: number) => void
}) {
  return logged.flatMap(({ name, prediction }, k) =>
    prediction.checks
      .filter(({ atZMm }) => atZMm !== undefined)
      .map(({ id, severity, evidence, atZMm }) => (
        <g key={`${name} ${id}`} transform={`translate(${x + (k === 0 ? 0 : 4)} ${scale(atZMm!)})`} onPointerDown={() => onZ(atZMm!)}>
          <title>{`${logged.length > 1 ? `${name}: ` : ''}${evidence}`}</title>
          <path d="M-6 0 L3 -5 L3 5 Z" className={markTone[severity]} />
        </g>
      )),
  )
}

const markTone: Readonly<Record<Severity, string>> = { stop: 'fill-stop', caution: 'fill-worse', note: 'fill-muted' }

type Scale = (value: number) => number

/** A filled step for each layer; layers without a value leave a gap. */
function areaOf(z: ArrayLike<number>, values: ArrayLike<number>, x: Scale, y: Scale, from?: ArrayLike<number>): string {
  let d = ''
  for (let layer = 0; layer < values.length; layer++) {
    if (!Number.isFinite(values[layer])) continue
    const [low, high] = [y(layer === 0 ? 0 : z[layer - 1]!), y(z[layer]!)]
    const [left, right] = [x(from?.[layer] ?? 0), x(values[layer]!)]
    d += `M${left.toFixed(1)} ${low.toFixed(2)}H${right.toFixed(1)}V${high.toFixed(2)}H${left.toFixed(1)}Z`
  }
  return d
}

function outlineOf(z: ArrayLike<number>, values: ArrayLike<number>, x: Scale, y: Scale): string {
  let d = ''
  let on = false
  for (let layer = 0; layer < values.length; layer++) {
    if (!Number.isFinite(values[layer])) {
      on = false
      continue
    }
    const [low, high] = [y(layer === 0 ? 0 : z[layer - 1]!), y(z[layer]!)]
    d += `${on ? 'H' : 'M'}${x(values[layer]!).toFixed(1)}${on ? '' : ` ${low.toFixed(2)}`}V${high.toFixed(2)}`
    on = true
  }
  return d
}

function nearest(z: ArrayLike<number>, mm: number): number {
  let best = 0
  for (let i = 1; i < z.length; i++) if (Math.abs(z[i]! - mm) < Math.abs(z[best]! - mm)) best = i
  return best
}
