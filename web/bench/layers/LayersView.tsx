import { layerAt } from '@sable/core/slicing/layers'
import { copyPlaces } from '@sable/core/toolpath/copyPaths'
import type { DrawnMoves } from '@sable/core/views/drawnMoves'
import { SquareDashed } from 'lucide-react'
import { useEffect, useMemo, useState } from 'react'
import { keyOf } from '../../charts/colourings'
import { flatView } from '../../charts/FlatDrawing'
import { KeyStrip } from '../../charts/KeyStrip'
import { useBench } from '../../desk/bench'
import { type ReadyDrawn, readyOf, useMoves } from '../../predictions/useDrawn'
import { Button } from '../../ui/Button'
import { TableSheet } from '../../ui/TableSheet'
import { useAddress } from '../../ui/useAddress'
import { useSize } from '../../ui/useSize'
import { ViewBar } from '../../ui/ViewBar'
import { PlacesOnLayer } from '../places/PlacesOnLayer'
import { PlacesPanel } from '../places/PlacesPanel'
import { roundedBox } from '../places/placeBox'
import { usePlaces } from '../places/usePlaces'
import { ChoosePair, type Pair, WithPair } from '../shell/CandidatePair'
import { boxesOf } from './boxes'
import { CutBar } from './CutBar'
import { type Cut, LayerDrawing } from './LayerDrawing'
import { LayersBar } from './LayersBar'
import { PlayBar } from './PlayBar'
import { StripLog } from './StripLog'
import { jumpsOf, timeGroups, tracks } from './tracks'
import { useLayersChoice } from './useLayersChoice'
import { usePlayhead } from './usePlayhead'

/** Every layer of a candidate, or of two at the same height: what changes up the part, and what is laid where. */
export function LayersView() {
  const { content } = useBench()
  return <WithPair candidates={content.candidates}>{(pair) => <Layers pair={pair} />}</WithPair>
}

function Layers({ pair }: { pair: Pair }) {
  const { content, part, shelf } = useBench()
  const address = useAddress()
  const of = useMoves(pair.of, content, part, shelf)
  const beside = useMoves(pair.beside, content, part, shelf)
  const all = [of, beside].filter((one) => one !== undefined)
  const ready = readyOf(all)
  const stuck = all.find(({ failed }) => failed !== undefined)
  return (
    <section aria-label="Layers" className="flex min-h-0 flex-1 flex-col">
      {ready.length > 0 && ready[0]!.candidate.id === pair.of.id ? (
        <LayersOf ready={ready} waiting={all.length - ready.length} pair={pair} />
      ) : (
        <>
          <ViewBar>
            <ChoosePair pair={pair} candidates={content.candidates} address={address} />
          </ViewBar>
          <p role={stuck ? 'alert' : 'status'} className="m-auto max-w-md p-8 text-center text-muted">
            {stuck ? `${stuck.candidate.name} cannot be drawn. ${stuck.failed}` : 'Laying the paths …'}
          </p>
        </>
      )}
    </section>
  )
}

function LayersOf({ ready, waiting, pair }: { ready: readonly ReadyDrawn<DrawnMoves>[]; waiting: number; pair: Pair }) {
  const { content, shelf } = useBench()
  const { get, set } = useAddress()
  const places = usePlaces(pair.of)
  const [isDrawing, setDrawing] = useState(false)
  const [table, setTable] = useState(false)
  const [only, setOnly] = useState<number>()
  const { ref: frame, height } = useSize()
  const [first] = ready as [ReadyDrawn<DrawnMoves>]
  const tops = first.drawing.layerTop
  // Scrubbing must not wait for the address, which browsers let change only so often.
  const [layer, setLayerNow] = useState(() => layerAt(tops, Number(get('z') ?? tops[Math.floor(first.prediction.layerCount / 2)]) - HAIR))
  const last = first.prediction.layerCount - 1
  const shownLayer = Math.min(layer, last)
  const z = tops[shownLayer]!
  useEffect(() => {
    const wait = setTimeout(() => set({ z: z.toFixed(3) }), 250)
    return () => clearTimeout(wait)
  }, [z, set])
  const goTo = (height: number): void => setLayerNow(layerAt(tops, height - HAIR))

  const choice = useLayersChoice()
  const { by, axis, travels, byFeature, tracks: shownTracks } = choice
  const logged = useMemo(
    () => ready.map(({ candidate, prediction, drawing }) => ({ name: candidate.name, prediction, moves: drawing })),
    [ready],
  )

  const moves = useMemo(() => ready.map((one) => one.drawing), [ready])
  const boxes = useMemo(() => boxesOf(moves), [moves])
  const [low, high] = boxes[axis ?? 'x']
  const [at, setAt] = useState<number>()
  const place = Math.max(low, Math.min(high, at ?? Number(get('at') ?? (low + high) / 2)))
  const cutOf = (own: DrawnMoves): Cut => (axis ? { kind: axis, at: place } : { kind: 'layer', layer: layerAt(own.layerTop, z - HAIR) })
  const colourKey = useMemo(() => keyOf(by, moves), [by, moves])
  // biome-ignore lint/correctness/useExhaustiveDependencies: a cut looks elsewhere than a layer does.
  const view = useMemo(() => flatView(), [axis])

  const layerTime = Math.max(...ready.map((one) => one.drawing.layerTime[layerAt(one.drawing.layerTop, z - HAIR)]!))
  const before = first.drawing.layerTime.slice(0, shownLayer).reduce((sum, s) => sum + s, 0)
  const playhead = usePlayhead(shownLayer, layerTime, () => {
    if (shownLayer >= last) return false
    setLayerNow(shownLayer + 1)
    return true
  })
  const { sizeMm } = first.prediction.mesh
  const copies = useMemo(() => copyPlaces(sizeMm, first.prediction.settings), [sizeMm, first.prediction.settings])
  // The layers of a tilted belt lean, and what stands upright on it is no box in them.
  const isLevel = shelf.printers.find(({ key }) => key === pair.of.printer)?.kinematics !== 'tiltedBelt'
  const jumps = jumpsOf(ready.map(({ prediction }) => prediction))

  return (
    <>
      <LayersBar
        pair={pair}
        candidates={content.candidates}
        choice={choice}
        waiting={waiting}
        jumps={jumps}
        z={z}
        onZ={goTo}
        onColouring={() => setOnly(undefined)}
        onCut={() => setAt(undefined)}
        onTable={() => setTable(true)}
      />
      <div ref={frame} className="flex min-h-0 flex-1">
        <div className="shrink-0 overflow-x-auto border-r border-line py-2 pl-1" style={{ maxWidth: '52%' }}>
          {height > 60 && (
            <StripLog logged={logged} tracks={shownTracks} byFeature={byFeature} z={z} height={height - (byFeature ? 38 : 16)} onZ={goTo} />
          )}
          {byFeature && (
            <p className="flex gap-3 pl-11 text-[12px] text-muted">
              {timeGroups.map(({ id, label, colour }) => (
                <span key={id} className="flex items-center gap-1.5 whitespace-nowrap">
                  <span aria-hidden className="h-2 w-3.5 rounded-full" style={{ background: colour }} />
                  {label}
                </span>
              ))}
            </p>
          )}
        </div>
        <div className="flex min-w-0 flex-1 flex-col">
          <div className="flex min-h-0 flex-1 divide-x divide-line">
            {ready.map((one, i) => (
              <LayerDrawing
                key={one.candidate.id}
                name={one.candidate.name}
                moves={one.drawing}
                cut={cutOf(one.drawing)}
                by={by}
                colourKey={colourKey}
                only={only}
                travels={travels}
                seconds={playhead.seconds}
                box={boxes[axis ? (axis === 'x' ? 'acrossX' : 'acrossY') : 'plan']}
                view={view}
              >
                {choice.places && isLevel && i === 0 && (
                  <PlacesOnLayer
                    places={places}
                    z={z - HAIR}
                    copies={copies}
                    view={view}
                    isDrawing={isDrawing}
                    onDrawn={(box) => {
                      setDrawing(false)
                      if (box) places.add({ fromZ: 0, box: roundedBox(box) })
                    }}
                  />
                )}
              </LayerDrawing>
            ))}
          </div>
          <div className="shrink-0 border-t border-line px-3 py-2">
            <KeyStrip of={colourKey} only={only} onOnly={setOnly} />
            {axis ? (
              <CutBar axis={axis} low={low} high={high} place={place} onPlace={setAt} onRest={() => set({ at: place.toFixed(1) })} />
            ) : (
              <PlayBar playhead={playhead} layerTime={layerTime} layer={shownLayer} layers={last + 1} before={before} />
            )}
          </div>
        </div>
        {choice.places && (
          <PlacesPanel candidate={pair.of} places={places} onClose={() => set({ places: undefined })}>
            {isLevel ? (
              <>
                <Button tone={isDrawing ? 'main' : 'quiet'} disabled={places.isFull} onClick={() => setDrawing(!isDrawing)}>
                  <SquareDashed className="size-3.5" aria-hidden /> Draw a box
                </Button>
                {isDrawing && (
                  <p role="status" className="text-lantern-ink">
                    Pull over the part from corner to corner. Escape leaves it.
                  </p>
                )}
              </>
            ) : (
              <p className="text-muted">
                On a tilted belt layers lean over the part: a box is told by its numbers, in the part’s own frame.
              </p>
            )}
          </PlacesPanel>
        )}
      </div>
      {table && (
        <TableSheet
          title={`Layers of ${first.candidate.name}`}
          rowCount={last + 1}
          columns={[
            { label: 'Layer', digits: 0, of: (row) => row + 1 },
            { label: 'z', unit: 'mm', of: (row) => first.prediction.tracks.z[row] },
            ...tracks.map((track) => {
              const values = track.of(first.prediction, first.drawing)
              return { label: track.label, unit: track.unit, digits: track.digits, of: (row: number) => values?.[row] }
            }),
          ]}
          onClose={() => setTable(false)}
        />
      )}
    </>
  )
}

/** Heights in an address are rounded: within this, mm, of a layer's top they mean that layer. */
const HAIR = 1e-3
