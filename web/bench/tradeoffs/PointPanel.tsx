import type { SearchSpec } from '@sable/contract/search'
import { figureOf } from '@sable/core/figures/figures'
import { type FigureId, figureIds } from '@sable/core/figures/table/figure'
import { choicesOf } from '@sable/core/search/space'
import clsx from 'clsx'
import { Button } from '../../ui/Button'
import { choiceWords, dimensionLabel, type NameOf } from './dimensionWords'
import { difference, shown } from './figureWords'
import type { Named, Point } from './plot'
import type { Mark } from './Scatter'

interface Props {
  readonly spec: SearchSpec
  readonly point: Point | undefined
  readonly named: readonly Named[]
  /** The first column, which figures are compared with. */
  readonly first: Mark | undefined
  readonly nameOf: NameOf
  readonly onPick: (point: Point) => void
  readonly onTake: (point: Point) => void
}

/** The variants that have a name of their own, and what is known of the one that is picked. */
export function PointPanel({ spec, point, named, first, nameOf, onPick, onTake }: Props) {
  return (
    <aside aria-label="Variants" className="w-64 shrink-0 overflow-auto border-l border-line px-3 py-2 text-[12.5px]">
      {named.length === 0 ? (
        <p className="text-muted">None meets all limits.</p>
      ) : (
        <ul className="space-y-1">
          {named.map((one) => (
            <li key={one.id}>
              <button
                type="button"
                onClick={() => onPick(one.point)}
                aria-pressed={point?.variant.position === one.point.variant.position}
                className="block w-full rounded px-2 py-1 text-left hover:bg-line aria-pressed:bg-raised"
              >
                <span className="block font-medium">{one.label}</span>
                <span className="figure block text-[12px] text-muted">
                  {shown('time', one.point.figures.time)}, {shown('surface', one.point.figures.surface)},{' '}
                  {shown('strength', one.point.figures.strength)}
                </span>
              </button>
            </li>
          ))}
        </ul>
      )}
      {point && (
        <div className="mt-3 border-t border-line pt-2">
          <p className="font-medium">Variant {point.variant.position + 1}</p>
          <dl className="mt-1">
            {spec.dimensions.map((dimension, d) => {
              const choice = choicesOf(dimension)[point.variant.choices[d]!]!
              return (
                <div key={dimensionLabel(dimension)} className="flex justify-between gap-2 py-px">
                  <dt className="truncate text-muted">{dimensionLabel(dimension)}</dt>
                  <dd className="figure text-right whitespace-nowrap">{choiceWords(dimension, choice, nameOf)}</dd>
                </div>
              )
            })}
          </dl>
          <dl className="mt-2 border-t border-line/60 pt-1">
            {figureIds.map((figure) => (
              <FigureRow key={figure} figure={figure} value={point.figures[figure]} before={first?.figures[figure]} />
            ))}
          </dl>
          {first && <p className="mt-0.5 text-[12px] text-muted">Differences are from {first.name}.</p>}
          {point.figures.stops > 0 && <p className="mt-1 text-stop">A risk would stop this one.</p>}
          <Button tone="main" className="mt-2" onClick={() => onTake(point)}>
            As a column
          </Button>
        </div>
      )}
    </aside>
  )
}

function FigureRow({ figure, value, before }: { figure: FigureId; value: number; before: number | undefined }) {
  const by = before === undefined ? undefined : value - before
  const text = by === undefined ? '' : difference(figure, by)
  const isBetter = by !== undefined && by < 0 === (figureOf[figure].better === 'less')
  return (
    <div className="flex items-baseline justify-between gap-2 py-px">
      <dt className="text-muted">{figureOf[figure].label}</dt>
      <dd className="figure text-right whitespace-nowrap">
        {shown(figure, value)}
        {text !== '' && (
          <span
            className={clsx(
              'ml-2 inline-block w-[5.5rem] text-right text-[12px]',
              text === 'same' || figureOf[figure].taste ? 'text-muted' : isBetter ? 'text-better' : 'text-worse',
            )}
          >
            {text}
          </span>
        )}
      </dd>
    </div>
  )
}
