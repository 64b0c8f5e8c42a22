import type { Candidate } from '@sable/contract/lineup'
import { wholeCases } from '@sable/core/physics/strength/pickedCases'
import clsx from 'clsx'
import { useMemo, useRef, useState } from 'react'
import { KeyStrip } from '../../charts/KeyStrip'
import { useBench } from '../../desk/bench'
import { useForecasts } from '../../predictions/predictionStore'
import type { Solved } from '../../predictions/useSolved'
import { solidView, type Touch } from '../../solids/SolidDrawing'
import { Button } from '../../ui/Button'
import { Checkbox } from '../../ui/Checkbox'
import { Choices } from '../../ui/Choices'
import { useAddress } from '../../ui/useAddress'
import type { Pair } from '../shell/CandidatePair'
import { CasesForm } from './CasesForm'
import { Gains } from './Gains'
import { LeastTimePanel } from './LeastTimePanel'
import { SolvedLoads } from './SolvedLoads'
import { SolvedPart, strokeColours } from './SolvedPart'
import { type Cut, type Limit, rangeAlong } from './solvedDrawing'
import { useCasePicking } from './useCasePicking'
import { usePlaying } from './usePlaying'

const limits: readonly { readonly id: Limit; readonly name: string }[] = [
  { id: 'either', name: 'whichever is nearer' },
  { id: 'lines', name: 'lines breaking' },
  { id: 'layers', name: 'layers parting' },
]
const cuts = [
  { id: 'x', name: 'X' },
  { id: 'y', name: 'Y' },
  { id: 'z', name: 'Z' },
] as const

/** What moves most is drawn moved by so much of the part's size. */
const SHOWN = 0.12

/** The part as it gives way under its load, of one candidate or two under the same load; cases are picked on it, face by face. */
export function SolvedView({ pair, solved }: { pair: Pair; solved: readonly Solved[] }) {
  const { purpose } = useBench().content
  const address = useAddress()
  const view = useMemo(() => solidView(), [])
  const picker = useCasePicking(pair.of)
  const { picking, failed, patches, pick } = picker
  const { share, isPlaying, toggle } = usePlaying()
  const hasStrokes = address.get('strokes') === 'on'
  const limit = limits.find(({ id }) => id === address.get('limit'))?.id ?? 'either'
  const fresh = solved.flatMap(({ candidate, solved: found, picture }) => (found && picture ? [{ candidate, found, picture }] : []))
  // What was solved before stays in sight, dimmed, until what was changed is solved too.
  const before = useRef(fresh)
  if (fresh.length > 0) before.current = fresh
  const ready =
    fresh.length > 0 ? fresh : before.current.filter(({ candidate }) => solved.some((one) => one.candidate.id === candidate.id && !one.why))
  const axis = ({ x: 0, y: 1, z: 2 } as const)[address.get('cut') ?? ''] as Cut['axis'] | undefined
  const firstPicture = ready[0]?.picture
  const [low, high] = useMemo(() => (firstPicture && axis !== undefined ? rangeAlong(firstPicture, axis) : [0, 1]), [firstPicture, axis])
  const cutShare = Math.max(0, Math.min(1, Number(address.get('cutAt') ?? 0.5)))
  const cut = useMemo(
    (): Cut | undefined => (axis === undefined ? undefined : { axis, at: low + cutShare * (high - low) }),
    [axis, low, high, cutShare],
  )
  // Both under the load that the weaker of them just bears, or the one that is wanted.
  const least = Math.min(...ready.map(({ found }) => found.factor))
  const wanted = purpose.limits.minLoadN
  const factor = wanted !== undefined && wholeCases(purpose).length === 0 ? wanted : least
  const most = Math.max(...ready.map(({ picture, found }) => (picture.mostMm * factor) / found.factor))
  const sizeMm = useMemo(
    () =>
      firstPicture
        ? Math.max(
            ...([0, 1, 2] as const).map((k) => {
              const [from, to] = rangeAlong(firstPicture, k)
              return to - from
            }),
          )
        : 1,
    [firstPicture],
  )
  const times = most > 0 ? (SHOWN * sizeMm) / most : 0
  return (
    <div className="flex min-h-0 flex-1 max-lg:overflow-x-auto">
      <div className="flex min-h-0 min-w-0 flex-1 flex-col">
        <div className="flex min-h-10 flex-wrap items-center gap-x-4 gap-y-1 border-b border-line px-3 py-1">
          <span className="-mr-2 text-[12px] text-muted">Coloured by</span>
          <Choices
            label=""
            name="Coloured by"
            of={limits}
            value={limit}
            onChange={(id) => address.set({ limit: id === 'either' ? undefined : id })}
          />
          <span className="-mr-2 text-[12px] text-muted">Cut across</span>
          <Choices
            label=""
            name="Cut across"
            of={cuts}
            value={cuts.find(({ id }) => id === address.get('cut'))?.id}
            onChange={(id) => address.set({ cut: id })}
          />
          {axis !== undefined && (
            <label className="flex items-center gap-2 text-[12px] text-muted">
              cut at
              <input
                type="range"
                min={0}
                max={1}
                step={0.01}
                value={cutShare}
                onChange={(event) => address.set({ cutAt: event.target.value })}
                className="w-32 accent-lantern"
              />
              <span className="figure w-16">{(cut?.at ?? 0).toFixed(1)} mm</span>
            </label>
          )}
          <Checkbox
            checked={hasStrokes}
            onChange={(on) => address.set({ strokes: on ? 'on' : undefined })}
            className="text-[12px] text-muted"
          >
            Directions
          </Checkbox>
          <span className="flex-1" />
          <button
            type="button"
            aria-pressed={isPlaying}
            onClick={toggle}
            className="h-6 rounded border border-line bg-raised px-1.5 text-[12px] hover:border-strong aria-pressed:border-lantern aria-pressed:text-lantern-ink"
          >
            play it softly
          </button>
        </div>
        <div className={clsx('flex min-h-0 flex-1 divide-x divide-line', ready.length > 0 && fresh.length === 0 && 'opacity-50')}>
          {ready.length === 0 && (
            <p role="status" className="m-auto max-w-sm p-8 text-center text-muted">
              {solved.find(({ why }) => why)?.why ?? 'Solving …'}
            </p>
          )}
          {ready.map(({ candidate, found, picture }) => (
            <div key={candidate.id} className="relative flex min-w-0 flex-1 flex-col">
              <SolvedPart
                name={candidate.name}
                picture={picture}
                limit={limit}
                load={factor / found.factor}
                times={picking ? 0 : share * times}
                cut={cut}
                at={found.at}
                hasStrokes={hasStrokes}
                patches={patches}
                view={view}
                {...(picking ? { onClick: (touch: Touch) => void pick(touch) } : {})}
              />
              <p className="pointer-events-none absolute top-2 left-3 text-[12.5px]">
                <span className="font-medium">{candidate.name}</span>{' '}
                <span className="text-muted">moves {((picture.mostMm * factor) / found.factor).toFixed(2)} mm</span>
              </p>
            </div>
          ))}
        </div>
        {ready.length > 0 && (
          <div className="flex min-h-9 flex-wrap items-center gap-x-5 border-t border-line px-3 py-1">
            <KeyStrip of={{ kind: 'scale', scale: 'viridis', low: 0, high: 100, unit: '% of failing' }} />
            <p className="text-[12px] text-muted">
              {wholeCases(purpose).length > 0
                ? `Under ${factor.toFixed(2)} × the loads`
                : `Under ${factor.toFixed(0)} N${wanted === factor ? ', as wanted' : ready.length > 1 ? ', which the weaker just bears' : ', which it just bears'}`}
              ; drawn moved {times.toFixed(0)} × as far. The dot marks where it fails first.
              {hasStrokes && (
                <>
                  {' '}
                  Strokes: pulled{' '}
                  <span
                    aria-hidden
                    className="inline-block h-0.5 w-4 align-middle ring-1 ring-line"
                    style={{ background: strokeColours.pulled }}
                  />
                  , pressed{' '}
                  <span aria-hidden className="inline-block h-0.5 w-4 align-middle" style={{ background: strokeColours.pressed }} />.
                </>
              )}
            </p>
          </div>
        )}
      </div>
      <aside aria-label="Solved load" className="w-[26rem] shrink-0 space-y-4 overflow-auto border-l border-line px-3 py-2">
        {failed && (
          <p role="alert" className="text-stop">
            {failed}
          </p>
        )}
        <SolvedLoads solved={solved} wantedN={wanted} />
        <CasesForm cases={purpose.cases} picker={picker} />
        <Stronger candidate={pair.of} />
        <p className="text-[12px] text-muted">
          A predicted load is an estimate for one material and one load, never a rating. Test the real part with a margin; never lift people
          or hang loads over people with it.
        </p>
      </aside>
    </div>
  )
}

/** What single changes give and cost, solved on finer cells once that is asked for: it takes some seconds each. */
function Stronger({ candidate }: { candidate: Candidate }) {
  const prediction = useForecasts((all) => all[candidate.id]?.prediction)
  const [asked, setAsked] = useState<string>()
  if (!prediction) return null
  return (
    <>
      {asked === candidate.id ? (
        <Gains candidate={candidate} prediction={prediction} isSolved />
      ) : (
        <Button onClick={() => setAsked(candidate.id)}>What would make {candidate.name} stronger?</Button>
      )}
      <LeastTimePanel key={candidate.id} candidate={candidate} prediction={prediction} />
    </>
  )
}
