import type { LineupContent } from '@sable/contract/lineup'
import type { StoredPart } from '@sable/contract/part'
import type { Shelf } from '@sable/contract/shelf'
import { layerAt } from '@sable/core/slicing/layers'
import { isOfPart } from '@sable/core/toolpath/toolpath'
import { formatDuration } from '@sable/core/units/format'
import type { DrawnMoves } from '@sable/core/views/drawnMoves'
import { Pause, Play, Table2 } from 'lucide-react'
import { useEffect, useMemo, useState } from 'react'
import { type ColouringName, colouringLabels, colouringNames, keyOf } from '../../../drawing/colourings'
import { type FlatBox, flatView } from '../../../drawing/FlatDrawing'
import { KeyStrip } from '../../../drawing/KeyStrip'
import { type ReadyDrawn, readyOf, useMoves } from '../../../predictions/useDrawn'
import { Button, IconButton } from '../../../ui/Button'
import { Menu, MenuItem, MenuLabel, MenuSeparator } from '../../../ui/Menu'
import { Popover } from '../../../ui/Popover'
import { SaveMenu } from '../../../ui/SaveMenu'
import { Select } from '../../../ui/Select'
import { TableSheet } from '../../../ui/TableSheet'
import { useAddress } from '../../../ui/useAddress'
import { useSize } from '../../../ui/useSize'
import { ChoosePair, type Pair, WithPair } from '../CandidatePair'
import { type Cut, LayerDrawing } from './LayerDrawing'
import { StripLog } from './StripLog'
import { jumpsOf, nextAbove, timeGroups, tracks, usualTracks } from './tracks'
import { paces, usePlayhead } from './usePlayhead'

interface Props {
  readonly content: LineupContent
  readonly part: StoredPart
  readonly shelf: Shelf
}

/** Every layer of a candidate, or of two at the same height: what changes up the part, and what is laid where. */
export const LayersView = (props: Props) => (
  <WithPair candidates={props.content.candidates}>{(pair) => <Layers {...props} pair={pair} />}</WithPair>
)

function Layers({ content, part, shelf, pair }: Props & { pair: Pair }) {
  const address = useAddress()
  const of = useMoves(pair.of, content, part, shelf)
  const beside = useMoves(pair.beside, content, part, shelf)
  const all = [of, beside].filter((one) => one !== undefined)
  const ready = readyOf(all)
  const stuck = all.find(({ failed }) => failed !== undefined)
  return (
    <section aria-label="Layers" className="flex min-h-0 flex-1 flex-col">
      {ready.length > 0 && ready[0]!.candidate.id === pair.of.id ? (
        <LayersOf ready={ready} waiting={all.length - ready.length} pair={pair} content={content} />
      ) : (
        <>
          <div className="flex h-11 shrink-0 items-center gap-3 border-b border-line px-3">
            <ChoosePair pair={pair} candidates={content.candidates} address={address} />
          </div>
          <p role={stuck ? 'alert' : 'status'} className="m-auto max-w-md p-8 text-center text-muted">
            {stuck ? `${stuck.candidate.name} cannot be drawn. ${stuck.failed}` : 'Laying the paths …'}
          </p>
        </>
      )}
    </section>
  )
}

function LayersOf({
  ready,
  waiting,
  pair,
  content,
}: {
  ready: readonly ReadyDrawn<DrawnMoves>[]
  waiting: number
  pair: Pair
  content: LineupContent
}) {
  const address = useAddress()
  const { get, set } = address
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

  const by = (colouringNames as readonly string[]).includes(get('by') ?? '') ? (get('by') as ColouringName) : 'feature'
  const travels = get('travels') === 'on'
  const byFeature = get('parts') === 'on'
  const named = get('tracks') ?? usualTracks.join(',')
  const chosen = named.split(',')
  // The same list for as long as the same are chosen: the log is drawn once.
  const shownTracks = useMemo(() => tracks.filter(({ id }) => named.split(',').includes(id)), [named])
  const logged = useMemo(
    () => ready.map(({ candidate, prediction, drawing }) => ({ name: candidate.name, prediction, moves: drawing })),
    [ready],
  )

  const axis = get('cut') === 'x' || get('cut') === 'y' ? (get('cut') as 'x' | 'y') : undefined
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
  const jumps = jumpsOf(ready.map(({ prediction }) => prediction))
  const marks = jumps.filter(({ id }) => id.startsWith('check '))

  return (
    <>
      <div className="flex min-h-11 shrink-0 flex-wrap items-center gap-x-3 gap-y-1 border-b border-line px-3 py-1.5">
        <ChoosePair pair={pair} candidates={content.candidates} address={address} />
        <Select
          label="Coloured by"
          value={by}
          of={colouringNames.map((id) => ({ id, name: colouringLabels[id] }))}
          onChange={(name) => {
            setOnly(undefined)
            set({ by: name === 'feature' ? undefined : name })
          }}
        />
        <Select
          label="Cut"
          value={axis ?? 'layer'}
          of={[
            { id: 'layer', name: 'along the layer' },
            { id: 'x', name: 'upright across X' },
            { id: 'y', name: 'upright across Y' },
          ]}
          onChange={(to) => {
            setAt(undefined)
            set({ at: undefined, cut: to === 'layer' ? undefined : to })
          }}
        />
        {!axis && (
          <label className="flex items-center gap-1.5 text-[12.5px]">
            <input
              type="checkbox"
              checked={travels}
              onChange={(event) => set({ travels: event.target.checked ? 'on' : undefined })}
              className="accent-lantern"
            />
            travels
          </label>
        )}
        <div className="flex-1" />
        {waiting > 0 && (
          <span role="status" className="text-[12px] text-muted">
            Laying the other …
          </span>
        )}
        <Menu align="end" trigger={<Button>Go to</Button>}>
          {jumps
            .filter(({ id }) => !id.startsWith('check '))
            .map(({ id, label, z: to }) => (
              <MenuItem key={id} hint={`${to.toFixed(1)} mm`} onSelect={() => goTo(to)}>
                {label}
              </MenuItem>
            ))}
          <MenuSeparator />
          <MenuLabel>{marks.length === 0 ? 'No risk has a height' : 'Risks'}</MenuLabel>
          {marks.map(({ id, label, z: to }) => (
            <MenuItem key={id} hint={`${to.toFixed(1)} mm`} onSelect={() => goTo(to)}>
              <span className="max-w-96 truncate">{label}</span>
            </MenuItem>
          ))}
        </Menu>
        <Button disabled={marks.length === 0} onClick={() => goTo(nextAbove(marks, z)?.z ?? z)}>
          Next risk
        </Button>
        <Popover label="Tracks" width="w-60" trigger={<Button>Tracks</Button>}>
          <ul className="space-y-1 text-[12.5px]">
            {tracks.map(({ id, label, help }) => (
              <li key={id}>
                <label className="flex items-center gap-2" title={help}>
                  <input
                    type="checkbox"
                    checked={chosen.includes(id)}
                    onChange={(event) =>
                      set({ tracks: (event.target.checked ? [...chosen, id] : chosen.filter((own) => own !== id)).join(',') || 'time' })
                    }
                    className="accent-lantern"
                  />
                  {label}
                </label>
              </li>
            ))}
            <li className="border-t border-line pt-1.5">
              <label className="flex items-center gap-2">
                <input
                  type="checkbox"
                  checked={byFeature}
                  onChange={(event) => set({ parts: event.target.checked ? 'on' : undefined })}
                  className="accent-lantern"
                />
                Layer time by feature
              </label>
            </li>
          </ul>
        </Popover>
        <SaveMenu name={`layers of ${first.candidate.name}`} />
        <IconButton label="Table of the layers" onClick={() => setTable(true)}>
          <Table2 className="size-4" />
        </IconButton>
      </div>
      <div ref={frame} className="flex min-h-0 flex-1">
        <div className="shrink-0 overflow-x-auto border-r border-line py-2 pl-1" style={{ maxWidth: '52%' }}>
          {height > 60 && (
            <StripLog logged={logged} tracks={shownTracks} byFeature={byFeature} z={z} height={height - (byFeature ? 38 : 16)} onZ={goTo} />
          )}
          {byFeature && (
            <p className="flex gap-3 pl-11 text-[11.5px] text-muted">
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
            {ready.map((one) => (
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
              />
            ))}
          </div>
          <div className="shrink-0 border-t border-line px-3 py-2">
            <KeyStrip of={colourKey} only={only} onOnly={setOnly} />
            {axis ? (
              <label className="mt-1.5 flex items-center gap-3 text-[12.5px]">
                <span className="text-muted">{axis.toUpperCase()}</span>
                <input
                  type="range"
                  min={low}
                  max={high}
                  step={0.1}
                  value={place}
                  aria-label={`Place of the cut along ${axis.toUpperCase()}`}
                  onChange={(event) => setAt(Number(event.target.value))}
                  onPointerUp={() => set({ at: place.toFixed(1) })}
                  onKeyUp={() => set({ at: place.toFixed(1) })}
                  className="flex-1 accent-lantern"
                />
                <span className="figure w-20 text-right">{place.toFixed(1)} mm</span>
              </label>
            ) : (
              <div className="mt-1.5 flex items-center gap-3 text-[12.5px]">
                <IconButton label={playhead.playing ? 'Pause' : 'Play'} onClick={playhead.toggle}>
                  {playhead.playing ? <Pause className="size-4" /> : <Play className="size-4" />}
                </IconButton>
                <input
                  type="range"
                  min={0}
                  max={layerTime}
                  step={layerTime / 1000}
                  value={Math.min(playhead.seconds, layerTime)}
                  aria-label="Time within the layer"
                  aria-valuetext={`${playhead.seconds.toFixed(1)} of ${layerTime.toFixed(1)} s`}
                  onChange={(event) => playhead.setSeconds(Number(event.target.value))}
                  className="min-w-0 flex-1 accent-lantern"
                />
                <span className="figure shrink-0 text-right whitespace-nowrap">
                  {Math.min(playhead.seconds, layerTime).toFixed(1)} <span className="text-muted">of {layerTime.toFixed(1)} s</span>
                </span>
                <span className="shrink-0 whitespace-nowrap text-muted">
                  layer <span className="figure text-ink">{shownLayer + 1}</span> of {last + 1}, {formatDuration(before + playhead.seconds)}{' '}
                  in
                </span>
                <Select
                  label=""
                  name="Seconds of printing in one of watching"
                  value={String(playhead.pace)}
                  of={paces.map((pace) => ({ id: String(pace), name: `${pace} ×` }))}
                  onChange={(pace) => playhead.setPace(Number(pace))}
                />
              </div>
            )}
          </div>
        </div>
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

interface Boxes {
  readonly x: readonly [number, number]
  readonly y: readonly [number, number]
  readonly plan: FlatBox
  readonly acrossX: FlatBox
  readonly acrossY: FlatBox
}

/** What the part lies within, seen from above and from either side. */
function boxesOf(all: readonly DrawnMoves[]): Boxes {
  const low = [Infinity, Infinity, 0]
  const high = [-Infinity, -Infinity, 0]
  for (const { x, y, z, feature } of all) {
    for (let m = 0; m < feature.length; m++) {
      if (!isOfPart(feature[m]!)) continue
      if (x[m + 1]! < low[0]!) low[0] = x[m + 1]!
      if (x[m + 1]! > high[0]!) high[0] = x[m + 1]!
      if (y[m + 1]! < low[1]!) low[1] = y[m + 1]!
      if (y[m + 1]! > high[1]!) high[1] = y[m + 1]!
      if (z[m + 1]! > high[2]!) high[2] = z[m + 1]!
    }
  }
  const box = (u: 0 | 1, v: 1 | 2): FlatBox => ({ low: [low[u]!, low[v]!], high: [high[u]!, high[v]!] })
  return { x: [low[0]!, high[0]!], y: [low[1]!, high[1]!], plan: box(0, 1), acrossX: box(1, 2), acrossY: box(0, 2) }
}
