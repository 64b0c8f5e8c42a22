import { figureOf } from '@sable/core/figures/figures'
import { type FigureLimit, meets, type Objective } from '@sable/core/search/figures'
import clsx from 'clsx'
import { memo } from 'react'
import { type Box, extentOf, isIn, isKnown, type Point } from './plot'

const WIDTH = 116
const HEIGHT = 74

interface Props {
  readonly points: readonly Point[]
  readonly objectives: readonly Objective[]
  readonly limits: readonly FigureLimit[]
  readonly brush: Box | undefined
  readonly x: string
  readonly y: string
  readonly onChoose: (x: Objective, y: Objective) => void
}

/** Every pair of what matters, small; what is brushed shines in all of them. One is chosen by a click. */
export const Multiples = memo(function Multiples({ points, objectives, limits, brush, x, y, onChoose }: Props) {
  const pairs = objectives.flatMap((a, i) => objectives.slice(i + 1).map((b) => [a, b] as const))
  if (pairs.length < 2) return null
  return (
    <ul className="flex gap-2 overflow-x-auto" aria-label="Every pair of what matters">
      {pairs.map(([a, b]) => {
        const isShown = (a.figure === x && b.figure === y) || (a.figure === y && b.figure === x)
        return (
          <li key={`${a.figure} ${b.figure}`}>
            <button
              type="button"
              aria-pressed={isShown}
              onClick={() => onChoose(a, b)}
              className={clsx('block rounded border p-1 text-left', isShown ? 'border-lantern' : 'border-line hover:border-strong')}
            >
              <Small points={points} x={a} y={b} limits={limits} brush={brush} />
              <span className="block w-[116px] truncate text-[12px] text-muted">
                {figureOf[b.figure].label} by {figureOf[a.figure].label.toLowerCase()}
              </span>
            </button>
          </li>
        )
      })}
    </ul>
  )
})

function Small({
  points,
  x,
  y,
  limits,
  brush,
}: {
  points: readonly Point[]
  x: Objective
  y: Objective
  limits: readonly FigureLimit[]
  brush: Box | undefined
}) {
  const [lowX, highX] = extentOf(points.map(({ figures }) => figures[x.figure]))
  const [lowY, highY] = extentOf(points.map(({ figures }) => figures[y.figure]))
  let [plain, out, bright] = ['', '', '']
  for (const point of points.filter(isKnown(x.figure, y.figure))) {
    const px = ((point.figures[x.figure] - lowX) / (highX - lowX)) * (WIDTH - 6) + 3
    const py = HEIGHT - 3 - ((point.figures[y.figure] - lowY) / (highY - lowY)) * (HEIGHT - 6)
    const dot = `M${px.toFixed(1)} ${py.toFixed(1)}h0`
    if (brush && isIn(brush, point)) bright += dot
    else if (meets(point.figures, limits)) plain += dot
    else out += dot
  }
  return (
    <svg width={WIDTH} height={HEIGHT} aria-hidden strokeLinecap="round">
      <title>{`${figureOf[y.figure].label} by ${figureOf[x.figure].label}`}</title>
      <path d={out} className="stroke-strong" strokeWidth={2.5} />
      <path d={plain} className="stroke-better" strokeWidth={3} />
      <path d={bright} className="stroke-lantern" strokeWidth={4} />
    </svg>
  )
}
