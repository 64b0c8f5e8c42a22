import { typedNumber } from '@sable/core/units/typedNumber'
import clsx from 'clsx'
import { useDraft } from './useDraft'

/** A number with its label and unit. What is typed is handed on at once, and kept and marked while it cannot be taken. */
export function NumberField({
  label,
  name = label,
  unit = '',
  value,
  per = 1,
  hint = '',
  problem,
  layout = 'beside',
  width = 'w-24',
  onCommit,
}: {
  label: string
  /** What it is called where its label alone would not tell. */
  name?: string
  unit?: string
  /** In base units; nothing where the field is empty. */
  value: number | undefined
  /** Base units in one of the unit that is shown. */
  per?: number
  hint?: string
  /** What is wrong with what cannot be taken. */
  problem?: string
  /** Label before the field or above it. */
  layout?: 'beside' | 'above'
  width?: string
  /** Takes a number in base units, or nothing for an empty field. Returns whether it could be taken. */
  onCommit: (value: number | undefined) => boolean
}) {
  const text = value === undefined ? '' : String(Number((value / per).toFixed(4)))
  const { wrong, ...field } = useDraft(text, (typed) => onCommit(typed.trim() === '' ? undefined : typedNumber(typed) * per))
  const isBeside = layout === 'beside'
  return (
    <label className={clsx('text-[12px]', isBeside ? 'flex items-center gap-2' : 'block flex-1')}>
      <span className={clsx('text-muted', isBeside && 'flex-1')}>{label}</span>
      <span className={clsx('flex items-center gap-1.5', !isBeside && 'mt-0.5')}>
        <input
          {...field}
          aria-label={name}
          placeholder={hint}
          inputMode="decimal"
          aria-invalid={wrong}
          className={`${width} figure h-7 min-w-0 rounded border border-line bg-sunk px-2 text-right aria-[invalid=true]:border-stop`}
        />
        {unit !== '' && <span className={clsx('text-muted', isBeside && 'w-7')}>{unit}</span>}
      </span>
      {wrong && problem !== undefined && <span className="text-[12px] text-stop">{problem}</span>}
    </label>
  )
}
