import type { PlannedItem } from '@sable/core/queue/plan'
import { takesOf } from '@sable/core/queue/queue'
import { type KeyboardEvent, type PointerEvent, useState } from 'react'
import { clockOf, momentOf } from '../ui/dates'
import { fitting, LANE, type Sight, THICK } from './sight'

/** Where a bar is moved to: so many lanes down, and so many minutes later. */
export interface Shift {
  readonly lanes: number
  readonly minutes: number
}

/** Minutes of one press of an arrow, and what a drag is rounded to. */
const [PRESS, ROUND] = [30, 5]
/** A pointer that went no farther has pressed, px. */
const STILL = 4

interface Props {
  readonly item: PlannedItem
  readonly name: string
  /** Where the plate ends on which it is the first of several, min, and how many these are. */
  readonly plate?: { readonly endsAt: number; readonly copies: number } | undefined
  /** What its printer is called, and how far down it stands, px. */
  readonly on: string
  readonly top: number
  readonly sight: Sight
  readonly isPicked: boolean
  /** Absent where it is only looked at. */
  readonly onPick?: (() => void) | undefined
  readonly onShift?: ((by: Shift) => void) | undefined
  readonly spoolName: (key: string) => string
}

/** A print on its lane. It is picked, dragged, and moved by keys; or it is only looked at. */
export function Bar({ onPick, onShift, ...shown }: Props) {
  const { item, name, on, sight, isPicked, spoolName } = shown
  const { perMinute, momentAt, x } = sight
  const [dragged, setDragged] = useState<{ readonly fromX: number; readonly fromY: number; readonly dx: number; readonly dy: number }>()
  const label = `${name} on ${on}, ${momentOf(momentAt(item.startsAt))} to ${momentOf(momentAt(item.endsAt))}${isLate(item) ? ', late' : ''}${mayBeLeft(item) ? ', a small delay leaves it to the next day' : ''}${item.isOnPlate ? ', on the plate of the one before' : ''}${changesOf(
    item,
  )
    .map(({ spool, from }) => `, goes on from ${spoolName(spool)} at ${clockOf(momentAt(from))}`)
    .join('')}`
  if (!onPick)
    return (
      <g>
        <title>{label}</title>
        <Shape {...shown} />
      </g>
    )
  const isDragged = dragged !== undefined && Math.max(Math.abs(dragged.dx), Math.abs(dragged.dy)) > STILL
  const rounded = (minutes: number): number => ROUND * Math.round(minutes / ROUND)
  const onKey = (event: KeyboardEvent): void => {
    const by = { ArrowDown: [1, 0], ArrowUp: [-1, 0], ArrowRight: [0, PRESS], ArrowLeft: [0, -PRESS] }[event.key]
    if (event.key === 'Enter' || event.key === ' ') onPick()
    else if (event.altKey && by) onShift?.({ lanes: by[0]!, minutes: by[1]! })
    else return
    event.preventDefault()
  }
  const drop = (event: PointerEvent): void => {
    if (!dragged) return
    setDragged(undefined)
    const [dx, dy] = [event.clientX - dragged.fromX, event.clientY - dragged.fromY]
    if (Math.max(Math.abs(dx), Math.abs(dy)) <= STILL) onPick()
    else onShift?.({ lanes: Math.round(dy / LANE), minutes: Math.abs(dx) <= STILL ? 0 : rounded(dx / perMinute) })
  }
  return (
    // biome-ignore lint/a11y/useSemanticElements: there is no button element in a drawing.
    <g
      role="button"
      tabIndex={0}
      aria-pressed={isPicked}
      aria-label={label}
      onKeyDown={onKey}
      onPointerDown={(event) => {
        if (event.button !== 0) return
        event.currentTarget.setPointerCapture(event.pointerId)
        setDragged({ fromX: event.clientX, fromY: event.clientY, dx: 0, dy: 0 })
      }}
      onPointerMove={(event) => dragged && setDragged({ ...dragged, dx: event.clientX - dragged.fromX, dy: event.clientY - dragged.fromY })}
      onPointerUp={drop}
      onPointerCancel={() => setDragged(undefined)}
      transform={isDragged ? `translate(${dragged.dx},${dragged.dy})` : undefined}
      className="cursor-grab touch-none outline-none [&:focus-visible>rect:first-of-type]:stroke-lantern-ink"
    >
      <title>{label}</title>
      <Shape {...shown} />
      {isDragged && Math.abs(dragged.dx) > STILL && (
        <text x={x(item.startsAt)} y={shown.top + 8} className="figure fill-ink font-medium">
          {clockOf(momentAt(item.startsAt + rounded(dragged.dx / perMinute)))}
        </text>
      )}
    </g>
  )
}

const isLate = ({ deadline, endsAt }: PlannedItem): boolean => deadline !== undefined && endsAt > deadline

/** In one of ten it ends later than it would if it were begun when it has just ended: it was left until somebody came again. */
const mayBeLeft = ({ startsAt, endsAt, high }: PlannedItem): boolean => high - endsAt > Math.max(endsAt - startsAt, LONG)
/** Shorter delays are none that anybody leaves it for, min. */
const LONG = 120

/** Reels from which it goes on, and when. */
const changesOf = (item: PlannedItem): { spool: string; from: number }[] =>
  takesOf(item, item.as).flatMap(({ spool, from }) => (from === undefined ? [] : [{ spool, from }]))

/** Its set-up, its sure part, an end that fades with its doubt, and where somebody changes its reel. */
function Shape({ item, name, plate, top, sight: { x, right, doubtId }, isPicked, spoolName }: Omit<Props, 'onPick' | 'onShift'>) {
  const y = top + (LANE - THICK) / 2
  const from = x(item.startsAt)
  const sure = Math.min(right, x(Math.max(item.startsAt, Math.min(item.low, item.endsAt))))
  // Where a small delay would leave it to the next day, its end is not somewhere in between: that is marked, and told.
  const isLeft = mayBeLeft(item)
  const fades = Math.min(right, x(isLeft ? item.endsAt : Math.max(item.high, item.endsAt)))
  const ready = x(item.setUpAt)
  const late = isLate(item)
  const words = plate ? `${plate.copies} × ${name}` : name
  return (
    <>
      <rect
        x={ready}
        y={y}
        width={Math.max(0, Math.max(fades, plate ? Math.min(right, x(plate.endsAt)) : 0) - ready)}
        height={THICK}
        rx={item.isOnPlate ? 0 : 3}
        // Its plate is drawn by the first, with its name.
        fill={item.isOnPlate ? 'transparent' : 'var(--raised)'}
        stroke={isPicked ? 'var(--ink)' : late ? 'var(--stop)' : 'var(--line)'}
        strokeWidth={isPicked ? 2 : 1}
        strokeDasharray={item.isOnPlate && !isPicked ? '3 2' : undefined}
      />
      <rect x={ready} y={y + THICK - 4} width={Math.max(0, from - ready)} height={4} fill="var(--ink)" />
      <rect x={from} y={y + THICK - 4} width={Math.max(1, sure - from)} height={4} fill="var(--lantern)" fillOpacity={0.85} />
      <rect x={sure} y={y + THICK - 4} width={Math.max(0, fades - sure)} height={4} fill={`url(#${doubtId})`} />
      {changesOf(item).map((change) => (
        <path key={change.spool} d={`M${x(change.from)},${y + THICK} l-5,-9 h10 z`} fill="var(--ink)">
          <title>{`goes on from ${spoolName(change.spool)}`}</title>
        </path>
      ))}
      <text x={from + 6} y={y + 18} className={late ? 'fill-stop' : 'fill-ink'}>
        {!item.isOnPlate &&
          fitting(late ? `! ${words}` : words, Math.min(right, x(plate?.endsAt ?? item.endsAt)) - from - (isLeft ? 18 : 8))}
      </text>
      {isLeft && (
        <text x={fades - 10} y={y + 18} className="fill-worse">
          »<title>a small delay leaves it to the next day</title>
        </text>
      )}
    </>
  )
}
