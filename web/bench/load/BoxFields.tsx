import type { PickedBox } from '@sable/core/physics/strength/pickedCases'
import { NumberField } from '../../ui/NumberField'

const axes = ['X', 'Y', 'Z'] as const

/** Where a box lies and how large it is, along the axes of the part as it was modelled. */
export function BoxFields({ name, box, onChange }: { name: string; box: PickedBox; onChange: (next: PickedBox) => void }) {
  const put = (of: 'middle' | 'sides', k: number, mm: number | undefined): boolean => {
    if (mm === undefined || !Number.isFinite(mm) || (of === 'sides' && !(mm > 0 && mm <= 10_000))) return false
    const next = box[of].map((own, i) => (i === k ? mm : own)) as [number, number, number]
    onChange({ ...box, [of]: next })
    return true
  }
  return (
    <div className="my-1 ml-4.5 space-y-1 text-[12px]">
      {(['middle', 'sides'] as const).map((of) => (
        <div key={of} className="flex items-end gap-2">
          <span className="w-12 pb-1 text-muted">{of}</span>
          {axes.map((axis, k) => (
            <NumberField
              key={axis}
              layout="above"
              width="w-16"
              label={of === 'middle' ? axis : ''}
              name={`${name}, ${of} along the part’s own ${axis}`}
              value={box[of][k]}
              onCommit={(mm) => put(of, k, mm)}
            />
          ))}
          <span className="pb-1 text-muted">mm</span>
        </div>
      ))}
      <p className="text-muted">Along the part’s axes as it was modelled: it goes along when the part is turned.</p>
    </div>
  )
}
