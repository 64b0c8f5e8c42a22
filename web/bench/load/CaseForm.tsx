import type { PickedCase } from '@sable/core/physics/strength/pickedCases'
import { MousePointerClick, X } from 'lucide-react'
import { Button, IconButton } from '../../ui/Button'
import { Checkbox } from '../../ui/Checkbox'
import { Choices } from '../../ui/Choices'
import { EditableText } from '../../ui/EditableText'
import { NumberField } from '../../ui/NumberField'
import { Select } from '../../ui/Select'
import { BoxFields } from './BoxFields'
import type { CasePicker } from './CasesForm'
import { LoadFields } from './LoadFields'
import { ends, nameOfPlace, type Picking, wayFields } from './places'

/** One case: its holds, its loads, its own weight, and what is pointed at next. */
export function CaseForm({
  picked,
  picker,
  onChange,
  onRemove,
}: {
  picked: PickedCase
  picker: CasePicker
  onChange: (next: PickedCase) => void
  onRemove: () => void
}) {
  const { holds, loads, name } = picked
  const { picking, setPicking } = picker
  const putHold = (i: number, next?: PickedCase['holds'][number]): void => onChange({ ...picked, holds: replaced(holds, i, next) })
  return (
    <div className="mt-1 space-y-1.5 border-t border-line pt-1.5">
      <p className="flex items-center gap-1 font-medium">
        <EditableText
          label="Name of the case"
          text={name}
          onCommit={(typed) => typed.trim() !== '' && onChange({ ...picked, name: typed.trim().slice(0, 60) })}
          className="flex-1"
        />
        <IconButton label={`Take ${name} away`} onClick={onRemove}>
          <X className="size-3.5" />
        </IconButton>
      </p>
      <ul>
        {holds.map((hold, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: holds have no names, and keep their order.
          <li key={i} className="py-0.5">
            <p className="flex items-center gap-2">
              <span aria-hidden className="size-2.5 rounded-full bg-better" />
              <span className="flex-1">held {nameOfPlace(hold.face)}</span>
              {!('sides' in hold.face) && (
                <Checkbox checked={hold.slides} onChange={(slides) => putHold(i, { ...hold, slides })}>
                  slides
                </Checkbox>
              )}
              <IconButton label={`Take hold ${i + 1} away`} onClick={() => putHold(i)}>
                <X className="size-3.5" />
              </IconButton>
            </p>
            {'sides' in hold.face && (
              <BoxFields name={`Hold ${i + 1}`} box={hold.face} onChange={(face) => putHold(i, { ...hold, face })} />
            )}
          </li>
        ))}
        {loads.map((load, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: loads have no names, and keep their order.
          <li key={i} className="border-t border-line/60 py-1.5">
            <LoadFields
              number={i + 1}
              load={load}
              picker={picker}
              onChange={(next) => onChange({ ...picked, loads: replaced(loads, i, next) })}
            />
          </li>
        ))}
        <li className="border-t border-line/60 py-1.5">
          <WeightFields picked={picked} picker={picker} onChange={onChange} />
        </li>
      </ul>
      <p className="flex flex-wrap gap-2">
        {(['hold', 'load'] as const).map((what) => (
          <Button key={what} tone={picking === what ? 'main' : 'quiet'} onClick={() => setPicking(picking === what ? undefined : what)}>
            <MousePointerClick className="size-3.5" aria-hidden /> {what === 'hold' ? 'Hold' : 'Load'} a place
          </Button>
        ))}
      </p>
      {picking && <Pointing picking={picking} picker={picker} />}
    </div>
  )
}

/** What a click takes, or what is taken without one. */
function Pointing({ picking, picker }: { picking: Picking; picker: CasePicker }) {
  const { pointedAt, setPointedAt, takeEnd } = picker
  return (
    <div className="space-y-1.5">
      <div className="flex flex-wrap items-center gap-2">
        <span className="text-muted">A click takes</span>
        <Choices
          label=""
          name="A click takes"
          of={[
            { id: 'face', name: 'the face' },
            { id: 'box', name: 'a box about it' },
          ]}
          value={pointedAt}
          onChange={(id) => setPointedAt(id ?? 'face')}
        />
      </div>
      <p role="status" className="text-lantern-ink">
        Click where it is {picking === 'hold' ? 'held' : 'loaded'}. Escape leaves it.
      </p>
      <Select
        label="Or all of the end"
        value=""
        of={[{ id: '', name: 'choose' }, ...ends]}
        onChange={(way) => way !== '' && takeEnd(way, picking)}
      />
    </div>
  )
}

function WeightFields({
  picked,
  picker: { alongOf, wayOf },
  onChange,
}: {
  picked: PickedCase
  picker: CasePicker
  onChange: (next: PickedCase) => void
}) {
  const { weight, ...rest } = picked
  return (
    <div className="space-y-1">
      <Checkbox
        checked={weight !== undefined}
        onChange={(on) => onChange(on ? { ...rest, weight: { times: 1, along: alongOf('0 0 -1') } } : rest)}
      >
        its own weight
      </Checkbox>
      {weight && (
        <>
          <NumberField
            label="So many times: more where it is shaken"
            name="Times its own weight"
            unit="×"
            value={weight.times}
            onCommit={(times) => {
              if (times === undefined || !(times > 0 && times <= 1000)) return false
              onChange({ ...rest, weight: { ...weight, times } })
              return true
            }}
            problem="More than 0, at most 1,000."
          />
          <Select
            label="It hangs"
            {...wayFields(wayOf(weight.along), false)}
            onChange={(way) => way !== 'own' && way !== 'face' && onChange({ ...rest, weight: { ...weight, along: alongOf(way) } })}
          />
        </>
      )}
    </div>
  )
}

/** A list with one of its entries changed, or taken away. */
const replaced = <T,>(all: readonly T[], at: number, next: T | undefined): T[] =>
  all.flatMap((own, i) => (i === at ? (next === undefined ? [] : [next]) : [own]))
