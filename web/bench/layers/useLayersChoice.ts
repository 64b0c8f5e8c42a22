import { useMemo } from 'react'
import { type ColouringName, colouringNames } from '../../charts/colourings'
import { useAddress } from '../../ui/useAddress'
import { type Track, tracks, usualTracks } from './tracks'

/** What of the layers is shown, as the address tells. */
export interface LayersChoice {
  readonly by: ColouringName
  /** Across which axis the part is cut upright; nothing for a look along the layer. */
  readonly axis: 'x' | 'y' | undefined
  readonly travels: boolean
  /** Whether boxes are drawn where other values hold. */
  readonly places: boolean
  /** Whether layer time is drawn by feature. */
  readonly byFeature: boolean
  /** The same list for as long as the same are chosen: the log is drawn once. */
  readonly tracks: readonly Track[]
}

export function useLayersChoice(): LayersChoice {
  const { get } = useAddress()
  const [by, cut, named] = [get('by'), get('cut'), get('tracks') ?? usualTracks.join(',')]
  const shown = useMemo(() => tracks.filter(({ id }) => named.split(',').includes(id)), [named])
  return {
    by: colouringNames.find((name) => name === by) ?? 'feature',
    axis: cut === 'x' || cut === 'y' ? cut : undefined,
    travels: get('travels') === 'on',
    places: get('places') === 'on' && cut !== 'x' && cut !== 'y',
    byFeature: get('parts') === 'on',
    tracks: shown,
  }
}
