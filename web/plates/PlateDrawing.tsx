import { extentOf, gapBetween, placedFootprint } from '@sable/core/plate/footprint'
import type { Standing } from '@sable/core/plate/platePart'
import { LEAST_GAP } from '@sable/core/plate/turns'
import type { Printer } from '@sable/core/shelf/printer'
import { type KeyboardEvent, type PointerEvent, useRef, useState } from 'react'
import type { DrawnPart } from '../predictions/worker/plating'
import { useSize } from '../ui/useSize'
import type { Item } from './usePlateColumns'

/** Empty room round the bed, px. */
const MARGIN = 28
/** What is dragged less far than this was a click, px. */
const CLICK = 4
/** Lines of the grid stand so far apart, mm. */
const GRID = 50

const steps: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
}
/** One press of [ or ] turns by this, °. */
const TURN = 15

interface Props {
  readonly items: readonly Item[]
  readonly drawn: ReadonlyMap<string, DrawnPart>
  readonly printer: Printer
  /** In which turn each is begun, where they are printed one after another. */
  readonly turnOf: (index: number) => number | undefined
  readonly chosen: string | undefined
  readonly onChoose: (id: string) => void
  readonly onMove: (id: string, to: Standing) => void
  readonly onRemove: (id: string) => void
}

interface Drag {
  readonly id: string
  readonly fromX: number
  readonly fromY: number
  readonly at: Standing
  readonly isClick: boolean
}

/** The bed from above with the parts on it: dragged, moved and turned by keys. */
export function PlateDrawing({ items, drawn, printer, turnOf, chosen, onChoose, onMove, onRemove }: Props) {
  const { ref, width, height } = useSize()
  const svg = useRef<SVGSVGElement>(null)
  const [drag, setDrag] = useState<Drag>()
  const [bedWidth, bedDepth] = printer.buildVolume
  const scale = Math.max(0.1, Math.min((width - 2 * MARGIN) / bedWidth, (height - 2 * MARGIN) / bedDepth))
  const toX = (x: number): number => width / 2 + x * scale
  const toY = (y: number): number => height / 2 - y * scale
  const points = (xy: readonly number[]): string =>
    Array.from({ length: xy.length / 2 }, (_, i) => `${toX(xy[2 * i]!)},${toY(xy[2 * i + 1]!)}`).join(' ')
  const stood = items.flatMap((item, index) => {
    const part = drawn.get(item.key)
    if (!part) return []
    const at: Standing = drag?.id === item.id ? drag.at : item
    return [{ item, index, part, at, footprint: placedFootprint(part.footprint, at) }]
  })
  const isOff = (footprint: readonly number[]): boolean => {
    const { minX, maxX, minY, maxY } = extentOf(footprint)
    return minX < -bedWidth / 2 || maxX > bedWidth / 2 || minY < -bedDepth / 2 || maxY > bedDepth / 2
  }
  const clashes = new Set(
    stood.flatMap(({ item, footprint }, i) => [
      ...(isOff(footprint) ? [item.id] : []),
      ...stood.slice(i + 1).flatMap((other) => (gapBetween(footprint, other.footprint) < LEAST_GAP ? [item.id, other.item.id] : [])),
    ]),
  )
  const begin = (event: PointerEvent, { id, x, y, turn }: Item): void => {
    if (event.button !== 0) return
    svg.current!.setPointerCapture(event.pointerId)
    onChoose(id)
    setDrag({ id, fromX: event.clientX, fromY: event.clientY, at: { x, y, turn }, isClick: true })
  }
  const go = (event: PointerEvent): void => {
    const item = items.find(({ id }) => id === drag?.id)
    if (!drag || !item) return
    const [dx, dy] = [event.clientX - drag.fromX, event.clientY - drag.fromY]
    const isClick = drag.isClick && Math.hypot(dx, dy) < CLICK
    setDrag({ ...drag, isClick, at: { x: Math.round(item.x + dx / scale), y: Math.round(item.y - dy / scale), turn: item.turn } })
  }
  const end = (): void => {
    if (drag && !drag.isClick) onMove(drag.id, drag.at)
    setDrag(undefined)
  }
  const onKeyDown = (event: KeyboardEvent, { id, x, y, turn }: Item): void => {
    const step = steps[event.key]
    const far = event.shiftKey ? 10 : 1
    if (step) onMove(id, { x: x + far * step[0], y: y + far * step[1], turn })
    else if (event.key === '[' || event.key === ']') onMove(id, { x, y, turn: turnedBy(turn, event.key === '[' ? TURN : -TURN) })
    else if (event.key === 'Delete' || event.key === 'Backspace') onRemove(id)
    else return
    event.preventDefault()
  }
  return (
    <div ref={ref} className="relative min-h-0 min-w-0 flex-1 overflow-hidden">
      {/* biome-ignore lint/a11y/useSemanticElements: it is no set of fields, but its parts are pressed and moved. */}
      <svg
        ref={svg}
        role="group"
        aria-label={`Bed of ${printer.name} from above`}
        className="size-full"
        onPointerMove={go}
        onPointerUp={end}
        onPointerCancel={() => setDrag(undefined)}
      >
        <rect
          x={toX(-bedWidth / 2)}
          y={toY(bedDepth / 2)}
          width={bedWidth * scale}
          height={bedDepth * scale}
          rx={4}
          className="fill-sunk stroke-strong"
        />
        {linesAcross(bedWidth).map((x) => (
          <line key={`x ${x}`} x1={toX(x)} x2={toX(x)} y1={toY(-bedDepth / 2)} y2={toY(bedDepth / 2)} className="stroke-line" />
        ))}
        {linesAcross(bedDepth).map((y) => (
          <line key={`y ${y}`} y1={toY(y)} y2={toY(y)} x1={toX(-bedWidth / 2)} x2={toX(bedWidth / 2)} className="stroke-line" />
        ))}
        <text x={toX(-bedWidth / 2)} y={toY(-bedDepth / 2) + 18} className="fill-muted text-[12px]">
          front · {bedWidth} × {bedDepth} mm
        </text>
        {stood.map(({ item, part, at, footprint }) => {
          const isClash = clashes.has(item.id)
          const isChosen = item.id === chosen
          return (
            // biome-ignore lint/a11y/useSemanticElements: no button has the shape of a part.
            <g
              key={item.id}
              role="button"
              tabIndex={0}
              aria-pressed={isChosen}
              aria-label={`${item.column.name}${isClash ? ', stands where it cannot be printed' : ''}: arrows move it by 1 mm, with shift by 10; square brackets turn it; delete takes it off`}
              className="cursor-move outline-none [&:focus-visible>polygon]:stroke-ink"
              onFocus={() => onChoose(item.id)}
              onKeyDown={(event) => onKeyDown(event, item)}
              onPointerDown={(event) => begin(event, item)}
            >
              <polygon
                points={points(footprint)}
                className={isClash ? 'fill-stop/15 stroke-stop' : isChosen ? 'fill-lantern/10 stroke-lantern' : 'fill-raised stroke-strong'}
                strokeWidth={isChosen || isClash ? 2 : 1}
              />
              {part.foot.map((line, i) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: lines have no names, and keep their order.
                <polyline key={i} points={points(placedFootprint(line, at))} className="fill-none stroke-ink" strokeWidth={1.25} />
              ))}
            </g>
          )
        })}
        {stood.map(({ item, index, footprint }) => {
          const { minX, maxY } = extentOf(footprint)
          const turn = turnOf(index)
          return (
            <text
              key={item.id}
              x={toX(minX) + 2}
              y={toY(maxY) - 5}
              className="pointer-events-none fill-ink stroke-ground text-[12px]"
              strokeWidth={3}
              paintOrder="stroke"
            >
              {turn === undefined ? '' : `${turn}. `}
              {item.column.name}
            </text>
          )
        })}
      </svg>
      {items.length === 0 && (
        <p className="absolute inset-0 m-auto h-12 max-w-sm text-center text-muted">
          Nothing is on the plate yet. Add columns of lineups; they are put where there is room.
        </p>
      )}
    </div>
  )
}

/** A turn stays within half a turn to either side. */
export const turnedBy = (turn: number, by: number): number => {
  const next = (((turn + by) % 360) + 360) % 360
  return next > 180 ? next - 360 : next
}

/** Lines of the grid across a bed, from its middle out, mm. */
const linesAcross = (size: number): number[] => {
  const most = Math.floor((size / 2 - 1e-6) / GRID)
  return Array.from({ length: 2 * most + 1 }, (_, i) => (i - most) * GRID)
}
