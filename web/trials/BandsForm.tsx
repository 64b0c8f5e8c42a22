import type { Setup } from '@sable/core/setup/resolve'
import { OWN, type TrialChoice, valuesOf } from '@sable/core/trials/plan'
import type { BandRange, TrialKind } from '@sable/core/trials/table/kind'
import { typedNumber } from '@sable/core/units/typedNumber'
import { useQuery } from '@tanstack/react-query'
import { partsQuery } from '../api/parts'
import { DraftField } from '../ui/DraftField'
import { NumberField } from '../ui/NumberField'
import { Select } from '../ui/Select'

/** Bands of a trial: from, to and step, or values one by one. */
export function BandsForm({
  kind,
  setup,
  choice,
  onChoice,
}: {
  kind: TrialKind
  setup: Setup
  choice: TrialChoice
  onChoice: (choice: TrialChoice) => void
}) {
  const { varied, forms } = kind
  const form = forms?.find(({ id }) => id === choice.form) ?? forms?.[0]
  const forming = forms && forms.length > 1 && (
    <Select
      layout="above"
      label="Form"
      value={form?.id ?? ''}
      of={forms.map(({ id, name }) => ({ id, name }))}
      onChange={(id) => onChoice({ form: id })}
    />
  )
  if (!varied)
    return (
      <>
        {forming}
        {choice.form === OWN && <OwnPart choice={choice} onChoice={onChoice} />}
      </>
    )
  const fixed = form?.bands !== undefined && choice.range === undefined && choice.list === undefined
  const range = choice.range ?? form?.usual?.(setup) ?? varied.usual(setup)
  const change = (part: Partial<BandRange>): boolean => {
    onChoice({ ...choice, list: undefined, range: { ...range, ...part } })
    return true
  }
  const field = (label: string, id: keyof BandRange) => (
    <NumberField
      layout="above"
      label={label}
      name={`${varied.label}, ${label.toLowerCase()}`}
      value={range[id]}
      unit={varied.unit}
      width="w-full"
      onCommit={(value) => value !== undefined && Number.isFinite(value) && change({ [id]: value })}
    />
  )
  return (
    <fieldset className="space-y-2">
      <legend className="sr-only">Bands</legend>
      {forming}
      {!fixed && (
        <div className="flex gap-2">
          {field('From', 'from')}
          {field('To', 'to')}
          {field('Step', 'step')}
        </div>
      )}
      {!fixed && (
        <DraftField
          label={`or values one by one${varied.unit === '' ? '' : `, ${varied.unit}`}`}
          name={`${varied.label}, one by one`}
          text={(choice.list ?? safely(range)).join(' ')}
          width="w-full"
          onCommit={(text) => {
            const list = text
              .trim()
              .split(/[\s;]+/)
              .map(typedNumber)
            if (!list.every(Number.isFinite)) return false
            onChoice({ ...choice, range: undefined, list })
            return true
          }}
        />
      )}
    </fieldset>
  )
}

/** Longest side of an own part in small, mm. */
const SMALL = 40

/** Which of one's own parts is printed in small. */
function OwnPart({ choice, onChoice }: { choice: TrialChoice; onChoice: (choice: TrialChoice) => void }) {
  const parts = useQuery(partsQuery).data ?? []
  return (
    <Select
      layout="above"
      label="Part"
      hint="choose one"
      value={choice.own?.partId ?? ''}
      of={parts.map(({ id, name }) => ({ id, name }))}
      onChange={(id) => {
        const part = parts.find((one) => one.id === id)
        if (!part) return
        const scale = Math.min(1, Math.round((SMALL / Math.max(...part.report.sizeMm)) * 100) / 100)
        onChoice({ form: OWN, own: { partId: id, contentKey: part.contentKey, fileName: part.fileName, scale } })
      }}
    />
  )
}

/** Values of a range that may be impossible yet. */
function safely(range: BandRange): readonly number[] {
  try {
    return valuesOf(range)
  } catch {
    return []
  }
}
