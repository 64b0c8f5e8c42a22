import { type Placement, placementSchema } from '@sable/core/mesh/place'
import { typedNumber } from '@sable/core/units/typedNumber'
import { edit } from '../../desk/deskStore'
import { setPlacement } from '../../desk/edits'
import { Button } from '../../ui/Button'
import { useDraft } from '../../ui/useDraft'

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
        valid={(value) => value > 0 && value <= 1000}
        onChange={(scale) => apply({ ...placement, scale })}
      />
      {axes.map((axis, k) => (
        <div key={axis} className="flex items-end gap-2">
          <NumberField
            label={`Turn about ${axis}`}
            unit="°"
            value={placement.rotateDeg[k] as number}
            problem="Give an angle in degrees."
            valid={Number.isFinite}
            onChange={(degrees) => turn(k, degrees)}
          />
          <Button onClick={() => turn(k, ((placement.rotateDeg[k] as number) + 90) % 360)} aria-label={`Turn a quarter about ${axis}`}>
            +90°
          </Button>
        </div>
      ))}
      <div className="flex justify-between gap-2 border-t border-line pt-3">
        <Button onClick={() => apply({ ...placement, scale: placement.scale * 25.4 })} title="For a file that was saved in inches">
          Inches to mm
        </Button>
        <Button onClick={() => apply({ scale: 1, rotateDeg: [0, 0, 0] })}>As modelled</Button>
      </div>
      <Button onClick={onCompare}>Compare six ways to lie</Button>
    </div>
  )
}

interface FieldProps {
  readonly label: string
  readonly unit: string
  readonly value: number
  readonly problem: string
  readonly valid: (value: number) => boolean
  readonly onChange: (value: number) => void
}

function NumberField({ label, unit, value, problem, valid, onChange }: FieldProps) {
  const { wrong, ...field } = useDraft(String(Math.round(value * 10_000) / 10_000), (typed) => {
    const next = typedNumber(typed)
    if (!valid(next)) return false
    onChange(next)
    return true
  })
  return (
    <label className="block flex-1">
      <span className="text-[12px] text-muted">{label}</span>
      <span className="mt-0.5 flex items-center gap-1.5">
        <input
          inputMode="decimal"
          {...field}
          aria-invalid={wrong}
          className="figure h-7 w-full min-w-0 rounded border border-line bg-sunk px-2 text-right aria-[invalid=true]:border-stop"
        />
        <span className="w-3 text-muted">{unit}</span>
      </span>
      {wrong && <span className="text-[11.5px] text-stop">{problem}</span>}
    </label>
  )
}
