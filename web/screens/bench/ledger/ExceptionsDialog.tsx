import type { Candidate } from '@sable/contract/lineup'
import { InputError } from '@sable/core/errors'
import { type Exception, exceptionSchema, MOST_EXCEPTIONS, reachOf } from '@sable/core/profile/exceptions'
import { groups } from '@sable/core/profile/setting'
import { definitionOf, parseValue, type SettingName, type SettingValues, settingNames, settings } from '@sable/core/profile/settings'
import { Plus, X } from 'lucide-react'
import { useState } from 'react'
import { edit } from '../../../desk/deskStore'
import { setExceptions } from '../../../desk/edits'
import { Button, IconButton } from '../../../ui/Button'
import { Sheet } from '../../../ui/Dialog'
import { inWords } from './rows'

/** Places of one candidate where other values hold: between two heights, or within a box. Every change is applied at once. */
export function ExceptionsDialog({ candidate, onClose }: { candidate: Candidate; onClose: () => void }) {
  const { id, exceptions } = candidate
  const change = (next: readonly Exception[]): void => edit((content) => setExceptions(content, id, [...next]))
  const add = (): void => change([...exceptions, { name: `place ${exceptions.length + 1}`, fromZ: 0, speedPercent: 50, values: {} }])
  return (
    <Sheet title={`Exceptions of ${candidate.name}`} onClose={onClose}>
      <p className="mb-3 text-[12.5px] text-muted">
        Heights in mm above the bed; x and y from the middle of the part. Where two places overlap, the later one wins. Supports and foot
        belong to the whole part; layer heights and layer time to whole layers.
      </p>
      <ol className="space-y-3">
        {exceptions.map((exception, i) => (
          <Place
            // biome-ignore lint/suspicious/noArrayIndexKey: places have no identity but their order, and keep their fields by it.
            key={i}
            exception={exception}
            onChange={(next) => change(exceptions.with(i, next))}
            onRemove={() => change(exceptions.toSpliced(i, 1))}
          />
        ))}
      </ol>
      {exceptions.length === 0 && (
        <p className="rounded-md border border-dashed border-line p-4 text-center text-muted">The same values hold everywhere.</p>
      )}
      <div className="mt-4 flex justify-between">
        <Button onClick={add} disabled={exceptions.length >= MOST_EXCEPTIONS}>
          <Plus className="size-3.5" aria-hidden /> Place
        </Button>
        <Button tone="main" onClick={onClose}>
          Done
        </Button>
      </div>
    </Sheet>
  )
}

const placeGroups = groups.filter((group) => settingNames.some((name) => settings[name].group === group && reachOf(name) !== 'part'))

const boxFields = ['minX', 'maxX', 'minY', 'maxY'] as const

function Place({ exception, onChange, onRemove }: { exception: Exception; onChange: (next: Exception) => void; onRemove: () => void }) {
  const { name, fromZ, toZ, box, nearBelt, speedPercent, values } = exception
  const layerWide = (Object.keys(values) as SettingName[]).find((name) => reachOf(name) === 'layers')
  // Only what the schema takes reaches the desk; the field shows what is wrong meanwhile.
  const apply = (part: Partial<Record<keyof Exception, unknown>>): boolean => {
    const next = Object.fromEntries(Object.entries({ ...exception, ...part }).filter(([, value]) => value !== undefined))
    const parsed = exceptionSchema.safeParse(next)
    if (parsed.success) onChange(parsed.data)
    return parsed.success
  }
  return (
    <li className="rounded-md border border-line p-3">
      <div className="flex flex-wrap items-end gap-3">
        <Field label="Name" text={name} width="w-36" onCommit={(text) => apply({ name: text })} />
        <Field label="From height" unit="mm" text={String(fromZ)} onCommit={(text) => apply({ fromZ: toNumber(text) })} />
        <Field
          label="To height"
          unit="mm"
          text={toZ === undefined ? '' : String(toZ)}
          hint="top"
          onCommit={(text) => apply({ toZ: toNumber(text) })}
        />
        <Field
          label="Speed"
          unit="%"
          text={speedPercent === undefined ? '' : String(speedPercent)}
          hint="100"
          onCommit={(text) => apply({ speedPercent: toNumber(text) })}
        />
        <Field
          label="Near belt"
          unit="mm"
          text={nearBelt === undefined ? '' : String(nearBelt)}
          hint="any"
          onCommit={(text) => apply({ nearBelt: toNumber(text) })}
        />
        <div className="flex-1" />
        <IconButton label={`Remove ${name}`} onClick={onRemove}>
          <X className="size-4" />
        </IconButton>
      </div>
      <div className="mt-3 flex flex-wrap items-end gap-3">
        {box ? (
          boxFields.map((field) => (
            <Field
              key={field}
              label={`${field.endsWith('X') ? 'x' : 'y'} ${field.startsWith('min') ? 'from' : 'to'}`}
              unit="mm"
              text={String(box[field])}
              onCommit={(text) => apply({ box: { ...box, [field]: toNumber(text) } })}
            />
          ))
        ) : (
          <Button
            disabled={layerWide !== undefined}
            title={layerWide && `${settings[layerWide].label} belongs to whole layers`}
            onClick={() => apply({ box: { minX: -10, maxX: 10, minY: -10, maxY: 10 } })}
          >
            Only in a box
          </Button>
        )}
        {box && <Button onClick={() => apply({ box: undefined })}>Whole layers</Button>}
      </div>
      <Overrides values={values} partial={box !== undefined || nearBelt !== undefined} onChange={(next) => apply({ values: next })} />
    </li>
  )
}

/** Settings that have another value in the place; `partial` when it covers a part of a layer only. */
function Overrides({ values, partial, onChange }: { values: SettingValues; partial: boolean; onChange: (values: SettingValues) => void }) {
  const canHold = (name: SettingName): boolean => reachOf(name) === 'place' || (reachOf(name) === 'layers' && !partial)
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
        {placeGroups.map((group) => (
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
      <Field
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

function Field({
  label,
  text,
  unit = '',
  hint = '',
  width = 'w-20',
  onCommit,
}: {
  label: string
  text: string
  unit?: string
  hint?: string
  width?: string
  /** Returns whether the text could be taken. */
  onCommit: (text: string) => boolean
}) {
  const [draft, setDraft] = useState<string>()
  const [wrong, setWrong] = useState(false)
  return (
    <label className="block text-[12px]">
      <span className="text-muted">{label}</span>
      <span className="mt-0.5 flex items-center gap-1">
        <input
          value={draft ?? text}
          placeholder={hint}
          aria-invalid={wrong}
          onChange={(event) => {
            setDraft(event.target.value)
            setWrong(!onCommit(event.target.value))
          }}
          onBlur={() => {
            setDraft(undefined)
            setWrong(false)
          }}
          className={`${width} figure h-7 rounded border border-line bg-sunk px-2 aria-[invalid=true]:border-stop`}
        />
        {unit !== '' && <span className="text-muted">{unit}</span>}
      </span>
    </label>
  )
}

/** Empty text takes a value back; a comma counts as a decimal point. */
const toNumber = (text: string): number | undefined => (text.trim() === '' ? undefined : Number(text.replace(',', '.')))
