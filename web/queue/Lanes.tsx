import type { PlannedItem, QueuePlan } from '@sable/core/queue/plan'
import type { Queue, Window } from '@sable/core/queue/queue'
import { scaleTime } from 'd3-scale'
import { useId } from 'react'
import { clockOf, shortDayOf } from '../ui/dates'
import { useSize } from '../ui/useSize'
import { Bar } from './Bar'
import { plateWith } from './plateWith'
import { CLOCK, LANE, NAMES, type Sight, THICK } from './sight'

export interface Lane {
  readonly key: string
  readonly name: string
  /** What runs there now, with the minutes that are left of it. */
  readonly running?: { readonly name: string; readonly minutes: number } | undefined
}

/** Where a bar is to be: on another printer, at another moment, minutes from now; absent where that stays. */
export interface Target {
  readonly printer?: string
  readonly startsAt?: number
}

interface Props {
  readonly label: string
  readonly plan: QueuePlan
  readonly lanes: readonly Lane[]
  readonly now: Date
  readonly hours: number
  readonly queue: Pick<Queue, 'presence' | 'quiet'>
  readonly nameOf: (item: PlannedItem, withCopy: boolean) => string
  readonly spoolName: (key: string) => string
  readonly picked?: string | undefined
  /** Absent where the plan is only looked at. */
  readonly onPick?: (item: PlannedItem) => void
  readonly onMove?: (item: PlannedItem, to: Target) => void
}

export const keyOfItem = ({ of, copy }: PlannedItem): string => `${of} ${copy}`

/** Hours outside of those in which somebody is there. */
const gapsOf = (presence: readonly Window[]): Window[] =>
  presence.reduce<Window[]>(
    (gaps, { from, to }) => [...gaps.slice(0, -1), { ...gaps.at(-1)!, to: from }, { from: to, to: Number.POSITIVE_INFINITY }],
    [{ from: 0, to: Number.POSITIVE_INFINITY }],
  )

/** Printers as lanes over a clock: prints as bars whose ends fade with their doubt, hours in which nobody is there and quiet ones shaded, what somebody does marked before each bar. */
export function Lanes({ label, plan, lanes, now, hours, queue, nameOf, spoolName, picked, onPick, onMove }: Props) {
  const { ref, width } = useSize()
  const id = useId()
  const room = Math.max(200, width - NAMES)
  const height = CLOCK + lanes.length * LANE
  const momentAt = (minute: number): string => new Date(now.getTime() + 60_000 * minute).toISOString()
  const scale = scaleTime([now, new Date(now.getTime() + 3_600_000 * hours)], [NAMES, NAMES + room])
  const right = NAMES + room
  const x = (minute: number): number => scale(new Date(now.getTime() + 60_000 * minute))
  const sight: Sight = { x, right, perMinute: room / (60 * hours), momentAt, doubtId: `${id}doubt` }
  const yOf = (lane: number): number => CLOCK + lane * LANE
  const format = (tick: Date): string => (tick.getHours() + tick.getMinutes() === 0 ? shortDayOf(tick) : clockOf(tick))
  const shades = [
    ...(queue.presence ? gapsOf(queue.presence) : []).map((gap) => ({ ...gap, fill: 'nobody' })),
    ...(queue.quiet ?? []).map((gap) => ({ ...gap, fill: 'quiet' })),
  ]
  return (
    <div ref={ref} className="w-full overflow-hidden">
      {width > 0 && (
        // biome-ignore lint/a11y/useSemanticElements: there is no fieldset in a drawing.
        <svg width={width} height={height} aria-label={label} role="group" className="block text-[12px] select-none">
          <Fills id={id} />
          {shades.map(({ from, to, fill }) => {
            const [left, edge] = [Math.max(NAMES, x(from)), Math.min(right, x(Math.min(to, 60 * hours)))]
            return (
              edge > left && (
                <rect key={`${fill} ${from}`} x={left} y={CLOCK} width={edge - left} height={height - CLOCK} fill={`url(#${id}${fill})`} />
              )
            )
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
                <rect
                  x={NAMES}
                  y={yOf(lane) + (LANE - THICK) / 2}
                  width={Math.max(3, Math.min(right, x(running.minutes)) - NAMES)}
                  height={THICK}
                  fill="var(--strong)"
                  rx={3}
                >
                  <title>{`${running.name} is being printed`}</title>
                </rect>
              )}
            </g>
          ))}
          {plan.items.map((item) => {
            const lane = lanes.findIndex(({ key }) => key === item.on)
            if (lane < 0 || x(item.setUpAt) >= right) return null
            const key = keyOfItem(item)
            const plate = item.isOnPlate ? [] : plateWith(item, plan)
            return (
              <Bar
                key={key}
                item={item}
                name={nameOf(item, plate.length < 2)}
                plate={plate.length > 1 ? { endsAt: plate.at(-1)!.endsAt, copies: plate.length } : undefined}
                on={lanes[lane]!.name}
                top={yOf(lane)}
                sight={sight}
                isPicked={picked === key}
                spoolName={spoolName}
                onPick={onPick && (() => onPick(item))}
                onShift={
                  onMove &&
                  (({ lanes: down, minutes }) => {
                    const to = lanes[lane + down]
                    if (to && (down !== 0 || minutes !== 0))
                      onMove(item, {
                        ...(down === 0 ? {} : { printer: to.key }),
                        ...(minutes === 0 ? {} : { startsAt: Math.max(0, item.startsAt + minutes) }),
                      })
                  })
                }
              />
            )
          })}
          <line x1={NAMES} x2={NAMES} y1={CLOCK - 8} y2={height} stroke="var(--lantern)" strokeWidth={2} />
        </svg>
      )}
    </div>
  )
}

/** Hatches of hours, and the fading of ends; one set for each drawing, for several stand on a page. */
function Fills({ id }: { id: string }) {
  return (
    <defs>
      <pattern id={`${id}nobody`} width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <rect width="6" height="6" fill="var(--sunk)" />
        <line x1="0" y1="0" x2="0" y2="6" stroke="var(--line)" strokeWidth="2" />
      </pattern>
      <pattern id={`${id}quiet`} width="8" height="8" patternUnits="userSpaceOnUse">
        <circle cx="4" cy="4" r="1.6" fill="var(--muted)" />
      </pattern>
      <linearGradient id={`${id}doubt`}>
        <stop offset="0" stopColor="var(--lantern)" stopOpacity="0.85" />
        <stop offset="1" stopColor="var(--lantern)" stopOpacity="0.08" />
      </linearGradient>
    </defs>
  )
}

/** What the signs of the lanes mean, as far as they stand there. */
export function LanesKey({ hasPresence, hasQuiet }: { hasPresence: boolean; hasQuiet: boolean }) {
  const id = useId()
  const sign = (fill: string, words: string, height = 12) => (
    <span className="flex items-center gap-1.5">
      <svg width="18" height="12" aria-hidden="true">
        <rect y={12 - height} width="18" height={height} fill={fill} />
      </svg>
      {words}
    </span>
  )
  return (
    <div className="flex flex-wrap items-center gap-x-5 gap-y-1 border-t border-line px-3 py-1.5 text-[12px] text-muted">
      <svg width="0" height="0" aria-hidden="true" className="absolute">
        <Fills id={id} />
      </svg>
      {sign('var(--ink)', 'somebody makes it ready', 4)}
      {sign(`url(#${id}doubt)`, 'it may end', 4)}
      <span className="flex items-center gap-1.5">
        <span className="text-worse">»</span> a small delay leaves it to the next day
      </span>
      {hasPresence && sign(`url(#${id}nobody)`, 'nobody is there')}
      {hasQuiet && sign(`url(#${id}quiet)`, 'quiet: nothing is printed')}
      <span>Drag a bar, or Alt with the arrows: to another printer, or along the clock.</span>
      {hasPresence && (
        <span className="w-full border-l-2 border-worse pl-2">
          Prints run on while nobody is there. Never let the first print of a profile do so; have a smoke alarm, and nothing near that
          burns.
        </span>
      )}
    </div>
  )
}
