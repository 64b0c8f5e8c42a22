import { type Action, actions, type PickedCase } from '@sable/core/physics/strength/pickedCases'
import { X } from 'lucide-react'
import { IconButton } from '../../ui/Button'
import { NumberField } from '../../ui/NumberField'
import { Select } from '../../ui/Select'
import { BoxFields } from './BoxFields'
import type { CasePicker } from './CasesForm'
import { nameOfPlace, wayFields } from './places'

type PickedLoad = PickedCase['loads'][number]

const actionWords: Readonly<Record<Action, readonly [name: string, unit: string]>> = {
  force: ['force', 'N'],
  mass: ['hanging mass', 'kg'],
  moment: ['moment', 'N·m'],
  pressure: ['pressure', 'MPa'],
  slip: ['moved by', 'mm'],
}

/** What acts on one place, how much of it and which way. */
export function LoadFields({
  number,
  load,
  picker: { wayOf, alongOf },
  onChange,
}: {
  number: number
  load: PickedLoad
  picker: CasePicker
  /** Nothing takes it away. */
  onChange: (next?: PickedLoad) => void
}) {
  const { along: _, ...withoutWay } = load
  // Only a face can be pressed on.
  const possible = actions.filter((id) => id !== 'pressure' || 'at' in load.face || load.action === 'pressure')
  return (
    <div className="space-y-1">
      <p className="flex items-center gap-2">
        <span aria-hidden className="size-2.5 rounded-full bg-lantern" />
        <span className="flex-1">
          <Select
            label={`Acts ${nameOfPlace(load.face)}`}
            value={load.action}
            of={possible.map((id) => ({ id, name: actionWords[id][0] }))}
            onChange={(action) => onChange({ ...load, action })}
          />
        </span>
        <IconButton label={`Take load ${number} away`} onClick={() => onChange()}>
          <X className="size-3.5" />
        </IconButton>
      </p>
      <NumberField
        label="So much"
        unit={actionWords[load.action][1]}
        value={load.amount}
        onCommit={(amount) => {
          if (amount === undefined || !(amount > 0 && amount <= 1e6)) return false
          onChange({ ...load, amount })
          return true
        }}
        problem="More than 0."
      />
      {load.action !== 'pressure' && (
        <Select
          label={load.action === 'moment' ? 'About' : 'Which way'}
          {...wayFields(load.along === undefined && 'sides' in load.face ? '0 0 -1' : wayOf(load.along), !('sides' in load.face))}
          onChange={(way) => way !== 'own' && onChange(way === 'face' ? withoutWay : { ...load, along: alongOf(way) })}
        />
      )}
      {'sides' in load.face && <BoxFields name={`Load ${number}`} box={load.face} onChange={(face) => onChange({ ...load, face })} />}
    </div>
  )
}
