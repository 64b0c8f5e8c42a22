import { type KeyboardEvent, type PointerEvent, useEffect, useRef, useState, useSyncExternalStore } from 'react'
import type { FlatView } from '../../charts/FlatDrawing'
import { useSize } from '../../ui/useSize'
import { cornerSigns, drawnBox, movedBox, type PlaceBox, type Point, pointOf, stretchedBox, turnedBox } from './placeBox'
import type { Places } from './usePlaces'

/** How far beyond its side the handle that turns a box stands, px. */
const TURN_HANDLE = 22
/** What is pulled less far than this was a click, px. */
const CLICK = 4

const steps: Readonly<Record<string, Point>> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }

interface Props {
  readonly places: Places
  /** Height that is looked at, mm: boxes that do not hold there are drawn faintly. */
  readonly z: number
  /** Where each copy of the part stands, mm; boxes are pulled on the first. */
  readonly copies: readonly Point[]
  readonly view: FlatView
  /** Whether the next pull draws a new box. */
  readonly isDrawing: boolean
  /** A box was drawn, or nothing will be. */
  readonly onDrawn: (box: PlaceBox | undefined) => void
}

/** A pull of the pointer: what it makes of a box, and whose it is; of none while it is being drawn. */
interface Pull {
  readonly of: number | undefined
  readonly from: Point
  readonly make: (to: Point) => PlaceBox
  readonly now: PlaceBox
  readonly isClick: boolean
}

/** Boxes of a candidate over a layer seen from above: moved, stretched at their corners, turned; each pull is one step back. */
export function PlacesOnLayer({ places, z, copies, view, isDrawing, onDrawn }: Props) {
  const { ref, width, height } = useSize()
  const svg = useRef<SVGSVGElement>(null)
  const look = useSyncExternalStore(view.watch, () => view.now)
  const [pull, setPull] = useState<Pull>()
  const [first] = copies as [Point]
  useEffect(() => {
    if (!isDrawing && !pull) return
    const onKey = (event: globalThis.KeyboardEvent): void => {
      if (event.key !== 'Escape') return
      setPull(undefined)
      onDrawn(undefined)
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [isDrawing, pull, onDrawn])

  const toPart = ({ clientX, clientY }: PointerEvent): Point => {
    const bounds = svg.current!.getBoundingClientRect()
    return [
      look.x + (clientX - bounds.left - width / 2) / look.zoom - first[0],
      look.y - (clientY - bounds.top - height / 2) / look.zoom - first[1],
    ]
  }
  const begin = (event: PointerEvent, of: number | undefined, makeFrom: (from: Point) => (to: Point) => PlaceBox): void => {
    if (event.button !== 0) return
    event.preventDefault()
    event.stopPropagation()
    svg.current!.setPointerCapture(event.pointerId)
    const from = toPart(event)
    const make = makeFrom(from)
    setPull({ of, from, make, now: make(from), isClick: true })
  }
  const go = (event: PointerEvent): void => {
    if (!pull) return
    const to = toPart(event)
    const isClick = pull.isClick && Math.hypot(to[0] - pull.from[0], to[1] - pull.from[1]) * look.zoom < CLICK
    setPull({ ...pull, isClick, now: pull.make(to) })
  }
  const end = (): void => {
    if (!pull) return
    setPull(undefined)
    if (pull.of === undefined) onDrawn(pull.isClick ? undefined : pull.now)
    else if (!pull.isClick) places.setBox(pull.of, pull.now)
  }
  const onKeyDown = (event: KeyboardEvent, i: number, box: PlaceBox): void => {
    const step = steps[event.key]
    if (step) places.setBox(i, movedBox(box, event.shiftKey ? [step[0] / 10, step[1] / 10] : step))
    else if (event.key === 'Delete' || event.key === 'Backspace') places.remove(i)
    else return
    event.preventDefault()
    event.stopPropagation()
  }
  const onScreen = ([x, y]: Point, [dx, dy]: Point = first): Point => [
    width / 2 + (x + dx - look.x) * look.zoom,
    height / 2 - (y + dy - look.y) * look.zoom,
  ]
  const outline = (box: PlaceBox, copy?: Point): string => cornerSigns.map((signs) => onScreen(pointOf(box, signs), copy).join()).join(' ')
  const shown = places.overrides.map(({ box, ...place }, i) => ({ ...place, box: pull?.of === i ? pull.now : box, i }))
  const { chosen } = places
  return (
    <div ref={ref} className="pointer-events-none absolute inset-0">
      {/* biome-ignore lint/a11y/useSemanticElements: it is no set of fields, but its boxes are pressed and moved. */}
      <svg
        ref={svg}
        role="group"
        aria-label="Boxes of places"
        className={`size-full ${isDrawing ? 'pointer-events-auto cursor-crosshair' : ''}`}
        onPointerDown={(event) => isDrawing && begin(event, undefined, (from) => (to) => drawnBox(from, to))}
        onPointerMove={go}
        onPointerUp={end}
        onPointerCancel={() => setPull(undefined)}
      >
        {shown.map(({ box, name, fromZ, toZ, i }) => {
          if (!box) return null
          const isHere = z >= fromZ && z < (toZ ?? Infinity)
          const tone = i === chosen ? 'stroke-lantern' : 'stroke-muted'
          return (
            <g key={i} opacity={isHere ? 1 : 0.4}>
              {copies.slice(1).map((copy) => (
                <polygon key={copy.join()} points={outline(box, copy)} className={`fill-none ${tone}`} strokeDasharray="2 4" />
              ))}
              {/* biome-ignore lint/a11y/useSemanticElements: no button has the shape of a box on a bed. */}
              <polygon
                points={outline(box)}
                tabIndex={0}
                role="button"
                aria-pressed={i === chosen}
                aria-label={`${name}: arrows move it by 1 mm, with shift by 0.1 mm, delete takes it away`}
                className={`${isDrawing ? '' : 'pointer-events-auto cursor-move'} ${tone} fill-lantern/10 focus-visible:stroke-ink`}
                strokeWidth={i === chosen ? 2 : 1.25}
                strokeDasharray={isHere ? undefined : '6 4'}
                onFocus={() => places.choose(i)}
                onKeyDown={(event) => onKeyDown(event, i, box)}
                onPointerDown={(event) => {
                  places.choose(i)
                  begin(event, i, (from) => (to) => movedBox(box, [to[0] - from[0], to[1] - from[1]]))
                }}
              />
              <Name at={onScreen(pointOf(box, [-1, 1]))} name={name} />
            </g>
          )
        })}
        {shown[chosen]?.box && !isDrawing && (
          <Handles box={shown[chosen].box} onScreen={onScreen} onBegin={(event, make) => begin(event, chosen, () => make)} />
        )}
        {pull && pull.of === undefined && <polygon points={outline(pull.now)} className="fill-lantern/10 stroke-lantern" strokeWidth={2} />}
      </svg>
    </div>
  )
}

const Name = ({ at: [x, y], name }: { at: Point; name: string }) => (
  <text x={x + 4} y={y - 5} className="fill-ink stroke-ground text-[12px]" strokeWidth={3} paintOrder="stroke">
    {name}
  </text>
)

/** What a pointer stretches and turns the chosen box by; its fields do the same for keys. */
function Handles({
  box,
  onScreen,
  onBegin,
}: {
  box: PlaceBox
  onScreen: (point: Point) => Point
  onBegin: (event: PointerEvent, make: (to: Point) => PlaceBox) => void
}) {
  const [middle, side] = [onScreen(pointOf(box, [0, 0])), onScreen(pointOf(box, [0, 1]))]
  const length = Math.hypot(side[0] - middle[0], side[1] - middle[1]) || 1
  const out = (length + TURN_HANDLE) / length
  const [x, y] = [middle[0] + (side[0] - middle[0]) * out, middle[1] + (side[1] - middle[1]) * out]
  return (
    <g aria-hidden className="stroke-lantern">
      <line x1={side[0]} y1={side[1]} x2={x} y2={y} />
      <circle
        cx={x}
        cy={y}
        r={6}
        data-handle="turn"
        className="pointer-events-auto cursor-grab fill-ground"
        strokeWidth={2}
        onPointerDown={(event) => onBegin(event, (to) => turnedBox(box, to))}
      />
      {cornerSigns.map((signs) => {
        const [cx, cy] = onScreen(pointOf(box, signs))
        return (
          <rect
            key={signs.join()}
            x={cx - 5}
            y={cy - 5}
            width={10}
            height={10}
            rx={2}
            data-handle="corner"
            className="pointer-events-auto cursor-nwse-resize fill-ground"
            strokeWidth={2}
            onPointerDown={(event) => onBegin(event, (to) => stretchedBox(box, signs, to))}
          />
        )
      })}
    </g>
  )
}
