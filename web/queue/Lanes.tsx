import type { PlannedItem, QueuePlan } from '@sable/core/queue/plan'
import type { Window } from '@sable/core/queue/queue'
import { scaleTime } from 'd3-scale'
import { type KeyboardEvent, type PointerEvent, useState } from 'react'
import { clockOf, momentOf, shortDayOf } from '../ui/dates'
import { useSize } from '../ui/useSize'

/** Of names, of a lane and of the clock above, px. */
const [NAMES, LANE, CLOCK, BAR] = [108, 56, 28, 32]

export interface Lane {
  readonly key: string
  readonly name: string
  /** What runs there now, with the minutes that are left of it. */
  readonly running?: { readonly name: string; readonly minutes: number } | undefined
}

interface Props {
  readonly plan: QueuePlan
  readonly lanes: readonly Lane[]
  readonly now: Date
  readonly hours: number
  readonly presence: readonly Window[] | undefined
  readonly nameOf: (item: PlannedItem) => string
  readonly deadlineOf: (item: PlannedItem) => number | undefined
  readonly picked: string | undefined
  readonly onPick: (item: PlannedItem) => void
  /** Holds a copy's job to another printer. */
  readonly onMove: (item: PlannedItem, to: string) => void
}

export const keyOfItem = ({ of, copy }: PlannedItem): string => `${of} ${copy}`

/** Of a letter, on average, px. */
const LETTER = 6.8
/** As much of a name as there is room for; nothing where that would tell nothing. */
function fitting(name: string, room: number): string {
  const letters = Math.floor(room / LETTER)
  return letters >= name.length ? name : letters < 4 ? '' : `${name.slice(0, letters - 1).trimEnd()}…`
}

/** Printers as lanes over a clock: prints as bars whose ends fade with their doubt, hours in which nobody is there shaded, what somebody does marked before each bar. */
export function Lanes({ plan, lanes, now, hours, presence, nameOf, deadlineOf, picked, onPick, onMove }: Props) {
  const { ref, width } = useSize()
  const [dragged, setDragged] = useState<{ readonly key: string; readonly fromY: number; readonly dy: number }>()
  const room = Math.max(200, width - NAMES)
  const height = CLOCK + lanes.length * LANE
  const end = new Date(now.getTime() + 3_600_000 * hours)
  const scale = scaleTime([now, end], [NAMES, NAMES + room])
  const x = (minute: number): number => scale(new Date(now.getTime() + 60_000 * minute))
  const right = NAMES + room
  const yOf = (lane: number): number => CLOCK + lane * LANE
  const shown = plan.items.filter(({ setUpAt }) => x(setUpAt) < right)
  const away = (presence ?? []).reduce<{ from: number; to: number }[]>(
    (gaps, { from, to }) => [...gaps.slice(0, -1), { ...gaps.at(-1)!, to: from }, { from: to, to: Number.POSITIVE_INFINITY }],
    [{ from: 0, to: Number.POSITIVE_INFINITY }],
  )
  const format = (tick: Date): string => (tick.getHours() + tick.getMinutes() === 0 ? shortDayOf(tick) : clockOf(tick))
  const move = (item: PlannedItem, by: number): void => {
    const to = lanes[lanes.findIndex(({ key }) => key === item.on) + by]
    if (to) onMove(item, to.key)
  }
  const onKey = (event: KeyboardEvent, item: PlannedItem): void => {
    if (event.key === 'Enter' || event.key === ' ') onPick(item)
    else if (event.altKey && event.key === 'ArrowDown') move(item, 1)
    else if (event.altKey && event.key === 'ArrowUp') move(item, -1)
    else return
    event.preventDefault()
  }
  const drop = (event: PointerEvent, item: PlannedItem): void => {
    const by = dragged ? Math.round((event.clientY - dragged.fromY) / LANE) : 0
    setDragged(undefined)
    if (by !== 0) move(item, by)
    else onPick(item)
  }
  return (
    <div ref={ref} className="w-full overflow-hidden">
      {width > 0 && (
        // biome-ignore lint/a11y/useSemanticElements: there is no fieldset in a drawing.
        <svg width={width} height={height} aria-label="Lanes" role="group" className="block text-[12px] select-none">
          <defs>
            <pattern id="nobody" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
              <rect width="6" height="6" fill="var(--sunk)" />
              <line x1="0" y1="0" x2="0" y2="6" stroke="var(--line)" strokeWidth="2" />
            </pattern>
            <linearGradient id="doubt">
              <stop offset="0" stopColor="var(--lantern)" stopOpacity="0.85" />
              <stop offset="1" stopColor="var(--lantern)" stopOpacity="0.08" />
            </linearGradient>
          </defs>
          {presence &&
            away.map(({ from, to }) => {
              const [left, edge] = [Math.max(NAMES, x(from)), Math.min(right, x(Math.min(to, 60 * hours)))]
              return edge > left && <rect key={from} x={left} y={CLOCK} width={edge - left} height={height - CLOCK} fill="url(#nobody)" />
            })}
          {scale.ticks(Math.max(3, Math.floor(room / 110))).map((tick) => (
            <g key={tick.getTime()} transform={`translate(${scale(tick)},0)`}>
              <line y1={CLOCK - 5} y2={height} stroke="var(--line)" />
              <text y={CLOCK - 10} textAnchor="middle" className="figure fill-muted text-[12px]">
                {format(tick)}
              </text>
            </g>
          ))}
          {lanes.map(({ key, name, running }, lane) => (
            <g key={key}>
              <line x1={0} x2={right} y1={yOf(lane)} y2={yOf(lane)} stroke="var(--line)" />
              <text x={4} y={yOf(lane) + LANE / 2 + 4} className="fill-ink font-medium">
                {name}
              </text>
              {running && (
                <g>
                  <rect
                    x={NAMES}
                    y={yOf(lane) + (LANE - BAR) / 2}
                    width={Math.max(3, Math.min(right, x(running.minutes)) - NAMES)}
                    height={BAR}
                    fill="var(--strong)"
                    rx={3}
                  />
                  <title>{`${running.name} is being printed`}</title>
                </g>
              )}
            </g>
          ))}
          {shown.map((item) => {
            const lane = lanes.findIndex(({ key }) => key === item.on)
            if (lane < 0) return null
            const key = keyOfItem(item)
            const y = yOf(lane) + (LANE - BAR) / 2 + (dragged?.key === key ? dragged.dy : 0)
            const [from, sure, fades] = [
              x(item.startsAt),
              Math.min(right, x(Math.max(item.startsAt, Math.min(item.low, item.endsAt)))),
              Math.min(right, x(Math.max(item.high, item.endsAt))),
            ]
            const ready = x(item.setUpAt)
            const deadline = deadlineOf(item)
            const isLate = deadline !== undefined && item.endsAt > deadline
            const name = nameOf(item)
            return (
              // biome-ignore lint/a11y/useSemanticElements: there is no button element in a drawing.
              <g
                key={key}
                role="button"
                tabIndex={0}
                aria-pressed={picked === key}
                aria-label={`${name} on ${lanes[lane]!.name}, ${momentOf(scale.invert(from).toISOString())} to ${momentOf(new Date(now.getTime() + 60_000 * item.endsAt).toISOString())}${isLate ? ', late' : ''}`}
                onKeyDown={(event) => onKey(event, item)}
                onPointerDown={(event) => {
                  event.currentTarget.setPointerCapture(event.pointerId)
                  setDragged({ key, fromY: event.clientY, dy: 0 })
                }}
                onPointerMove={(event) => dragged?.key === key && setDragged({ ...dragged, dy: event.clientY - dragged.fromY })}
                onPointerUp={(event) => drop(event, item)}
                className="cursor-grab outline-none [&:focus-visible>rect:first-of-type]:stroke-lantern-ink"
              >
                <rect
                  x={ready}
                  y={y}
                  width={Math.max(0, fades - ready)}
                  height={BAR}
                  rx={3}
                  fill="var(--raised)"
                  stroke={picked === key ? 'var(--ink)' : isLate ? 'var(--stop)' : 'var(--line)'}
                  strokeWidth={picked === key ? 2 : 1}
                />
                <rect x={ready} y={y + BAR - 4} width={Math.max(0, from - ready)} height={4} fill="var(--ink)" />
                <rect x={from} y={y + BAR - 4} width={Math.max(1, sure - from)} height={4} fill="var(--lantern)" fillOpacity={0.85} />
                <rect x={sure} y={y + BAR - 4} width={Math.max(0, fades - sure)} height={4} fill="url(#doubt)" />
                <text x={from + 6} y={y + 18} className={isLate ? 'fill-stop' : 'fill-ink'}>
                  {fitting(isLate ? `! ${name}` : name, fades - from - 10)}
                </text>
              </g>
            )
          })}
          <line x1={NAMES} x2={NAMES} y1={CLOCK - 8} y2={height} stroke="var(--lantern)" strokeWidth={2} />
        </svg>
      )}
    </div>
  )
}
