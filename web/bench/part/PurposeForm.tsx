import { limitNames } from '@sable/core/figures/figures'
import { seenParts } from '@sable/core/physics/finish/surfaceFigures'
import { type LimitName, noPurpose, type Purpose, purposeSchema } from '@sable/core/physics/strength/purpose'
import { loadKinds } from '@sable/core/physics/strength/sectionLoads'
import { inWords } from '@sable/core/units/format'
import { edit } from '../../desk/deskStore'
import { setPurpose } from '../../desk/edits'
import { Checkbox } from '../../ui/Checkbox'
import { inMoney } from '../../ui/currency'
import { NumberField } from '../../ui/NumberField'
import { Select } from '../../ui/Select'

/** A limit as a person types it: hours and minutes are minutes here, the rest is in the core's units. */
const fields: Readonly<Record<LimitName, { readonly label: string; readonly unit: string; readonly per: number }>> = {
  maxTimeS: { label: 'Time at most', unit: 'min', per: 60 },
  maxMassG: { label: 'Filament at most', unit: 'g', per: 1 },
  maxCost: { label: 'Cost at most', unit: '¤', per: 1 },
  maxRaUm: { label: 'Surface Ra at most', unit: 'µm', per: 1 },
  minLoadN: { label: 'Bears at least', unit: 'N', per: 1 },
}

type LoadField = readonly [name: 'azimuthDeg' | 'elevationDeg' | 'heldTo' | 'loadedFrom', label: string, unit: string]
const directionFields: readonly LoadField[] = [
  ['azimuthDeg', 'From X towards Y', '°'],
  ['elevationDeg', 'Up from the bed', '°'],
]
const gripFields: readonly LoadField[] = [
  ['heldTo', 'Held up to', '%'],
  ['loadedFrom', 'Loaded from', '%'],
]

/** What the part is for, its load and its limits; each change is applied as soon as it is a possible one. */
export function PurposeForm({ purpose }: { purpose: Purpose }) {
  const apply = (next: Purpose): boolean => {
    const parsed = purposeSchema.safeParse(next)
    if (parsed.success) edit((content) => setPurpose(content, parsed.data))
    return parsed.success
  }
  return (
    <div className="space-y-3">
      <div className="grid grid-cols-2 gap-3">
        <Choice
          label="What is it for?"
          value={purpose.kind}
          of={['show', 'work', 'load']}
          onChange={(kind) => apply({ ...purpose, kind })}
        />
        <Choice label="What is seen?" value={purpose.seen} of={seenParts} onChange={(seen) => apply({ ...purpose, seen })} />
      </div>
      {purpose.kind !== 'show' && (
        <div className="grid grid-cols-2 gap-3">
          <Choice
            label="Load"
            value={purpose.load.kind}
            of={loadKinds}
            onChange={(kind) => apply({ ...purpose, load: { ...purpose.load, kind } })}
          />
          <Choice
            label="Along"
            value={purpose.load.axis}
            of={['weakest', 'x', 'y', 'z', 'free']}
            words={{ free: 'a direction' }}
            onChange={(axis) => apply({ ...purpose, load: { ...purpose.load, axis } })}
          />
        </div>
      )}
      {purpose.kind !== 'show' && (
        <div className="space-y-2">
          {(purpose.load.axis === 'free' ? [...directionFields, ...gripFields] : gripFields).map(([name, label, unit]) => (
            <NumberField
              key={name}
              label={label}
              unit={unit}
              value={purpose.load[name]}
              onCommit={(value) => apply({ ...purpose, load: { ...purpose.load, [name]: value ?? noPurpose.load[name] } })}
            />
          ))}
        </div>
      )}
      <Checkbox checked={purpose.touchesFood} onChange={(to) => apply({ ...purpose, touchesFood: to })} className="text-muted">
        It touches food
      </Checkbox>
      <div className="space-y-2 border-t border-line pt-3">
        {limitNames
          .filter((limit) => purpose.kind !== 'show' || limit !== 'minLoadN' || purpose.limits.minLoadN !== undefined)
          .map((limit) => (
            <NumberField
              key={limit}
              {...fields[limit]}
              unit={inMoney(fields[limit].unit)}
              value={purpose.limits[limit]}
              hint="none"
              onCommit={(value) => {
                const { [limit]: _, ...rest } = purpose.limits
                return apply({ ...purpose, limits: value === undefined ? rest : { ...rest, [limit]: value } })
              }}
            />
          ))}
      </div>
      {purpose.kind !== 'show' && (
        <p className="border-t border-line pt-3 text-[12px] text-muted">
          A predicted load is an estimate for one material and one load, never a rating. Test the real part with a margin; never lift people
          or hang loads over people with it.
        </p>
      )}
    </div>
  )
}

function Choice<C extends string>({
  label,
  value,
  of,
  words = {},
  onChange,
}: {
  label: string
  value: C
  of: readonly C[]
  words?: Partial<Record<C, string>>
  onChange: (value: C) => void
}) {
  return (
    <Select
      label={label}
      layout="above"
      value={value}
      of={of.map((choice) => ({ id: choice, name: words[choice] ?? (choice.length === 1 ? choice.toUpperCase() : inWords(choice)) }))}
      onChange={onChange}
    />
  )
}
