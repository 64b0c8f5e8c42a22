import type { LineupContent } from '@sable/contract/lineup'
import type { FoundVariant, Search } from '@sable/contract/search'
import type { Shelf } from '@sable/contract/shelf'
import { bySections } from '@sable/core/figures/table/stated'
import { figuresOf, withAll } from '@sable/core/search/figures'
import type { Dimension } from '@sable/core/search/space'
import { toSolve } from '@sable/core/search/toSolve'
import { useCallback, useMemo, useState } from 'react'
import { useBench } from '../../desk/bench'
import { useForecasts } from '../../predictions/predictionStore'
import type { Refusal } from '../../ui/Notice'
import { useAddress } from '../../ui/useAddress'
import { FoundBar } from './FoundBar'
import { FoundPlot } from './FoundPlot'
import { FoundState } from './FoundState'
import { Multiples } from './Multiples'
import { PlotKey } from './PlotKey'
import { PointPanel } from './PointPanel'
import { type Box, isIn, type Model } from './plot'
import type { Mark } from './Scatter'
import { useFound } from './useFound'
import { isRunning } from './useSearch'
import { useTakeVariant } from './useTakeVariant'
import { VariantTable } from './VariantTable'

interface Props {
  readonly search: Search
  readonly variants: readonly FoundVariant[]
  readonly secondsLeft: number | undefined
  readonly away: boolean
  readonly searches: readonly Search[]
  readonly onRemove: () => void
  readonly onRefusal: (refusal: Refusal) => void
}

/** What a search has found so far: drawn, limited, looked into, and taken over. */
export function FoundView({ search, variants, secondsLeft, away, searches, onRemove, onRefusal }: Props) {
  const { content, shelf } = useBench()
  const { set } = useAddress()
  const { spec } = search
  const running = isRunning(search)
  const found = useFound(spec, variants, running)
  const take = useTakeVariant(spec, onRefusal)
  const marks = useMarks(content, found.model)
  const [brush, setBrush] = useState<Box>()
  const [table, setTable] = useState(false)
  const names = useCallback((kind: Dimension['kind'], key: string) => nameOn(shelf, kind, key), [shelf])
  const { points, good, limits, axes, model, solvedCount } = found
  // After what it searched comes what it solves.
  const solving = useMemo(
    () =>
      running && search.done === search.of
        ? toSolve(
            variants.map(({ figures }) => figures),
            spec,
          )
        : [],
    [running, search.done, search.of, variants, spec],
  )
  const brushed = brush && points.filter((point) => isIn(brush, point))
  return (
    <>
      <FoundBar search={search} searches={searches} found={found} name={content.name} onTable={() => setTable(true)} onRemove={onRemove} />
      <div className="flex min-h-0 flex-1">
        <div className="flex min-w-0 flex-1 flex-col">
          <FoundState
            search={search}
            secondsLeft={secondsLeft}
            away={away}
            solving={solving.length > 0 ? { done: solvedCount, of: solving.length } : undefined}
            model={solvedCount > 0 && !running ? model : undefined}
            counts={{ good: good.length, all: points.length, brushed: brushed?.length }}
            onRefusal={onRefusal}
          />
          <FoundPlot spec={spec} found={found} marks={marks} brush={brush} onBrush={setBrush} names={names} running={running} />
          <div className="flex shrink-0 items-end gap-6 px-3 py-2">
            <PlotKey axes={axes} shades={found.shades} model={model} />
            <Multiples
              points={points}
              objectives={spec.objectives}
              limits={limits}
              brush={brush}
              x={axes.x.figure}
              y={axes.y.figure}
              onChoose={(a, b) => set({ x: a.figure, y: b.figure })}
            />
          </div>
        </div>
        <PointPanel
          spec={spec}
          point={found.picked}
          named={found.named}
          first={marks[0]}
          nameOf={names}
          onPick={found.pick}
          onTake={take}
        />
      </div>
      {table && (
        <VariantTable
          title={brushed ? 'Brushed variants' : 'Variants'}
          spec={spec}
          variants={brushed?.map(({ variant }) => variant) ?? variants}
          names={names}
          onClose={() => setTable(false)}
        />
      )}
    </>
  )
}

/** The columns of the ledger, as far as their figures are known. */
function useMarks({ candidates, purpose }: LineupContent, model: Model): readonly Mark[] {
  const forecasts = useForecasts()
  return useMemo(
    () =>
      candidates.flatMap(({ id, name }) => {
        const prediction = forecasts[id]?.prediction
        if (!prediction) return []
        // The columns are told by what the points beside them are.
        return [{ name, figures: withAll(figuresOf(model === 'solved' ? prediction : bySections(prediction), purpose)) }]
      }),
    [candidates, purpose, forecasts, model],
  )
}

function nameOn(shelf: Shelf, kind: Dimension['kind'], key: string): string {
  if (kind === 'setting' || kind === 'orientation') return key
  return shelf[`${kind}s`].find((record) => record.key === key)?.name ?? key
}
