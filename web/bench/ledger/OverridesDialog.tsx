import type { Candidate } from '@sable/contract/lineup'
import { MOST_OVERRIDES, type Override, overrideSchema, reachOf } from '@sable/core/profile/overrides'
import { type SettingName, settings } from '@sable/core/profile/settings'
import { typedNumber } from '@sable/core/units/typedNumber'
import { Plus, X } from 'lucide-react'
import { edit } from '../../desk/deskStore'
import { setOverrides } from '../../desk/edits'
import { SettingsBag } from '../../shelf/SettingsBag'
import { Button, IconButton } from '../../ui/Button'
import { Sheet } from '../../ui/Dialog'
import { DraftField } from '../../ui/DraftField'

/** Places of one candidate where other values hold: between two heights, or within a box. Every change is applied at once. */
export function OverridesDialog({ candidate, onClose }: { candidate: Candidate; onClose: () => void }) {
  const { id, overrides } = candidate
  const change = (next: readonly Override[]): void => edit((content) => setOverrides(content, id, [...next]))
  const add = (): void => change([...overrides, { name: `place ${overrides.length + 1}`, fromZ: 0, values: {} }])
  return (
    <Sheet title={`Overrides of ${candidate.name}`} onClose={onClose}>
      <p className="mb-3 text-[12.5px] text-muted">
        Heights in mm above the bed; x and y from the middle of the part. Where two places overlap, the later one wins. Supports are held or
        left, and brims laid, place by place; how supports stand, and the skirt, belong to the whole part; layer heights and layer time to
        whole layers.
      </p>
      <ol className="space-y-3">
        {overrides.map((override, i) => (
          <Place
            // biome-ignore lint/suspicious/noArrayIndexKey: places have no identity but their order, and keep their fields by it.
            key={i}
            override={override}
            onChange={(next) => change(overrides.with(i, next))}
            onRemove={() => change(overrides.toSpliced(i, 1))}
          />
        ))}
      </ol>
      {overrides.length === 0 && (
        <p className="rounded-md border border-dashed border-line p-4 text-center text-muted">The same values hold everywhere.</p>
      )}
      <div className="mt-4 flex justify-between">
        <Button onClick={add} disabled={overrides.length >= MOST_OVERRIDES}>
          <Plus className="size-3.5" aria-hidden /> Place
        </Button>
        <Button tone="main" onClick={onClose}>
          Done
        </Button>
      </div>
    </Sheet>
  )
}

const numberFields = [
  { field: 'fromZ', label: 'From height', unit: 'mm', hint: '' },
  { field: 'toZ', label: 'To height', unit: 'mm', hint: 'top' },
  { field: 'speedPercent', label: 'Speed', unit: '%', hint: '100' },
  { field: 'nearBelt', label: 'Near belt', unit: 'mm', hint: 'any' },
] as const

const boxFields = ['minX', 'maxX', 'minY', 'maxY'] as const

function Place({ override, onChange, onRemove }: { override: Override; onChange: (next: Override) => void; onRemove: () => void }) {
  const { name, box, nearBelt, values } = override
  const layerWide = (Object.keys(values) as SettingName[]).find((name) => reachOf(name) === 'layers')
  // Only what the schema takes reaches the desk; the field shows what is wrong meanwhile.
  const apply = (part: Partial<Record<keyof Override, unknown>>): boolean => {
    const next = Object.fromEntries(Object.entries({ ...override, ...part }).filter(([, value]) => value !== undefined))
    const parsed = overrideSchema.safeParse(next)
    if (parsed.success) onChange(parsed.data)
    return parsed.success
  }
  return (
    <li className="rounded-md border border-line p-3">
      <div className="flex flex-wrap items-end gap-3">
        <DraftField label="Name" text={name} width="w-36" onCommit={(text) => apply({ name: text })} />
        {numberFields.map(({ field, label, unit, hint }) => (
          <DraftField
            key={field}
            label={label}
            unit={unit}
            text={override[field] === undefined ? '' : String(override[field])}
            hint={hint}
            onCommit={(text) => apply({ [field]: toNumber(text) })}
          />
        ))}
        <div className="flex-1" />
        <IconButton label={`Remove ${name}`} onClick={onRemove}>
          <X className="size-4" />
        </IconButton>
      </div>
      <div className="mt-3 flex flex-wrap items-end gap-3">
        {box ? (
          boxFields.map((field) => (
            <DraftField
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
            data-hint={layerWide && `${settings[layerWide].label} belongs to whole layers`}
            onClick={() => apply({ box: { minX: -10, maxX: 10, minY: -10, maxY: 10 } })}
          >
            Only in a box
          </Button>
        )}
        {box && <Button onClick={() => apply({ box: undefined })}>Whole layers</Button>}
      </div>
      <SettingsBag
        values={values}
        canHold={(name) => reachOf(name) === 'place' || (reachOf(name) === 'layers' && box === undefined && nearBelt === undefined)}
        onChange={(next) => apply({ values: next })}
      />
    </li>
  )
}

/** Empty text takes a value back; a comma counts as a decimal point. */
const toNumber = (text: string): number | undefined => (text.trim() === '' ? undefined : typedNumber(text))
