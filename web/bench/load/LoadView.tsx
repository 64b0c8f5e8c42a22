import type { LineupContent } from '@sable/contract/lineup'
import { unfitWords } from '@sable/core/figures/table/strength'
import { loadKinds } from '@sable/core/physics/strength/sectionLoads'
import type { LoadFigure } from '@sable/core/physics/strength/strengthFigures'
import { formatForce, inWords } from '@sable/core/units/format'
import type { LoadMap } from '@sable/core/views/loadMap'
import { MousePointerClick, Table2 } from 'lucide-react'
import { useEffect, useMemo, useState } from 'react'
import { KeyStrip } from '../../charts/KeyStrip'
import { useBench } from '../../desk/bench'
import { edit } from '../../desk/deskStore'
import { setPurpose } from '../../desk/edits'
import { type Drawn, type ReadyDrawn, readyOf, useLoads, useMoves } from '../../predictions/useDrawn'
import { useSolved } from '../../predictions/useSolved'
import { type Solid, SolidDrawing, solidView } from '../../solids/SolidDrawing'
import { TurnableFrame } from '../../solids/TurnableFrame'
import { Button, IconButton } from '../../ui/Button'
import { Choices } from '../../ui/Choices'
import { SaveMenu } from '../../ui/SaveMenu'
import { Select } from '../../ui/Select'
import { TableSheet } from '../../ui/TableSheet'
import { useAddress } from '../../ui/useAddress'
import { useSize } from '../../ui/useSize'
import { BarGap, ViewBar } from '../../ui/ViewBar'
import { LoadArrow } from '../part/LoadArrow'
import { ChoosePair, type Pair, WithPair } from '../shell/CandidatePair'
import { AlongChart, CHART_LEFT, CHART_RIGHT } from './AlongChart'
import { BandsSheet } from './BandsSheet'
import { type Bearing, bearingOf, stressRatios } from './bearing'
import { FreeBody } from './FreeBody'
import { Gains } from './Gains'
import { loadFromPicks, type Point } from './loadFromPicks'
import { SolvedView } from './SolvedView'
import { bandsOf } from './solvedDrawing'
import { WeakestSection } from './WeakestSection'

const models = [
  { id: 'solved', name: 'solved' },
  { id: 'sections', name: 'by sections' },
] as const

/** Where the part is held and loaded, what it bears along its length, and what more would cost. */
export function LoadView() {
  const { content } = useBench()
  return <WithPair candidates={content.candidates}>{(pair) => <Load pair={pair} />}</WithPair>
}

type Loaded = ReadyDrawn<LoadMap> & { readonly bearing: Bearing }

function Load({ pair }: { pair: Pair }) {
  const { content, part, shelf } = useBench()
  const address = useAddress()
  const model = models.find(({ id }) => id === address.get('model'))?.id ?? 'solved'
  const cut = model === 'sections' ? pair : undefined
  const of = useLoads(cut?.of, content, part, shelf)
  const beside = useLoads(cut?.beside, content, part, shelf)
  const ofMoves = useMoves(cut?.of, content, part, shelf)
  const besideMoves = useMoves(cut?.beside, content, part, shelf)
  const { purpose } = content
  const loaded = [useBearing(of, content), useBearing(beside, content)].filter((one) => one !== undefined)
  const moves = readyOf([ofMoves, besideMoves])
  const solved = useSolved(pair.beside ? [pair.of, pair.beside] : [pair.of])
  const stuck = [of, beside].find((one) => one?.failed !== undefined)
  const [table, setTable] = useState(false)
  const { ref: right, width } = useSize()
  const [first] = loaded
  const wantedN = purpose.limits.minLoadN
  const bands =
    model === 'solved' ? solved.flatMap(({ candidate, picture }) => (picture ? [{ candidate, bands: bandsOf(picture, 1) }] : [])) : []
  return (
    <section aria-label="Load" className="flex min-h-0 flex-1 flex-col">
      <ViewBar>
        <ChoosePair pair={pair} candidates={content.candidates} address={address} />
        {(purpose.cases.length === 0 || model === 'sections') && (
          <Select
            label="Load"
            value={purpose.load.kind}
            of={loadKinds.map((id) => ({ id, name: inWords(id) }))}
            onChange={(kind) => edit((before) => setPurpose(before, { ...before.purpose, load: { ...before.purpose.load, kind } }))}
          />
        )}
        <Choices
          label=""
          name="Model"
          of={models}
          value={model}
          onChange={(id) => id && address.set({ model: id === 'solved' ? undefined : id })}
        />
        <BarGap />
        {first && model === 'sections' && (
          <p className="text-[12.5px]">
            {loaded.map(({ candidate, bearing }) => (
              <span key={candidate.id} className="ml-4">
                <span className="text-muted">{candidate.name} bears</span>{' '}
                <span className={`figure ${wantedN !== undefined && bearing.load.loadN < wantedN ? 'text-stop' : ''}`}>
                  {formatForce(bearing.load.loadN)}
                </span>
              </span>
            ))}
          </p>
        )}
        <SaveMenu name={`load on ${pair.of.name}`} />
        <IconButton
          label={model === 'solved' ? 'Table by height' : 'Table of the sections'}
          disabled={model === 'solved' ? bands.length === 0 : !first}
          onClick={() => setTable(true)}
        >
          <Table2 className="size-4" />
        </IconButton>
      </ViewBar>
      {stuck && (
        <p role="alert" className="px-3 pt-2 text-stop">
          {stuck.candidate.name} cannot be judged. {stuck.failed}
        </p>
      )}
      {model === 'solved' ? (
        <SolvedView pair={pair} solved={solved} />
      ) : first ? (
        <div className="grid min-h-0 flex-1 grid-cols-2">
          <div className="flex min-h-0 flex-col border-r border-line">
            <LoadedPart loaded={first} />
            <div className="max-h-[42%] shrink-0 overflow-auto border-t border-line px-3 py-2">
              {/* Where there is no number no change can be said to raise it. */}
              {first.bearing.load.unfit ? (
                <p role="note" className="text-[12.5px]">
                  {unfitWords[first.bearing.load.unfit][1]} There is no number for it.
                </p>
              ) : (
                <Gains candidate={first.candidate} prediction={first.prediction} />
              )}
              <p className="mt-2 text-[12px] text-muted">
                A predicted load is an estimate for one material and one load, never a rating. Test the real part with a margin; never lift
                people or hang loads over people with it.
              </p>
            </div>
          </div>
          <div ref={right} className="flex min-h-0 min-w-0 flex-col">
            {width > 0 && (
              <FreeBody
                bearing={first.bearing}
                forceN={wantedN ?? first.bearing.load.loadN}
                left={CHART_LEFT}
                width={width - CHART_LEFT - CHART_RIGHT}
              />
            )}
            <div className="min-h-32 flex-[1.1]">
              {loaded.every(({ bearing }) => bearing.load.unfit) ? (
                <p className="flex h-full items-center justify-center text-muted">Sections say nothing about this load.</p>
              ) : (
                <AlongChart borne={loaded.map(({ candidate, bearing }) => ({ name: candidate.name, bearing }))} wantedN={wantedN} />
              )}
            </div>
            <Axes loaded={loaded} kind={purpose.load.kind} />
            <div className="flex min-h-32 flex-1 divide-x divide-line border-t border-line">
              {loaded.map(({ candidate, bearing }) => {
                const own = moves.find((one) => one.candidate.id === candidate.id)
                if (bearing.load.unfit)
                  return (
                    <p key={candidate.id} className="m-auto max-w-xs text-center text-muted">
                      {unfitWords[bearing.load.unfit][1]}
                    </p>
                  )
                return own ? (
                  <WeakestSection key={candidate.id} name={candidate.name} bearing={bearing} moves={own.drawing} />
                ) : (
                  <p key={candidate.id} role="status" className="m-auto text-muted">
                    Laying the paths …
                  </p>
                )
              })}
            </div>
          </div>
        </div>
      ) : (
        !stuck && (
          <p role="status" className="m-auto p-8 text-muted">
            Cutting sections …
          </p>
        )
      )}
      {table && bands[0] && <BandsSheet bands={bands} onClose={() => setTable(false)} />}
      {table && model === 'sections' && first && (
        <TableSheet
          title={`Sections of ${loaded.map(({ candidate }) => candidate.name).join(' and ')} along ${first.bearing.load.along}`}
          rowCount={first.bearing.sections.atMm.length}
          columns={[
            { label: 'Along', unit: 'mm', digits: 1, of: (row) => first.bearing.sections.atMm[row]! - first.bearing.from },
            ...loaded.flatMap(({ candidate, bearing: { sections, load } }) => {
              const name = loaded.length > 1 ? `${candidate.name}: ` : ''
              const loads = sections.loadN[load.kind]
              return [
                { label: `${name}area`, unit: 'mm²', digits: 1, of: (row: number) => sections.areaMm2[row] },
                { label: `${name}bears`, unit: 'N', digits: 1, of: (row: number) => finite(loads[row]) },
                {
                  label: `${name}stress ratio`,
                  unit: '',
                  of: (row: number) => finite(load.loadN / (loads[row] ?? Number.NaN)) || undefined,
                },
              ]
            }),
          ]}
          onClose={() => setTable(false)}
        />
      )}
    </section>
  )
}

function useBearing(one: Drawn<LoadMap> | undefined, { purpose }: LineupContent): Loaded | undefined {
  const { candidate, prediction, drawing, failed } = one ?? {}
  return useMemo(
    () =>
      candidate && prediction && drawing
        ? { candidate, prediction, drawing, failed, bearing: bearingOf(prediction, drawing, purpose) }
        : undefined,
    [candidate, prediction, drawing, failed, purpose],
  )
}

const finite = (value: number | undefined): number | undefined => (value !== undefined && Number.isFinite(value) ? value : undefined)

/** The part wearing how near each section is to failing; two clicks say where it is held and where it is loaded. */
function LoadedPart({ loaded }: { loaded: Loaded }) {
  const { content } = useBench()
  const { drawing, bearing, candidate } = loaded
  const view = useMemo(() => solidView(), [])
  const [picking, setPicking] = useState<'held' | 'loaded'>()
  const [held, setHeld] = useState<Point>()
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.key === 'Escape') setPicking(undefined)
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])
  const solid = useMemo(
    (): Solid => ({
      corners: drawing.corners,
      shares: stressRatios(bearing),
      by: { along: bearing.along, low: bearing.from, high: bearing.to },
      scale: 'viridis',
      only: bearing.sections.bears,
    }),
    [drawing, bearing],
  )
  const { purpose } = content
  const shown = purpose.load.axis === 'weakest' && bearing.axis ? { ...purpose.load, axis: bearing.axis } : purpose.load
  const pick = (at: Point): void => {
    if (picking === 'held') {
      setHeld(at)
      setPicking('loaded')
      return
    }
    const load = held && loadFromPicks(purpose.load, held, at, drawing.corners)
    if (load) edit((before) => setPurpose(before, { ...before.purpose, load }))
    setPicking(undefined)
  }
  return (
    <TurnableFrame name={candidate.name} view={view}>
      <SolidDrawing
        label={`${candidate.name}: how near each section is to failing`}
        solid={solid}
        view={view}
        {...(picking ? { onClick: ({ at }: { at: Point }) => pick(at) } : {})}
        over={(half) => (shown.axis === 'weakest' ? null : <LoadArrow load={shown} half={half} color="#f0a83c" />)}
      />
      <div className="absolute top-2 right-3 left-3 flex items-center gap-3">
        <Button tone={picking ? 'main' : 'quiet'} onClick={() => setPicking(picking ? undefined : 'held')}>
          <MousePointerClick className="size-3.5" aria-hidden /> {picking ? 'Leave it' : 'Point at hold and load'}
        </Button>
        {picking && (
          <p role="status" className="text-[12.5px] text-lantern-ink">
            Click the part where it is {picking}.
          </p>
        )}
      </div>
      <div className="absolute bottom-1.5 left-3">
        <KeyStrip of={{ kind: 'scale', scale: 'viridis', low: 0, high: 100, unit: '% of failing, when the weakest section fails' }} />
      </div>
    </TurnableFrame>
  )
}

/** What is told of a load in place of where it fails: that the whole gives way, or that sections say nothing. */
const wayToFail = ({ by, unfit }: Partial<LoadFigure> = {}): string | undefined =>
  unfit
    ? unfitWords[unfit][0]
    : by === 'buckling'
      ? 'by giving way sideways'
      : by === 'deflection'
        ? 'by giving way a tenth of its arm'
        : undefined

/** What fails along each axis: a layer within itself, or the bond between two. */
function Axes({ loaded, kind }: { loaded: readonly Loaded[]; kind: Loaded['bearing']['load']['kind'] }) {
  return (
    <table className="mx-3 mb-2 text-[12px]" aria-label="Along each axis">
      <thead>
        <tr className="text-left text-[12px] text-muted">
          <th className="font-normal">{inWords(kind)} along</th>
          <th className="font-normal">fails</th>
          {loaded.map(({ candidate }) => (
            <th key={candidate.id} className="text-right font-normal">
              {candidate.name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {(['X', 'Y', 'Z'] as const).map((axis) => (
          <tr key={axis} className="border-t border-line/60">
            <td className="py-0.5">{axis}</td>
            <td className="text-muted">
              {wayToFail(loaded[0]?.prediction.strength[`${kind}${axis}`]) ??
                (axis === 'Z' && kind !== 'crush'
                  ? `between layers, bonded to ${loaded.map(({ prediction }) => `${Math.round(100 * prediction.bond.worst)} %`).join(' and ')} at worst`
                  : 'within its layers')}
            </td>
            {loaded.map(({ candidate, prediction, bearing }) => (
              <td key={candidate.id} className={`figure text-right ${bearing.load.along === axis ? 'text-lantern-ink' : ''}`}>
                {formatForce(prediction.strength[`${kind}${axis}`].loadN)}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  )
}
