import type { Candidate } from '@sable/contract/lineup'
import { Copy, Trash2, X } from 'lucide-react'
import type { ReactNode } from 'react'
import { IconButton } from '../../ui/Button'
import { PlaceFields } from './PlaceFields'
import { SeenPictures } from './SeenPictures'
import { usePartReach } from './usePartReach'
import type { Places } from './usePlaces'

/** The places of a candidate beside a drawing: which there are, and the fields of the chosen one. */
export function PlacesPanel({
  candidate,
  places,
  children,
  onClose,
}: {
  candidate: Candidate
  places: Places
  children: ReactNode
  onClose: () => void
}) {
  const { name } = candidate
  const reach = usePartReach(candidate)
  const { overrides, chosen } = places
  const own = overrides[chosen]
  return (
    <aside aria-label={`Places of ${name}`} className="w-72 shrink-0 overflow-y-auto border-l border-line p-3 text-[12.5px]">
      <p className="flex items-center">
        <span className="flex-1 font-semibold">Places of {name}</span>
        <IconButton label="Leave the places" onClick={onClose}>
          <X className="size-3.5" />
        </IconButton>
      </p>
      <div className="mt-2 space-y-2">{children}</div>
      {overrides.length === 0 ? (
        <p className="mt-3 rounded-md border border-dashed border-line p-3 text-muted">The same values hold everywhere.</p>
      ) : (
        <ul className="mt-3 border-y border-line/60">
          {overrides.map((place, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: places have no identity but their order.
            <li key={i} className={`flex items-center gap-1 rounded-sm ${i === chosen ? 'bg-glow' : ''}`}>
              <button
                type="button"
                aria-pressed={i === chosen}
                onClick={() => places.choose(i)}
                className="flex min-w-0 flex-1 items-center gap-2 px-1.5 py-1 text-left"
              >
                <span className="truncate">{place.name}</span>
                <span className="ml-auto shrink-0 text-[12px] text-muted">{reachWords(place)}</span>
              </button>
              <IconButton label={`Copy ${place.name}`} disabled={places.isFull} onClick={() => places.copy(i)}>
                <Copy className="size-3.5" />
              </IconButton>
              <IconButton label={`Remove ${place.name}`} onClick={() => places.remove(i)}>
                <Trash2 className="size-3.5" />
              </IconButton>
            </li>
          ))}
        </ul>
      )}
      {own && (
        <div className="mt-3">
          <PlaceFields key={chosen} override={own} reach={reach} onChange={(next) => places.change(chosen, next)} />
          <SeenPictures candidate={candidate} chosen={chosen} />
        </div>
      )}
    </aside>
  )
}

const reachWords = ({ fromZ, toZ, box }: Places['overrides'][number]): string =>
  `${box ? 'box' : 'layers'}, ${fromZ === 0 && toZ === undefined ? 'all heights' : `${fromZ}–${toZ ?? 'top'} mm`}`
