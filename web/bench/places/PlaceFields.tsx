import { type Override, overrideSchema, reachOf } from '@sable/core/profile/overrides'
import { type SettingName, settings } from '@sable/core/profile/settings'
import { typedNumber } from '@sable/core/units/typedNumber'
import { SettingsBag } from '../../shelf/SettingsBag'
import { Button } from '../../ui/Button'
import { DraftField } from '../../ui/DraftField'
import { type PartReach, PictureFields } from './PictureFields'

const numberFields = [
  { field: 'fromZ', label: 'From height', unit: 'mm', hint: '' },
  { field: 'toZ', label: 'To height', unit: 'mm', hint: 'top' },
  { field: 'speedPercent', label: 'Speed', unit: '%', hint: '100' },
  { field: 'nearBelt', label: 'Near belt', unit: 'mm', hint: 'any' },
] as const

const boxFields = [
  { field: 'minX', label: 'x from', unit: 'mm' },
  { field: 'maxX', label: 'x to', unit: 'mm' },
  { field: 'minY', label: 'y from', unit: 'mm' },
  { field: 'maxY', label: 'y to', unit: 'mm' },
  { field: 'turn', label: 'Turned', unit: '°' },
] as const

/** In pairs beside a drawing, in a row where there is room. */
const fieldsClass = 'grid grid-cols-2 items-end gap-x-3 gap-y-2 @lg:flex @lg:flex-wrap'

/** Where a place lies, and the values that hold there. Every change that can be taken is handed on at once. */
export function PlaceFields({
  override,
  reach,
  onChange,
}: {
  override: Override
  /** The part: how high it is, and a box round it. */
  reach: PartReach
  onChange: (next: Override) => void
}) {
  const { name, box, nearBelt, values } = override
  const layerWide = (Object.keys(values) as SettingName[]).find((name) => reachOf(name) === 'layers')
  // Only what the schema takes reaches the desk; the field shows what is wrong meanwhile.
  const apply = (part: Partial<Record<keyof Override, unknown>>): boolean => {
    const next = Object.fromEntries(Object.entries({ ...override, ...part }).filter(([, value]) => value !== undefined))
    const parsed = overrideSchema.safeParse(next)
    if (parsed.success) onChange(parsed.data)
    return parsed.success
  }
  const turnedTo = (degrees: number | undefined): object => {
    const { turn: _, ...rest } = box!
    return degrees === undefined || degrees === 0 ? rest : { ...rest, turn: degrees }
  }
  return (
    <div className="@container">
      <div className={fieldsClass}>
        <div className="col-span-2">
          <DraftField label="Name" text={name} width="w-44" onCommit={(text) => apply({ name: text })} />
        </div>
        {numberFields
          .filter(({ field }) => field !== 'nearBelt' || reach.isOnBelt || nearBelt !== undefined)
          .map(({ field, label, unit, hint }) => (
            <DraftField
              key={field}
              label={label}
              unit={unit}
              text={override[field] === undefined ? '' : String(override[field])}
              hint={hint}
              onCommit={(text) => apply({ [field]: toNumber(text) })}
            />
          ))}
      </div>
      <div className={`mt-3 ${fieldsClass}`}>
        {box ? (
          boxFields.map(({ field, label, unit }) => (
            <DraftField
              key={field}
              label={label}
              unit={unit}
              text={String(box[field] ?? 0)}
              onCommit={(text) => apply({ box: field === 'turn' ? turnedTo(toNumber(text)) : { ...box, [field]: toNumber(text) } })}
            />
          ))
        ) : (
          <Button
            className="col-span-2 justify-self-start"
            disabled={layerWide !== undefined}
            data-hint={layerWide && `${settings[layerWide].label} belongs to whole layers`}
            onClick={() => apply({ box: { minX: -10, maxX: 10, minY: -10, maxY: 10 } })}
          >
            Only in a box
          </Button>
        )}
        {box && (
          <Button className="justify-self-start" onClick={() => apply({ box: undefined })}>
            Whole layers
          </Button>
        )}
      </div>
      <SettingsBag
        values={values}
        canHold={(name) => reachOf(name) === 'place' || (reachOf(name) === 'layers' && box === undefined && nearBelt === undefined)}
        onChange={(next) => apply({ values: next })}
      />
      <PictureFields override={override} reach={reach} onChange={apply} />
    </div>
  )
}

/** Empty text takes a value back; a comma counts as a decimal point. */
const toNumber = (text: string): number | undefined => (text.trim() === '' ? undefined : typedNumber(text))
