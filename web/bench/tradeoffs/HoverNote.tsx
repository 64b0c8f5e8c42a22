import type { SearchSpec } from '@sable/contract/search'
import { figureOf } from '@sable/core/figures/figures'
import type { Objective } from '@sable/core/search/figures'
import { choicesOf } from '@sable/core/search/space'
import { signedPercent } from '@sable/core/units/format'
import { choiceWords, type NameOf } from './dimensionWords'
import { shown } from './figureWords'
import type { Point } from './plot'
import type { Mark } from './Scatter'

/** What lies under the pointer, and how it differs from the first column. */
export function HoverNote({
  point,
  at,
  spec,
  first,
  names,
  width,
  axes,
}: {
  point: Point
  at: readonly [number, number]
  spec: SearchSpec
  first: Mark | undefined
  names: NameOf
  width: number
  axes: readonly Objective[]
}) {
  const left = at[0] > width - 260
  return (
    <div
      className="pointer-events-none absolute z-10 max-w-64 rounded border border-strong bg-raised/95 px-2 py-1 text-[12px]"
      style={{ top: at[1] + 12, ...(left ? { right: width - at[0] + 12 } : { left: at[0] + 12 }) }}
    >
      <p className="figure">{axes.map(({ figure }) => shown(figure, point.figures[figure])).join(', ')}</p>
      <p className="text-muted">
        {spec.dimensions.map((dimension, d) => choiceWords(dimension, choicesOf(dimension)[point.variant.choices[d]!]!, names)).join(', ')}
      </p>
      {first && (
        <p className="text-muted">
          against {first.name}:{' '}
          {axes
            .map(
              ({ figure }) => `${signedPercent(point.figures[figure] / first.figures[figure] - 1)} ${figureOf[figure].label.toLowerCase()}`,
            )
            .join(', ')}
        </p>
      )}
    </div>
  )
}
