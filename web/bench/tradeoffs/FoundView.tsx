import type { LineupContent } from '@sable/contract/lineup'
import { MOST_CANDIDATES } from '@sable/contract/lineup'
import type { FoundVariant, Search } from '@sable/contract/search'
import type { Shelf } from '@sable/contract/shelf'
import { figureOf } from '@sable/core/figures/figures'
import { figureIds } from '@sable/core/figures/table/figure'
import { type FigureLimit, figuresOf, meets, type Objective, usually } from '@sable/core/search/figures'
import { type Dimension, startOf } from '@sable/core/search/space'
import { useCallback, useEffect, useMemo, useState } from 'react'
import { useNavigate, useParams } from 'react-router'
import { asRefusal } from '../../api/asRefusal'
import { actOnSearch } from '../../api/searches'
import { KeyStrip } from '../../charts/KeyStrip'
import { useBench } from '../../desk/bench'
import { edit } from '../../desk/deskStore'
import { addCandidate, nextName, setPlacement, setPurpose } from '../../desk/edits'
import { useForecasts } from '../../predictions/predictionStore'
import { Button } from '../../ui/Button'
import type { Refusal } from '../../ui/Notice'
import { useAddress } from '../../ui/useAddress'
import { useSize } from '../../ui/useSize'
import { FoundBar } from './FoundBar'
import { HoverNote } from './HoverNote'
import { Multiples } from './Multiples'
import { PointPanel } from './PointPanel'
import { type Box, extentOf, isIn, limitsFrom, limitsText, namedOf, type Point, pointsOf, withLimit } from './plot'
import { type Mark, Scatter } from './Scatter'
import { StateWords } from './StateWords'
import { isRunning } from './useSearch'
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
  const navigate = useNavigate()
  const address = useAddress()
  const { lineupId } = useParams()
  const { ref: frame, width, height } = useSize()
  const { spec } = search
  const [limits, setLimits] = useState<readonly FigureLimit[]>(() => {
    const asked = address.get('limits')
    return asked === undefined ? spec.limits : limitsFrom(asked)
  })
  const { set } = address
  useEffect(() => {
    // A limit that is being dragged is written down once it rests.
    const text = limitsText(limits)
    const wait = setTimeout(() => set({ limits: text === limitsText(spec.limits) ? undefined : text }), 250)
    return () => clearTimeout(wait)
  }, [limits, spec.limits, set])
  const picked = address.get('variant') === undefined ? undefined : Number(address.get('variant')) - 1
  const setPicked = (position: number | undefined): void =>
    address.set({ variant: position === undefined ? undefined : String(position + 1) })
  const [hovered, setHovered] = useState<{ readonly point: Point; readonly at: readonly [number, number] }>()
  const [brush, setBrush] = useState<Box>()
  const [table, setTable] = useState(false)
  const points = useMemo(() => pointsOf(variants), [variants])
  const axisOf = (name: string | undefined, otherwise: number): Objective => {
    const figure = figureIds.find((one) => one === name)
    const own = spec.objectives.find((objective) => objective.figure === figure)
    return own ?? (figure ? usually(figure) : (spec.objectives[otherwise] ?? spec.objectives[0]!))
  }
  const x = axisOf(address.get('x'), 0)
  const y = axisOf(address.get('y'), 1)
  const colour = axisOf(address.get('colour'), 2)
  const size = address.get('size') === undefined ? undefined : axisOf(address.get('size'), 0)
  const shadesOf = ({ figure }: Objective) => {
    const [low, high] = extentOf(points.map(({ figures }) => figures[figure]))
    return { figure, low, high }
  }
  const shades = shadesOf(colour)
  const { label, plain } = figureOf[colour.figure]
  const { unit, per } = plain
  const marks = useMarks(content)
  const good = useMemo(() => points.filter(({ figures }) => meets(figures, limits)), [points, limits])
  const named = useMemo(() => namedOf(points, limits), [points, limits])
  const chosen = points.find(({ variant }) => variant.position === picked)
  const brushed = brush ? points.filter((point) => isIn(brush, point)) : undefined
  const names = useCallback((kind: Dimension['kind'], key: string) => nameOn(shelf, kind, key), [shelf])
  const onHover = useCallback(
    (point: Point | undefined, at: readonly [number, number]) => setHovered(point ? { point, at } : undefined),
    [],
  )

  const act = async (action: 'pause' | 'resume' | 'cancel'): Promise<void> => {
    try {
      await actOnSearch(search.id, action)
    } catch (error) {
      onRefusal(asRefusal(error))
    }
  }
  const take = (point: Point): void => {
    const { base, placement, purpose } = startOf(spec, spec.dimensions, point.variant.choices)
    const name = nextName(
      spec.base.name,
      content.candidates.map((one) => one.name),
    )
    edit((before) => {
      const added = addCandidate(before, { ...base, overrides: [...base.overrides], id: crypto.randomUUID(), name })
      const turns = spec.dimensions.some(({ kind }) => kind === 'orientation')
      return turns ? setPurpose(setPlacement(added, placement), purpose) : added
    })
    void navigate(`/bench/${lineupId}/ledger`)
  }
  const running = isRunning(search)
  const isFull = content.candidates.length >= MOST_CANDIDATES
  return (
    <>
      <FoundBar
        search={search}
        searches={searches}
        axes={[x, y, colour, size]}
        points={points}
        limits={limits}
        onLimits={setLimits}
        name={content.name}
        onTable={() => setTable(true)}
        onRemove={onRemove}
      />
      <div className="flex min-h-0 flex-1">
        <div className="flex min-w-0 flex-1 flex-col">
          <div className="flex items-center gap-3 px-3 pt-2 text-[12.5px]">
            <StateWords search={search} secondsLeft={secondsLeft} away={away} />
            {running && <Button onClick={() => void act('pause')}>Pause</Button>}
            {(search.state === 'paused' || search.state === 'failed') && <Button onClick={() => void act('resume')}>Go on</Button>}
            {(running || search.state === 'paused') && <Button onClick={() => void act('cancel')}>End it</Button>}
            <div className="flex-1" />
            <span role="status">
              <span className="figure">{good.length}</span> <span className="text-muted">of</span>{' '}
              <span className="figure">{points.length}</span> <span className="text-muted">meet all</span>
              {brushed && (
                <>
                  <span className="text-muted">,</span> <span className="figure">{brushed.length}</span>{' '}
                  <span className="text-muted">brushed</span>
                </>
              )}
            </span>
          </div>
          <div ref={frame} className="relative min-h-0 flex-1">
            {width > 100 && height > 100 && points.length > 0 && (
              <Scatter
                width={width}
                height={height}
                points={points}
                x={x}
                y={y}
                colour={shades}
                size={size && shadesOf(size)}
                limits={limits}
                marks={marks}
                named={named}
                picked={chosen}
                brush={brush}
                onPick={(point) => setPicked(point?.variant.position)}
                onHover={onHover}
                onBrush={setBrush}
                onLimit={(axis, value) => setLimits(withLimit(limits, axis, value))}
              />
            )}
            {points.length === 0 && (
              <p role="status" className="absolute inset-0 m-auto h-5 text-center text-muted">
                {running ? 'The first variants are being computed …' : 'Nothing was found.'}
              </p>
            )}
            {hovered && <HoverNote {...hovered} spec={spec} first={marks[0]} names={names} width={width} axes={[x, y, colour]} />}
          </div>
          <div className="flex shrink-0 items-end gap-6 px-3 py-2">
            <div className="shrink-0">
              <p className="mb-1 text-[11.5px] text-muted">
                {label}
                {size && `; size: ${figureOf[size.figure].label.toLowerCase()}`}
              </p>
              <KeyStrip
                of={{
                  kind: 'scale',
                  scale: 'viridis',
                  low: shades.low / per,
                  high: shades.high / per,
                  unit,
                  digits: shades.high / per < 10 ? 1 : 0,
                }}
              />
              <p className="mt-1 text-[11px] text-muted">◇ columns of the ledger; hollow: misses a limit</p>
            </div>
            <Multiples
              points={points}
              objectives={spec.objectives}
              limits={limits}
              brush={brush}
              x={x.figure}
              y={y.figure}
              onChoose={(a, b) => address.set({ x: a.figure, y: b.figure })}
            />
          </div>
        </div>
        <PointPanel
          spec={spec}
          point={chosen}
          named={named}
          first={marks[0]}
          nameOf={names}
          onPick={(point) => setPicked(point.variant.position)}
          onTake={(point) =>
            isFull
              ? onRefusal({
                  where: content.name,
                  message: `The ledger holds ${MOST_CANDIDATES} columns at most.`,
                  remedy: 'Remove one first.',
                })
              : take(point)
          }
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
function useMarks({ candidates, purpose }: LineupContent): readonly Mark[] {
  const forecasts = useForecasts()
  return useMemo(
    () =>
      candidates.flatMap(({ id, name }) => {
        const prediction = forecasts[id]?.prediction
        return prediction ? [{ name, figures: figuresOf(prediction, purpose) }] : []
      }),
    [candidates, purpose, forecasts],
  )
}

function nameOn(shelf: Shelf, kind: Dimension['kind'], key: string): string {
  if (kind === 'setting' || kind === 'orientation') return key
  return shelf[`${kind}s`].find((record) => record.key === key)?.name ?? key
}
