import { definitionOf, parseValue, type SettingName, type SettingValues, settingNames, settings } from '@sable/core/profile/settings'
import { groups } from '@sable/core/profile/table/setting'
import { InputError } from '@sable/core/units/errors'
import { inWords } from '@sable/core/units/format'
import { X } from 'lucide-react'
import { IconButton } from '../ui/Button'
import { DraftField } from '../ui/DraftField'

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
      <select
        aria-label="Add a setting"
        value=""
        onChange={(event) => {
          const name = event.target.value as SettingName
          onChange({ ...values, [name]: settings[name].fallback })
        }}
        className="h-7 rounded-md border border-line bg-raised px-2 text-[12px]"
      >
        <option value="" disabled>
          Another value for …
        </option>
        {groups
          .filter((group) => settingNames.some((name) => settings[name].group === group && canHold(name)))
          .map((group) => (
            <optgroup key={group} label={group}>
              {settingNames
                .filter((name) => settings[name].group === group && canHold(name) && !(name in values))
                .map((name) => (
                  <option key={name} value={name}>
                    {settings[name].label}
                  </option>
                ))}
            </optgroup>
          ))}
      </select>
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
      <label className="block text-[12px]">
        <span className="flex items-center gap-1 text-muted">
          {setting.label}
          <Remove label={setting.label} onRemove={onRemove} />
        </span>
        <select
          value={String(value)}
          onChange={(event) => onCommit(event.target.value)}
          className="mt-0.5 h-7 rounded border border-line bg-sunk px-1"
        >
          {setting.choices.map((choice) => (
            <option key={choice} value={choice}>
              {inWords(choice)}
            </option>
          ))}
        </select>
      </label>
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
