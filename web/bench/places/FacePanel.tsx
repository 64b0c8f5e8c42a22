import type { Candidate } from '@sable/contract/lineup'
import { MousePointerClick } from 'lucide-react'
import { Button } from '../../ui/Button'
import { PlacesPanel } from './PlacesPanel'
import { AROUND, type FacePicking } from './useFacePicking'
import type { Places } from './usePlaces'

/** Places of a candidate beside its surface, and how a face is picked for one. */
export function FacePanel({
  candidate,
  places,
  picking,
  onClose,
}: {
  candidate: Candidate
  places: Places
  /** Nothing on a tilted belt. */
  picking: FacePicking | undefined
  onClose: () => void
}) {
  return (
    <PlacesPanel candidate={candidate} places={places} onClose={onClose}>
      {picking ? (
        <>
          <Button
            tone={picking.isPicking ? 'main' : 'quiet'}
            disabled={places.isFull && !picking.isPicking}
            onClick={picking.isPicking ? picking.stop : picking.start}
          >
            <MousePointerClick className="size-3.5" aria-hidden /> {picking.isPicking ? 'Done picking' : 'Box round faces'}
          </Button>
          {picking.isPicking && (
            <p role="status" className="text-lantern-ink">
              {picking.count === 0
                ? `Click a face: a box is put round it, ${AROUND} mm to every side.`
                : 'Click another face to widen the box to it. Escape ends it.'}
            </p>
          )}
          {picking.failed && (
            <p role="alert" className="text-stop">
              {picking.failed}
            </p>
          )}
        </>
      ) : (
        <p className="text-muted">
          On a tilted belt the part is drawn as its layers lean: a box is told by its numbers, in the part’s own frame.
        </p>
      )}
    </PlacesPanel>
  )
}
