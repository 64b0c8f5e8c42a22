import { figureOf } from '@sable/core/figures/figures'
import type { Objective } from '@sable/core/search/figures'
import { useState } from 'react'
import { shown } from './figureWords'

/** A limit as a line; dragged or moved by arrows, and taken away by Delete. */
export function LimitLine({
  axis,
  value,
  upright,
  to,
  from,
  span,
  nearEnd = false,
  onMove,
}: {
  axis: Objective
  value: number | undefined
  upright: boolean
  to: (value: number) => number
  from: (px: number) => number
  span: readonly [number, number]
  /** Where its words would leave the plot to the right of it. */
  nearEnd?: boolean
  onMove: (axis: Objective, value: number | undefined) => void
}) {
  const [held, setHeld] = useState(false)
  if (value === undefined) return null
  const at = to(value)
  const line = upright ? { x1: at, x2: at, y1: span[0], y2: span[1] } : { x1: span[0], x2: span[1], y1: at, y2: at }
  const words = `${figureOf[axis.figure].label} ${axis.better === 'less' ? 'at most' : 'at least'} ${shown(axis.figure, value)}`
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={`Limit of ${figureOf[axis.figure].label}`}
      aria-valuenow={value}
      aria-valuetext={words}
      className={upright ? 'cursor-ew-resize' : 'cursor-ns-resize'}
      onPointerDown={(event) => {
        event.stopPropagation()
        event.currentTarget.setPointerCapture(event.pointerId)
        setHeld(true)
      }}
      onPointerMove={(event) => {
        if (!held) return
        event.stopPropagation()
        const bounds = event.currentTarget.ownerSVGElement!.getBoundingClientRect()
        const px = upright ? event.clientX - bounds.left : event.clientY - bounds.top
        onMove(axis, Math.max(0, from(px)))
      }}
      onPointerUp={(event) => {
        event.stopPropagation()
        setHeld(false)
      }}
      onKeyDown={(event) => {
        const by = { ArrowRight: 4, ArrowUp: 4, ArrowLeft: -4, ArrowDown: -4 }[event.key]
        if (event.key === 'Delete' || event.key === 'Backspace') onMove(axis, undefined)
        else if (by !== undefined) onMove(axis, Math.max(0, from(at + (upright ? by : -by))))
        else return
        event.preventDefault()
      }}
    >
      <line {...line} stroke="transparent" strokeWidth={12} />
      <line {...line} className="stroke-lantern" strokeWidth={1.5} strokeDasharray="6 3" />
      <text
        x={upright ? at + (nearEnd ? -5 : 5) : span[1] - 4}
        y={upright ? span[0] + 10 : at - 5}
        textAnchor={upright && !nearEnd ? 'start' : 'end'}
        className="fill-lantern-ink stroke-ground text-[12px]"
        strokeWidth={3}
        paintOrder="stroke"
      >
        {axis.better === 'less' ? '≤' : '≥'} {shown(axis.figure, value)}
      </text>
    </g>
  )
}
