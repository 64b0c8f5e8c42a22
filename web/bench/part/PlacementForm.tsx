import { type Placement, placementSchema } from '@sable/core/mesh/place'
import { edit } from '../../desk/deskStore'
import { setPlacement } from '../../desk/edits'
import { Button } from '../../ui/Button'
import { NumberField } from '../../ui/NumberField'

const axes = ['x', 'y', 'z'] as const

/** Scale and rotation of the part; each change is applied as soon as it is a possible one. */
export function PlacementForm({ placement, onCompare }: { placement: Placement; onCompare: () => void }) {
  const apply = (next: Placement): void => {
    if (placementSchema.safeParse(next).success) edit((content) => setPlacement(content, next))
  }
  const turn = (axis: number, degrees: number): void => {
    const rotateDeg = placement.rotateDeg.with(axis, degrees) as Placement['rotateDeg']
    apply({ ...placement, rotateDeg })
  }
  return (
    <div className="space-y-3">
      <NumberField
        label="Scale"
        unit="×"
        value={placement.scale}
        problem="Give a number above 0, up to 1000."
        layout="above"
        width="w-full"
        onCommit={(scale = 0) => {
          if (!(scale > 0 && scale <= 1000)) return false
          apply({ ...placement, scale })
          return true
        }}
      />
      {axes.map((axis, k) => (
        <div key={axis} className="flex items-end gap-2">
          <NumberField
            label={`Turn about ${axis}`}
            unit="°"
            value={placement.rotateDeg[k] as number}
            problem="Give an angle in degrees."
            layout="above"
            width="w-full"
            onCommit={(degrees = Number.NaN) => {
              if (!Number.isFinite(degrees)) return false
              turn(k, degrees)
              return true
            }}
          />
          <Button onClick={() => turn(k, ((placement.rotateDeg[k] as number) + 90) % 360)} aria-label={`Turn a quarter about ${axis}`}>
            +90°
          </Button>
        </div>
      ))}
      <div className="flex justify-between gap-2 border-t border-line pt-3">
        <Button onClick={() => apply({ ...placement, scale: placement.scale * 25.4 })} data-hint="For a file that was saved in inches">
          Inches to mm
        </Button>
        <Button onClick={() => apply({ scale: 1, rotateDeg: [0, 0, 0] })}>As modelled</Button>
      </div>
      <Button onClick={onCompare}>Compare six orientations</Button>
    </div>
  )
}
