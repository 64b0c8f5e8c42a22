import { formatDuration } from '@sable/core/units/format'
import { Pause, Play } from 'lucide-react'
import { IconButton } from '../../ui/Button'
import { Select } from '../../ui/Select'
import { type Playhead, paces } from './usePlayhead'

interface Props {
  readonly playhead: Playhead
  /** s */
  readonly layerTime: number
  /** Counted from 0. */
  readonly layer: number
  readonly layers: number
  /** Printing time of the layers below, s. */
  readonly before: number
}

/** Runs through a layer in printing time. */
export const PlayBar = ({ playhead, layerTime, layer, layers, before }: Props) => (
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
      layer <span className="figure text-ink">{layer + 1}</span> of {layers}, {formatDuration(before + playhead.seconds)} in
    </span>
    <Select
      label=""
      name="Seconds of printing in one of watching"
      value={String(playhead.pace)}
      of={paces.map((pace) => ({ id: String(pace), name: `${pace} ×` }))}
      onChange={(pace) => playhead.setPace(Number(pace))}
    />
  </div>
)
