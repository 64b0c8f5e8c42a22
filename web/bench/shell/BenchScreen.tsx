import { useQuery, useQueryClient } from '@tanstack/react-query'
import { lazy, Suspense, useEffect, useState } from 'react'
import { useParams } from 'react-router'
import { RequestError } from '../../api/client'
import { fetchLineup, lineupsQuery } from '../../api/lineups'
import { partsQuery } from '../../api/parts'
import { shelfQuery } from '../../api/shelf'
import { Lost } from '../../app/Lost'
import { restoreUnsaved, startAutosave } from '../../desk/autosave'
import { BenchProvider } from '../../desk/bench'
import { openLineup, redo, undo, useDesk } from '../../desk/deskStore'
import { followLineup } from '../../predictions/predictionStore'
import { followSolved } from '../../predictions/solvedStore'
import { Loading } from '../../ui/Loading'
import { Notice, type Refusal } from '../../ui/Notice'
import { Ledger } from '../ledger/Ledger'
import { PartStrip } from '../part/PartStrip'
import { takeAhead } from './ahead'
import { ConflictQuestion } from './ConflictQuestion'
import { LineupBar } from './LineupBar'
import { lastLineup } from './lastLineup'
import { type BenchView, benchViews, SHEET } from './views'

// What a view draws with is loaded when it is opened; the figures must not wait for it.
const LayersView = lazy(() => import('../layers/LayersView').then(({ LayersView }) => ({ default: LayersView })))
const LoadView = lazy(() => import('../load/LoadView').then(({ LoadView }) => ({ default: LoadView })))
const MatrixView = lazy(() => import('../matrix/MatrixView').then(({ MatrixView }) => ({ default: MatrixView })))
const SheetView = lazy(() => import('../sheet/SheetView').then(({ SheetView }) => ({ default: SheetView })))
const StepsView = lazy(() => import('../steps/StepsView').then(({ StepsView }) => ({ default: StepsView })))
const TradeoffsView = lazy(() => import('../tradeoffs/TradeoffsView').then(({ TradeoffsView }) => ({ default: TradeoffsView })))
const SurfaceView = lazy(() => import('../surface/SurfaceView').then(({ SurfaceView }) => ({ default: SurfaceView })))

/** The bench: one part, its candidates side by side. */
export function BenchScreen() {
  const { lineupId = '', view } = useParams()
  const opening = useOpenLineup(lineupId)
  const openId = useDesk((desk) => desk.lineupId)
  const content = useDesk((desk) => desk.content)
  const shelf = useQuery(shelfQuery)
  const parts = useQuery(partsQuery)
  const [refusal, setRefusal] = useState<Refusal>()
  const part = parts.data?.find(({ id }) => id === content?.partId)
  useUndoKeys()

  useEffect(() => {
    if (openId !== lineupId || !content || !part || !shelf.data) return
    followLineup(content, part, shelf.data)
    followSolved({ content, part, shelf: shelf.data })
  }, [openId, lineupId, content, part, shelf.data])
  useEffect(() => () => followSolved(undefined), [])

  useEffect(() => {
    document.title = content && openId === lineupId ? `${content.name} · Sable Lantern` : 'Sable Lantern'
  }, [content, openId, lineupId])

  if (opening instanceof RequestError && opening.problem.status === 404) return <Lost what="There is no such lineup." />
  if (!isView(view) && view !== SHEET) return <Lost what="The bench has no such view." />
  if (openId === lineupId && content && parts.data && !part && !parts.isFetching)
    return <Lost what="The part of this lineup cannot be read. It is set aside: look on the shelf." />
  if (openId !== lineupId || !content || !shelf.data || !parts.data || !part) {
    return <Loading what="the lineup" failed={opening ?? shelf.failureReason ?? parts.failureReason} />
  }
  return (
    <div className="flex min-h-0 flex-1 flex-col short:overflow-y-auto">
      {view !== SHEET && (
        <h1 className="sr-only">
          {content.name}: {view}
        </h1>
      )}
      <BenchProvider value={{ content, part, shelf: shelf.data, onRefusal: setRefusal }}>
        <LineupBar />
        {view !== SHEET && <PartStrip parts={parts.data} />}
        {refusal && (
          <div className="px-3 pt-2">
            <Notice refusal={refusal} onClose={() => setRefusal(undefined)} />
          </div>
        )}
        {/* In a low or magnified window the view keeps a height of its own, and is scrolled to. */}
        <div className="flex min-h-0 flex-1 flex-col short:min-h-[92dvh] short:shrink-0">
          {view === 'ledger' && <Ledger />}
          <Suspense fallback={<Loading what={view} />}>
            {view === 'matrix' && <MatrixView />}
            {view === 'steps' && <StepsView />}
            {view === SHEET && <SheetView />}
            {view === 'trade-offs' && <TradeoffsView />}
            {view === 'surface' && <SurfaceView />}
            {view === 'load' && <LoadView />}
            {view === 'layers' && <LayersView />}
          </Suspense>
        </div>
        <ConflictQuestion />
      </BenchProvider>
    </div>
  )
}

const isView = (text: string | undefined): text is BenchView => (benchViews as readonly (string | undefined)[]).includes(text)

/** Fetches a lineup onto the desk and saves its edits for as long as it is open. Returns what stands in the way. */
function useOpenLineup(lineupId: string): Error | null {
  const queries = useQueryClient()
  const lineup = useQuery({
    queryKey: ['lineup', lineupId],
    queryFn: () => takeAhead(lineupId) ?? fetchLineup(lineupId),
    // The desk is the truth while it is open; an old answer must not come back when the lineup is opened again.
    gcTime: 0,
    staleTime: Number.POSITIVE_INFINITY,
    retry: (_count, error) => !(error instanceof RequestError && error.problem.status >= 400 && error.problem.status < 500),
  })
  useEffect(() => {
    if (!lineup.data) return
    openLineup(lineup.data)
    // Before the ledger is drawn, where all is at hand: its figures are on the way meanwhile.
    const { partId } = lineup.data
    const shelf = queries.getQueryData(shelfQuery.queryKey)
    const part = queries.getQueryData(partsQuery.queryKey)?.find(({ id }) => id === partId)
    if (shelf && part) followLineup(lineup.data, part, shelf)
    lastLineup.set(lineup.data.id)
    const stop = startAutosave(() => void queries.invalidateQueries(lineupsQuery))
    restoreUnsaved(lineup.data)
    return stop
  }, [lineup.data, queries])
  return lineup.failureReason
}

function useUndoKeys(): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (!(event.ctrlKey || event.metaKey) || event.altKey) return
      // Inside a field the browser's own undo belongs to what is being typed.
      if (event.target instanceof HTMLElement && event.target.closest('input, textarea, select, [role=dialog]')) return
      const key = event.key.toLowerCase()
      if (key === 'z' && !event.shiftKey) undo()
      else if (key === 'y' || (key === 'z' && event.shiftKey)) redo()
      else return
      event.preventDefault()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])
}
