import { layerAt } from '@sable/core/slicing/layers'
import type { SurfaceMap } from '@sable/core/views/surfaceMap'
import { Rotate3d, SquareDashed, Table2, X } from 'lucide-react'
import { useEffect, useMemo, useState } from 'react'
import { Link } from 'react-router'
import { KeyStrip } from '../../charts/KeyStrip'
import { useBench } from '../../desk/bench'
import { useDesk } from '../../desk/deskStore'
import { type ReadyDrawn, readyOf, useSurface } from '../../predictions/useDrawn'
import { type Solid, SolidDrawing, type SolidView, solidView, type Touch } from '../../solids/SolidDrawing'
import { TurnableFrame } from '../../solids/TurnableFrame'
import { Button, IconButton } from '../../ui/Button'
import { SaveMenu } from '../../ui/SaveMenu'
import { Select } from '../../ui/Select'
import { TableSheet } from '../../ui/TableSheet'
import { useAddress } from '../../ui/useAddress'
import { BarGap, ViewBar } from '../../ui/ViewBar'
import { OrientationsSheet } from '../part/OrientationsSheet'
import { FacePanel } from '../places/FacePanel'
import { edgesOfPlace, facetsOfPlace } from '../places/placeBox'
import { useFacePicking } from '../places/useFacePicking'
import { type Places, usePlaces } from '../places/usePlaces'
import { ChoosePair, type Pair, WithPair } from '../shell/CandidatePair'
import { type MapKind, mapKinds, meansByLayer, type Range, rangeOf, readingAt } from './maps'

/** The part wearing a map of what its surface will be like, for one candidate or two under one scale. */
export function SurfaceView() {
  const { content } = useBench()
  return <WithPair candidates={content.candidates}>{(pair) => <Surface pair={pair} />}</WithPair>
}

function Surface({ pair }: { pair: Pair }) {
  const { content, part, shelf } = useBench()
  const address = useAddress()
  const of = useSurface(pair.of, content, part, shelf)
  const beside = useSurface(pair.beside, content, part, shelf)
  const all = [of, beside].filter((one) => one !== undefined)
  const ready = readyOf(all)
  const stuck = all.find(({ failed }) => failed !== undefined)
  const kind = mapKinds.find(({ id }) => id === address.get('map')) ?? mapKinds[0]!
  const view = useMemo(() => solidView(), [])
  const range = rangeOf(kind, ready)
  const [table, setTable] = useState(false)
  const [lying, setLying] = useState(false)
  const places = usePlaces(pair.of)
  const picking = useFacePicking(pair.of, places)
  const isOpen = address.get('places') === 'on'
  // The layers of a tilted belt lean, and the part is drawn as they lie.
  const isLevel = shelf.printers.find(({ key }) => key === pair.of.printer)?.kinematics !== 'tiltedBelt'
  const [first] = ready
  return (
    <section aria-label="Surface" className="flex min-h-0 flex-1 flex-col">
      <ViewBar>
        <ChoosePair pair={pair} candidates={content.candidates} address={address} />
        <Select
          label="Map"
          value={kind.id}
          of={mapKinds.map(({ id, label }) => ({ id, name: label }))}
          onChange={(id) => address.set({ map: id === 'roughness' ? undefined : id })}
        />
        <BarGap />
        {ready.length < all.length && !stuck && (
          <span role="status" className="text-[12px] text-muted">
            Mapping …
          </span>
        )}
        <Button aria-pressed={isOpen} onClick={() => address.set({ places: isOpen ? undefined : 'on' })}>
          <SquareDashed className="size-3.5" aria-hidden /> Places
        </Button>
        <Button onClick={() => setLying(true)}>
          <Rotate3d className="size-3.5" aria-hidden /> Orientations
        </Button>
        <SaveMenu name={`surface of ${pair.of.name}, ${kind.label}`} />
        <IconButton label="Table of the map" disabled={!first} onClick={() => setTable(true)}>
          <Table2 className="size-4" />
        </IconButton>
      </ViewBar>
      {stuck && (
        <p role="alert" className="px-3 pt-2 text-stop">
          {stuck.candidate.name} cannot be mapped. {stuck.failed}
        </p>
      )}
      <div className="flex min-h-0 flex-1 divide-x divide-line">
        {ready.map((one, i) => (
          <OneMap
            key={one.candidate.id}
            one={one}
            kind={kind}
            range={range}
            view={view}
            places={isOpen && isLevel && i === 0 ? places : undefined}
            onFace={isOpen && picking.isPicking && i === 0 ? picking.pick : undefined}
          />
        ))}
        {!first && !stuck && (
          <p role="status" className="m-auto p-8 text-muted">
            Mapping the surface …
          </p>
        )}
        {isOpen && (
          <FacePanel
            candidate={pair.of}
            places={places}
            picking={isLevel ? picking : undefined}
            onClose={() => {
              picking.stop()
              address.set({ places: undefined })
            }}
          />
        )}
      </div>
      <div className="flex shrink-0 items-center gap-4 border-t border-line px-3 py-2">
        {kind.id === 'seam' ? (
          <p className="text-[12px] text-muted">A dot for each place where a closed outer wall begins.</p>
        ) : (
          <KeyStrip of={{ kind: 'scale', scale: kind.scale, ...range, unit: kind.unit, digits: range.high < 5 ? 2 : 0 }} />
        )}
        <p className="min-w-0 flex-1 truncate text-[12px] text-muted" data-hint={kind.help}>
          {kind.help}
        </p>
      </div>
      {table && first && <MapTable ready={ready} onClose={() => setTable(false)} />}
      {lying && <OrientationsSheet onClose={() => setLying(false)} />}
    </section>
  )
}

/** Samples of a layer map up the part: enough for the thinnest layers. */
const HEIGHTS = 4096

function OneMap({
  one,
  kind,
  range,
  view,
  places,
  onFace,
}: {
  one: ReadyDrawn<SurfaceMap>
  kind: MapKind
  range: Range
  view: SolidView
  /** Drawn over the part. */
  places: Places | undefined
  /** Takes clicks while faces are picked. */
  onFace: ((touch: Touch) => void) | undefined
}) {
  const { candidate, prediction, drawing } = one
  const [touch, setTouch] = useState<Touch>()
  const [place, setPlace] = useState<Touch>()
  const lineup = useDesk((desk) => desk.lineupId)
  const solid = useMemo((): Solid => {
    const share = (value: number): number => (value - range.low) / (range.high - range.low)
    const facets = kind.ofFacets?.(drawing)
    if (facets) return { corners: drawing.corners, shares: Float32Array.from(facets, share), by: 'facet', scale: kind.scale }
    const layers = kind.ofLayers?.(prediction, drawing)
    if (!layers) return { corners: drawing.corners, shares: undefined, by: 'nothing', scale: kind.scale }
    const { z } = prediction.tracks
    const top = z.at(-1) ?? 1
    const shares = Float32Array.from({ length: HEIGHTS }, (_, i) => share(layers[layerAt(z, ((i + 0.5) / HEIGHTS) * top)]!))
    return { corners: drawing.corners, shares, by: { along: [0, 0, 1], low: 0, high: top }, scale: kind.scale }
  }, [kind, drawing, prediction, range.low, range.high])
  const { overrides, chosen } = places ?? { overrides: [], chosen: -1 }
  const top = prediction.mesh.sizeMm[2]
  const boxes = useMemo(
    () =>
      overrides.flatMap(({ box, fromZ, toZ = top }, i) =>
        box ? [{ corners: facetsOfPlace(box, fromZ, toZ), colour: i === chosen ? '#f0a83c' : '#a8a29a', isAround: true }] : [],
      ),
    [overrides, chosen, top],
  )
  const edges = useMemo(() => {
    const of = (isChosen: boolean): number[] =>
      overrides.flatMap(({ box, fromZ, toZ = top }, i) => (box && (i === chosen) === isChosen ? [...edgesOfPlace(box, fromZ, toZ)] : []))
    return [
      { ends: Float32Array.from(of(false)), colour: '#a8a29a' },
      { ends: Float32Array.from(of(true)), colour: '#f0a83c' },
    ]
  }, [overrides, chosen, top])
  // What lay under the pointer belongs to the map that was drawn then.
  // biome-ignore lint/correctness/useExhaustiveDependencies: a new map is what makes the reading void.
  useEffect(() => setTouch(undefined), [kind, drawing])
  const reading = touch && readingAt(kind, prediction, drawing, touch.facet, touch.at[2])
  return (
    <TurnableFrame name={candidate.name} view={view}>
      <SolidDrawing
        label={`${candidate.name} wearing a map of ${kind.label}`}
        solid={solid}
        points={kind.id === 'seam' ? drawing.seams : undefined}
        patches={boxes}
        lines={edges}
        view={view}
        onTouch={setTouch}
        onClick={onFace ?? setPlace}
      />
      <p className="pointer-events-none absolute top-2 left-3 text-[12.5px] font-medium">{candidate.name}</p>
      <div role="status" aria-label="Under the pointer" className="pointer-events-none absolute right-3 bottom-2 left-3 text-[12px]">
        {reading ? (
          <p className="w-fit max-w-full rounded bg-raised/90 px-2 py-1">
            {reading.value !== undefined && (
              <span className="figure mr-2 font-semibold">
                {reading.value.toFixed(kind.digits)} {kind.unit}
              </span>
            )}
            <span className="text-muted">
              layer {reading.layer + 1}, z {reading.z.toFixed(1)} mm, {leanWords(reading.leanDeg)}.
            </span>{' '}
            {reading.cause}
          </p>
        ) : (
          <p className="text-muted">
            {onFace ? 'Click a face to put a box round it.' : 'Point to read a value; click where something went wrong.'}
          </p>
        )}
      </div>
      {place && !onFace && (
        <p className="absolute top-2 right-3 flex items-center gap-1 rounded bg-raised/90 py-0.5 pr-1 pl-2 text-[12px]">
          <Link
            to={`/faults/new?lineup=${lineup}&candidate=${candidate.id}&z=${place.at[2].toFixed(2)}`}
            className="underline decoration-line underline-offset-2"
          >
            What went wrong at {place.at[2].toFixed(1)} mm …
          </Link>
          <IconButton label="Leave the place" onClick={() => setPlace(undefined)}>
            <X className="size-3.5" />
          </IconButton>
        </p>
      )}
    </TurnableFrame>
  )
}

const leanWords = (lean: number): string =>
  Math.abs(lean) < 0.5
    ? 'upright'
    : Math.abs(lean) > 89.5
      ? lean > 0
        ? 'level, facing up'
        : 'level, facing down'
      : `${Math.abs(lean).toFixed(0)}° ${lean > 0 ? 'back' : 'over'}`

function MapTable({ ready, onClose }: { ready: readonly ReadyDrawn<SurfaceMap>[]; onClose: () => void }) {
  const [first] = ready as [ReadyDrawn<SurfaceMap>]
  const { z } = first.prediction.tracks
  const columns = ready.flatMap(({ candidate, prediction, drawing }) =>
    mapKinds.flatMap(({ label, unit, digits, ofFacets, ofLayers }) => {
      const values = ofFacets ? meansByLayer(ofFacets(drawing), drawing, prediction.tracks.z) : ofLayers?.(prediction, drawing)
      if (!values) return []
      // A candidate with other layers is read at the same height.
      const of = (row: number): number | undefined => values[layerAt(prediction.tracks.z, z[row]! - 1e-6)]
      return [{ label: ready.length > 1 ? `${candidate.name}: ${label}` : label, unit, digits, of }]
    }),
  )
  return (
    <TableSheet
      title={`Surface of ${ready.map(({ candidate }) => candidate.name).join(' and ')}, means by layer`}
      rowCount={z.length}
      columns={[{ label: 'Layer', digits: 0, of: (row) => row + 1 }, { label: 'z', unit: 'mm', of: (row) => z[row] }, ...columns]}
      onClose={onClose}
    />
  )
}
