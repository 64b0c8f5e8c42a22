import { definitionOf, parseValue, type SettingName, type SettingValues, settingNames, settings } from '@sable/core/profile/settings'
import { groups } from '@sable/core/profile/table/setting'
import { InputError } from '@sable/core/units/errors'
import { inWords } from '@sable/core/units/format'
import { X } from 'lucide-react'
import { IconButton } from '../ui/Button'
import { DraftField } from '../ui/DraftField'
import { Select } from '../ui/Select'

/** Some settings and their values; others are added from a list. */
export function SettingsBag({
  values,
  canHold = () => true,
  onChange,
}: {
  values: SettingValues
  /** Which settings may be added. */
  canHold?: (name: SettingName) => boolean
  onChange: (values: SettingValues) => void
}) {
  const own = Object.entries(values) as [SettingName, number | string][]
  return (
    <div className="mt-3 flex flex-wrap items-end gap-3 border-t border-line/60 pt-3">
      {own.map(([name, value]) => (
        <OverrideField
          key={name}
          name={name}
          value={value}
          onCommit={(next) => onChange({ ...values, [name]: next })}
          onRemove={() => onChange(Object.fromEntries(own.filter(([other]) => other !== name)) as SettingValues)}
        />
      ))}
      <Select
        label=""
        name="Add a setting"
        hint="Another value for …"
        value=""
        of={groups.flatMap((group) =>
          settingNames
            .filter((name) => settings[name].group === group && canHold(name) && !(name in values))
            .map((name) => ({ id: name, name: settings[name].label, group })),
        )}
        onChange={(name) => onChange({ ...values, [name]: settings[name].fallback })}
      />
    </div>
  )
}

function OverrideField({
  name,
  value,
  onCommit,
  onRemove,
}: {
  name: SettingName
  value: number | string
  onCommit: (value: number | string) => void
  onRemove: () => void
}) {
  const setting = definitionOf(name)
  if (setting.kind === 'choice') {
    return (
      <div>
        <span className="flex items-center gap-1 text-[12px] text-muted">
          {setting.label}
          <Remove label={setting.label} onRemove={onRemove} />
        </span>
        <Select
          label=""
          name={setting.label}
          layout="above"
          value={String(value)}
          of={setting.choices.map((choice) => ({ id: choice as string, name: inWords(choice) }))}
          onChange={onCommit}
        />
      </div>
    )
  }
  return (
    <div className="flex items-end gap-0.5">
      <DraftField
        label={setting.label}
        unit={setting.unit}
        text={String(value)}
        onCommit={(text) => {
          try {
            onCommit(parseValue(name, text))
            return true
          } catch (error) {
            if (error instanceof InputError) return false
            throw error
          }
        }}
      />
      <Remove label={setting.label} onRemove={onRemove} />
    </div>
  )
}

const Remove = ({ label, onRemove }: { label: string; onRemove: () => void }) => (
  <IconButton label={`Give ${label} back`} onClick={onRemove}>
    <X className="size-3" />
  </IconButton>
)
