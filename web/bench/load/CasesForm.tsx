import type { PickedCase } from '@sable/core/physics/strength/pickedCases'
import { Plus } from 'lucide-react'
import { Button } from '../../ui/Button'
import { Select } from '../../ui/Select'
import { CaseForm } from './CaseForm'
import type { useCasePicking } from './useCasePicking'

export type CasePicker = ReturnType<typeof useCasePicking>

/** The cases of a purpose: where the part is held and what acts on it, place by place. */
export function CasesForm({ cases, picker }: { cases: readonly PickedCase[]; picker: CasePicker }) {
  const { open, change, setOpenId, setPicking } = picker
  const add = (): void => {
    const id = crypto.randomUUID()
    change([...cases, { id, name: `Case ${cases.length + 1}`, holds: [], loads: [] }])
    setOpenId(id)
    setPicking('hold')
  }
  return (
    <section aria-label="Cases" className="text-[12.5px]">
      <h3 className="flex items-center gap-2 font-semibold">
        <span className="flex-1">Held and loaded</span>
        <Button onClick={add} disabled={cases.length >= 8}>
          <Plus className="size-3.5" aria-hidden /> Case
        </Button>
      </h3>
      {cases.length === 0 && (
        <p className="mt-1 text-[12px] text-muted">
          Now the load of the purpose acts along an axis, from end to end. Make a case to point at the faces where the part is held, and
          where it is pushed, pulled, pressed, twisted or moved.
        </p>
      )}
      {cases.length > 1 && (
        <div className="mt-1">
          <Select label="Shown" value={open?.id ?? ''} of={cases.map(({ id, name }) => ({ id, name }))} onChange={setOpenId} />
        </div>
      )}
      {open && (
        <CaseForm
          picked={open}
          picker={picker}
          onChange={(next) => change(cases.map((one) => (one.id === next.id ? next : one)))}
          onRemove={() => change(cases.filter(({ id }) => id !== open.id))}
        />
      )}
    </section>
  )
}
