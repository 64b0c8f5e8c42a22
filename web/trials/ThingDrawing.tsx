import type { Mesh } from '@sable/core/mesh/mesh'
import { heightsOf, type TrialSpec } from '@sable/core/trials/spec/trial'
import type { TrialKind } from '@sable/core/trials/table/kind'
import clsx from 'clsx'
import { type KeyboardEvent, useId, useMemo } from 'react'
import { useSize } from '../ui/useSize'
import { elevationOf } from './elevation'
import { PaintedThing } from './PaintedThing'
import { Ruler } from './Ruler'

/** What is known of a band: how it was read. */
export interface BandMark {
  readonly text: string
  readonly tone: 'good' | 'bad' | 'between'
}

/** Room for the ruler, for the labels of bands, and around it all, px. */
const [RULER, LABELS, ROOM] = [46, 150, 14]
/** How much larger than as a whole a low thing is drawn. */
const MOST_LARGER = 3
const MOST_ZOOM = 12
/** Labels stand no closer than this, px. */
const LINE = 15

/** A thing to scale as it stands on the table, its bands beside it, and a ruler. Arrows go from band to band; digits answer. */
export function ThingDrawing({
  kind,
  spec,
  mesh,
  marks,
  measured,
  active,
  isWhole = false,
  onActive,
  onDigit,
}: {
  kind: TrialKind
  spec: TrialSpec
  mesh: Mesh
  marks: readonly (BandMark | undefined)[]
  /** Heights that were measured by ruler, mm from the bed. */
  measured: readonly number[]
  active: number
  /** All of it is in sight, however small that makes it: two of them are compared. */
  isWhole?: boolean
  onActive: (band: number) => void
  onDigit: (digit: number) => void
}) {
  const own = useId()
  const { ref, width, height } = useSize()
  const elevation = useMemo(() => elevationOf(mesh, kind.seenFrom), [mesh, kind.seenFrom])
  const {
    box: { left, right, bottom, top },
  } = elevation
  const alongX = kind.seenFrom === 'front' && kind.bandsRun === 'across'
  const labels = spec.bands.length > 0 && !alongX ? LABELS : ROOM
  const below = alongX ? 48 : 30
  const [roomX, roomY] = [width - RULER - labels - 2 * ROOM, height - below - ROOM]
  const whole = Math.min(roomX / (right - left), roomY / (top - bottom), 9)
  // A long thing with low bands is drawn larger, and broken off at its left.
  const isLow = !isWhole && kind.bandsRun === 'up' && spec.bands.length > 0 && spec.size.band * whole < LINE
  const zoom = Math.max(0.1, isLow ? Math.min(MOST_LARGER * whole, roomY / (top - bottom), Math.max(whole, MOST_ZOOM)) : whole)
  const broken = Math.max(0, (right - left) * zoom - roomX)
  const x0 = RULER + ROOM - broken + Math.max(0, (roomX - (right - left) * zoom) / 2)
  const y0 = height - below - Math.max(0, (roomY - (top - bottom) * zoom) / 2)
  const toX = (mm: number): number => x0 + (mm - left) * zoom
  const toY = (mm: number): number => y0 - (mm - bottom) * zoom
  const count = spec.bands.length
  const placeOf = (i: number): readonly [number, number] =>
    kind.bandAt?.(i, count) ?? [i === 0 ? 0 : heightsOf(spec, i).fromZ, heightsOf(spec, i).toZ]
  const onKeyDown = (event: KeyboardEvent): void => {
    const step = alongX ? { ArrowRight: 1, ArrowLeft: -1 }[event.key] : { ArrowUp: 1, ArrowDown: -1 }[event.key]
    const ends = { Home: 0, End: count - 1 }[event.key]
    if (step !== undefined) onActive(Math.max(0, Math.min(count - 1, active + step)))
    else if (ends !== undefined) onActive(ends)
    else if (/^[1-9]$/.test(event.key) && !event.ctrlKey && !event.metaKey && !event.altKey) onDigit(Number(event.key))
    else return
    event.preventDefault()
  }
  const every = Math.max(1, Math.ceil(LINE / Math.max(0.1, (placeOf(1)[1] - placeOf(1)[0]) * zoom)))
  return (
    <div ref={ref} className="relative min-h-0 flex-1 overflow-hidden">
      {width > 0 && (
        <PaintedThing elevation={elevation} width={width} height={height} toX={toX} toY={toY} from={broken > 0.5 ? RULER + ROOM : 0} />
      )}
      {width > 0 && (
        <svg width={width} height={height} className="absolute inset-0" aria-hidden="true">
          <Ruler bottom={bottom} top={top} toY={toY} x={RULER} zoom={zoom} zero={kind.seenFrom === 'front' ? 0 : bottom} />
          {measured.map((mm) => (
            <g key={mm}>
              <line x1={RULER - 10} x2={width - labels} y1={toY(mm)} y2={toY(mm)} strokeDasharray="5 3" className="stroke-lantern" />
              <text x={RULER + 18} y={toY(mm) - 4} className="figure fill-lantern-ink text-[12px]">
                {mm} mm
              </text>
            </g>
          ))}
          {kind.seenFrom === 'front' && <line x1={RULER} x2={width - ROOM} y1={toY(0)} y2={toY(0)} className="stroke-strong" />}
          {spec.bands.map(({ label }, i) => {
            const [from, to] = placeOf(i)
            const isActive = i === active
            if (alongX)
              return (
                <g key={label}>
                  {isActive && (
                    <rect
                      x={toX(from)}
                      width={(to - from) * zoom}
                      y={toY(top) - 4}
                      height={y0 - toY(top) + 8}
                      className="fill-lantern/12 stroke-lantern"
                    />
                  )}
                  <text
                    x={toX((from + to) / 2)}
                    y={y0 + 18}
                    textAnchor="middle"
                    className={clsx('figure', isActive ? 'fill-lantern-ink' : 'fill-ink')}
                  >
                    {label}
                  </text>
                  <MarkGlyph mark={marks[i]} x={toX((from + to) / 2) - 4} y={y0 + 32} bare />
                </g>
              )
            const middle = toY((from + to) / 2)
            return (
              <g key={label}>
                {isActive && (
                  <rect
                    x={RULER + 2}
                    width={width - RULER - ROOM}
                    y={toY(to)}
                    height={Math.max(2, (to - from) * zoom)}
                    className="fill-lantern/12 stroke-lantern"
                  />
                )}
                <line x1={toX(right) + 6} x2={width - labels + 8} y1={toY(to)} y2={toY(to)} className="stroke-line" />
                {(i % every === 0 || isActive) && (
                  <text
                    x={width - labels + 52}
                    y={middle + 4}
                    textAnchor="end"
                    className={clsx('figure', isActive ? 'fill-lantern-ink font-semibold' : 'fill-ink')}
                  >
                    {label}
                  </text>
                )}
                {(i % every === 0 || isActive || marks[i]) && (
                  <MarkGlyph mark={marks[i]} x={width - labels + 60} y={middle + 4} bare={every > 1 && !isActive && i % every !== 0} />
                )}
              </g>
            )
          })}
          {spec.bands.length > 0 && !alongX && kind.varied && (
            <text x={width - labels + 52} y={toY(placeOf(count - 1)[1]) - 8} textAnchor="end" className="fill-muted text-[12px]">
              {kind.varied.unit}
            </text>
          )}
        </svg>
      )}
      {count > 0 && (
        <div
          role="listbox"
          tabIndex={0}
          aria-label={`Bands of the ${kind.name.toLowerCase()} trial`}
          aria-activedescendant={`${own}${active}`}
          onKeyDown={onKeyDown}
          onPointerDown={(event) => {
            const bounds = event.currentTarget.getBoundingClientRect()
            const mm = alongX ? (event.clientX - bounds.left - x0) / zoom + left : bottom + (y0 - (event.clientY - bounds.top)) / zoom
            const hit = spec.bands.findIndex((_, i) => mm >= placeOf(i)[0] && mm < placeOf(i)[1])
            if (hit !== -1) onActive(hit)
          }}
          className="absolute inset-0 cursor-pointer focus-visible:outline-offset-[-3px]"
        >
          {spec.bands.map(({ label }, i) => (
            <span key={label} id={`${own}${i}`} role="option" aria-selected={i === active} className="sr-only" tabIndex={-1}>
              {label} {kind.varied?.unit} {marks[i]?.text ?? 'not read'}
            </span>
          ))}
        </div>
      )}
    </div>
  )
}

/** A sign and a word, never colour alone. */
function MarkGlyph({ mark, x, y, bare = false }: { mark: BandMark | undefined; x: number; y: number; bare?: boolean }) {
  if (!mark) return null
  const sign = { good: '●', bad: '✕', between: '◐' }[mark.tone]
  return (
    <text x={x} y={y} className={clsx('text-[12px]', { good: 'fill-better', bad: 'fill-worse', between: 'fill-muted' }[mark.tone])}>
      {sign}
      {bare ? '' : ` ${mark.text}`}
    </text>
  )
}
