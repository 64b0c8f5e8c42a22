import type { Candidate } from '@sable/contract/lineup'
import { MOST_OVERRIDES, type Override } from '@sable/core/profile/overrides'
import { Plus, X } from 'lucide-react'
import { edit } from '../../desk/deskStore'
import { setOverrides } from '../../desk/edits'
import { Button, IconButton } from '../../ui/Button'
import { Sheet } from '../../ui/Dialog'
import { PlaceFields } from '../places/PlaceFields'
import { usePartReach } from '../places/usePartReach'
import { freeName } from '../places/usePlaces'

/** Places of one candidate where other values hold: between two heights, or within a box. Every change is applied at once. */
export function OverridesDialog({ candidate, onClose }: { candidate: Candidate; onClose: () => void }) {
  const { id, overrides } = candidate
  const reach = usePartReach(candidate)
  const change = (next: readonly Override[]): void => edit((content) => setOverrides(content, id, [...next]))
  const add = (): void => change([...overrides, { name: freeName(overrides), fromZ: 0, values: {} }])
  return (
    <Sheet title={`Overrides of ${candidate.name}`} onClose={onClose}>
      <p className="mb-3 text-[12.5px] text-muted">
        Heights in mm above the bed; x and y from the middle of the part. Boxes can be drawn in Layers, and put round faces in Surface.
        Where two places overlap, the later one wins. Supports are held or left, and brims laid, place by place; how supports stand, and the
        skirt, belong to the whole part; layer heights and layer time to whole layers.
      </p>
      <ol className="space-y-3">
        {overrides.map((override, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: places have no identity but their order, and keep their fields by it.
          <li key={i} className="relative rounded-md border border-line p-3">
            <PlaceFields override={override} reach={reach} onChange={(next) => change(overrides.with(i, next))} />
            <IconButton
              label={`Remove ${override.name}`}
              onClick={() => change(overrides.toSpliced(i, 1))}
              className="absolute top-2 right-2"
            >
              <X className="size-4" />
            </IconButton>
          </li>
        ))}
      </ol>
      {overrides.length === 0 && (
        <p className="rounded-md border border-dashed border-line p-4 text-center text-muted">The same values hold everywhere.</p>
      )}
      <div className="mt-4 flex justify-between">
        <Button onClick={add} disabled={overrides.length >= MOST_OVERRIDES}>
          <Plus className="size-3.5" aria-hidden /> Place
        </Button>
        <Button tone="main" onClick={onClose}>
          Done
        </Button>
      </div>
    </Sheet>
  )
}
