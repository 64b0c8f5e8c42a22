import type { LineupContent } from '@sable/contract/lineup'
import { MOST_CANDIDATES } from '@sable/contract/lineup'
import type { StoredPart } from '@sable/contract/part'
import type { FoundVariant, Search, SearchSpec } from '@sable/contract/search'
import type { Shelf } from '@sable/contract/shelf'
import { type FigureLimit, figureNames, figuresOf, meets, type Objective, usuallyBetter } from '@sable/core/search/figures'
import { type Dimension, startOf } from '@sable/core/search/space'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Table2 } from 'lucide-react'
import { useCallback, useEffect, useMemo, useState } from 'react'
import { useNavigate, useParams } from 'react-router'
import { asRefusal } from '../../../api/asRefusal'
import { edit } from '../../../desk/deskStore'
import { addCandidate, nextName, setPlacement, setPurpose } from '../../../desk/edits'
import { KeyStrip } from '../../../drawing/KeyStrip'
import { useForecasts } from '../../../predictions/predictionStore'
import { Button, IconButton } from '../../../ui/Button'
import { Menu, MenuItem, MenuSeparator } from '../../../ui/Menu'
import { Notice, type Refusal } from '../../../ui/Notice'
import { SaveMenu } from '../../../ui/SaveMenu'
import { Select } from '../../../ui/Select'
import { useAddress } from '../../../ui/useAddress'
import { useSize } from '../../../ui/useSize'
import { figureWords } from './figureWords'
import { HoverNote } from './HoverNote'
import { Multiples } from './Multiples'
import { PointPanel } from './PointPanel'
import { type Box, extentOf, isIn, limitsFrom, limitsText, namedOf, type Point, pointsOf, withLimit } from './plot'
import { type Mark, Scatter } from './Scatter'
import { SearchForm } from './SearchForm'
import { StateWords } from './StateWords'
import { actOnSearch, beginSearch, removeSearch, searchesQuery, useSearch } from './useSearch'
import { VariantTable } from './VariantTable'

interface Props {
  readonly content: LineupContent
  readonly part: StoredPart
  readonly shelf: Shelf
}

/** Searches of this lineup: asked for, watched, and looked through. */
export function TradeoffsView({ content, shelf }: Props) {
  const { lineupId = '' } = useParams()
  const address = useAddress()
  const queries = useQueryClient()
  const list = useQuery(searchesQuery(lineupId))
  const [refusal, setRefusal] = useState<Refusal>()
  const asked = address.get('search')
  const id = asked === 'new' ? undefined : (list.data?.find((one) => one.id === asked)?.id ?? list.data?.[0]?.id)
  const watched = useSearch(id)
  const begin = async (spec: SearchSpec): Promise<void> => {
    setRefusal(undefined)
    try {
      const search = await beginSearch(spec)
      await queries.invalidateQueries(searchesQuery(lineupId))
      address.set({
        search: search.id,
        x: undefined,
        y: undefined,
        colour: undefined,
        size: undefined,
        limits: undefined,
        variant: undefined,
      })
    } catch (error) {
      setRefusal(asRefusal(error))
    }
  }
  const remove = async (): Promise<void> => {
    if (!id) return
    try {
      await removeSearch(id)
      await queries.invalidateQueries(searchesQuery(lineupId))
      address.set({ search: undefined })
    } catch (error) {
      setRefusal(asRefusal(error))
    }
  }
  const search = watched.search ?? list.data?.find((one) => one.id === id)
  return (
    <section aria-label="Trade-offs" className="flex min-h-0 flex-1 flex-col">
      {refusal && (
        <div className="px-3 pt-2">
          <Notice refusal={refusal} onClose={() => setRefusal(undefined)} />
        </div>
      )}
      {search ? (
        <Found
          key={search.id}
          search={search}
          variants={watched.variants}
          secondsLeft={watched.secondsLeft}
          away={watched.away}
          searches={list.data ?? []}
          content={content}
          shelf={shelf}
          onRemove={() => void remove()}
          onRefusal={setRefusal}
        />
      ) : list.data ? (
        <>
          {list.data.length > 0 && (
            <div className="flex h-11 shrink-0 items-center border-b border-line px-3">
              <Button onClick={() => address.set({ search: undefined })}>Back to what was found</Button>
            </div>
          )}
          <SearchForm content={content} lineupId={lineupId} shelf={shelf} before={list.data[0]?.spec} onBegin={begin} />
        </>
      ) : (
        <p role="status" className="m-auto p-8 text-muted">
          {list.failureReason ? 'The server does not answer; this page tries again by itself.' : 'Opening the searches …'}
        </p>
      )}
    </section>
  )
}

interface FoundProps {
  readonly search: Search
  readonly variants: readonly FoundVariant[]
  readonly secondsLeft: number | undefined
  readonly away: boolean
  readonly searches: readonly Search[]
  readonly content: LineupContent
  readonly shelf: Shelf
  readonly onRemove: () => void
  readonly onRefusal: (refusal: Refusal) => void
}

function Found({ search, variants, secondsLeft, away, searches, content, shelf, onRemove, onRefusal }: FoundProps) {
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
    const figure = figureNames.find((one) => one === name)
    const own = spec.objectives.find((objective) => objective.figure === figure)
    return own ?? (figure ? { figure, better: usuallyBetter[figure] } : (spec.objectives[otherwise] ?? spec.objectives[0]!))
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
  const { label, unit, per } = figureWords[colour.figure]
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
      const added = addCandidate(before, { ...base, exceptions: [...base.exceptions], id: crypto.randomUUID(), name })
      const turns = spec.dimensions.some(({ kind }) => kind === 'orientation')
      return turns ? setPurpose(setPlacement(added, placement), purpose) : added
    })
    void navigate(`/bench/${lineupId}/ledger`)
  }
  const running = search.state === 'running' || search.state === 'waiting'
  const figures = figureNames.map((id) => ({ id, name: figureWords[id].label }))
  const isFull = content.candidates.length >= MOST_CANDIDATES
  return (
    <>
      <div className="flex min-h-11 shrink-0 flex-wrap items-center gap-x-3 gap-y-1 border-b border-line px-3 py-1.5">
        <Select label="Across" name="Across" value={x.figure} of={figures} onChange={(to) => address.set({ x: to })} />
        <Select label="Up" name="Up" value={y.figure} of={figures} onChange={(to) => address.set({ y: to })} />
        <Select label="Colour" value={colour.figure} of={figures} onChange={(to) => address.set({ colour: to })} />
        <Select
          label="Size"
          value={size?.figure ?? ''}
          of={[{ id: '', name: 'alike' }, ...figures]}
          onChange={(to) => address.set({ size: to })}
        />
        <Menu trigger={<Button>Limits</Button>}>
          {[x, y, colour]
            .filter((axis, i, all) => all.findIndex(({ figure }) => figure === axis.figure) === i)
            .map((axis) => {
              const has = limits.some(({ figure }) => figure === axis.figure)
              return (
                <MenuItem key={axis.figure} onSelect={() => setLimits(withLimit(limits, axis, has ? undefined : middleOf(points, axis)))}>
                  {has ? 'No limit of' : 'Limit'} {figureWords[axis.figure].label.toLowerCase()}
                </MenuItem>
              )
            })}
          <MenuSeparator />
          <MenuItem onSelect={() => setLimits(spec.limits)}>Those of the part’s purpose</MenuItem>
        </Menu>
        <div className="flex-1" />
        <SaveMenu name={`trade-offs of ${content.name}`} />
        <IconButton label="Table of the variants" disabled={variants.length === 0} onClick={() => setTable(true)}>
          <Table2 className="size-4" />
        </IconButton>
        <Menu align="end" trigger={<Button>Searches</Button>}>
          {searches.map((one) => (
            <MenuItem
              key={one.id}
              current={one.id === search.id}
              hint={one.state}
              onSelect={() => address.set({ search: one.id, limits: undefined, variant: undefined })}
            >
              {new Date(one.createdAt).toLocaleString()}, {one.of} variants
            </MenuItem>
          ))}
          <MenuSeparator />
          <MenuItem onSelect={onRemove}>Remove this search</MenuItem>
        </Menu>
        <Button tone={running ? 'quiet' : 'main'} onClick={() => address.set({ search: 'new', limits: undefined, variant: undefined })}>
          New search
        </Button>
      </div>
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
                {size && `; size: ${figureWords[size.figure].label.toLowerCase()}`}
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
      {table && <VariantTable spec={spec} variants={variants} names={names} onClose={() => setTable(false)} />}
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

function middleOf(points: readonly Point[], { figure }: Objective): number {
  const sorted = points.map(({ figures }) => figures[figure]).sort((a, b) => a - b)
  return sorted[Math.floor(sorted.length / 2)] ?? 0
}

function nameOn(shelf: Shelf, kind: Dimension['kind'], key: string): string {
  if (kind === 'setting' || kind === 'orientation') return key
  return shelf[`${kind}s`].find((record) => record.key === key)?.name ?? key
}
