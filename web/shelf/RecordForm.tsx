import { zodResolver } from '@hookform/resolvers/zod'
import { recordSchemas, type ShelfKind } from '@sable/contract/shelf'
import { inWords } from '@sable/core/units/format'
import { typedNumber } from '@sable/core/units/typedNumber'
import clsx from 'clsx'
import {
  type FieldErrors,
  type FieldValues,
  type Control as FormControl,
  get,
  set,
  type UseFormRegister,
  useController,
  useForm,
} from 'react-hook-form'
import { inMoney } from '../ui/currency'
import { Select } from '../ui/Select'
import type { FieldGroup, RecordField } from './fields'
import type { AnyRecord } from './shelfWriter'

interface Props {
  readonly kind: ShelfKind
  readonly record: AnyRecord
  readonly groups: readonly FieldGroup[]
  /** Called with a whole, valid record when a field that was changed is left. */
  readonly onSave: (record: AnyRecord) => void
}

/**
 * The fields of a record. What is typed is stored when its field is left, unless the record would make no sense then. Answers
 * of the server come while somebody types on: a field that was touched keeps what was typed into it.
 */
export function RecordForm({ kind, record, groups, onSave }: Props) {
  const check = zodResolver(recordSchemas[kind] as never)
  const { register, control, handleSubmit, formState, getValues } = useForm<FieldValues>({
    values: record,
    resetOptions: { keepDirtyValues: true, keepErrors: true },
    // Objects of which nothing is filled in are not there at all.
    resolver: (values, context, options) => check(pruned(values) as never, context, options as never) as never,
    mode: 'onBlur',
  })
  const { dirtyFields } = formState
  const save = (again: boolean): void =>
    void handleSubmit(() => {
      // Only what was changed here: the rest may have moved on.
      const next = structuredClone(record) as FieldValues
      const touched = groups.flatMap(({ fields }) => fields).filter(({ path }) => get(dirtyFields, path) !== undefined)
      for (const { path } of touched) set(next, path, getValues(path))
      if (touched.length > 0 || again) onSave(recordSchemas[kind].parse(pruned(next)) as AnyRecord)
    })()
  return (
    <form
      aria-label={`${record.name}, its fields`}
      noValidate
      onBlur={() => save(false)}
      onSubmit={(event) => {
        event.preventDefault()
        save(true)
      }}
      className="space-y-5"
    >
      {groups.map(({ name, fields }) => (
        <fieldset key={name}>
          <legend className="mb-1.5 text-[12.5px] font-semibold text-lantern-ink">{name}</legend>
          <div className="grid grid-cols-[repeat(auto-fill,minmax(15rem,1fr))] gap-x-6 gap-y-1">
            {fields.map((field) => (
              <FormField key={field.path} field={field} record={record} register={register} control={control} errors={formState.errors} />
            ))}
          </div>
        </fieldset>
      ))}
      {/* Enter in any field stores it. */}
      <button type="submit" className="sr-only" tabIndex={-1}>
        Store
      </button>
    </form>
  )
}

interface FieldProps {
  readonly field: RecordField
  readonly record: AnyRecord
  readonly register: UseFormRegister<FieldValues>
  readonly control: FormControl
  readonly errors: FieldErrors
}

function FormField({ field, record, register, control, errors }: FieldProps) {
  const { path, label, unit = '', empty, help } = field
  const problem = problemOf(get(errors, path))
  const id = `field-${path.replaceAll('.', '-')}`
  if (field.kind === 'several') return <Several field={field} register={register} />
  return (
    <div
      className={clsx(
        'grid grid-cols-[minmax(0,1fr)_auto] gap-x-2',
        field.kind === 'lines' ? 'items-start' : 'items-center',
        (field.kind === 'long' || field.kind === 'lines') && 'col-span-full',
      )}
    >
      <label htmlFor={id} data-hint={help} className="text-[12.5px] leading-tight text-muted">
        {label}
      </label>
      <span className="flex items-center gap-1.5">
        <Control id={id} field={field} register={register} control={control} invalid={problem !== undefined} placeholder={empty ?? ''} />
        <span className="w-10 text-[12px] text-muted">{inMoney(unit)}</span>
      </span>
      {field.kind === 'lines' && <span className="col-span-2 pr-[2.85rem] text-right text-[12px] text-muted">{help}</span>}
      {field.doubts?.(record).map((doubt) => (
        <span key={doubt} className="col-span-2 pr-[2.85rem] text-right text-[12px] text-worse">
          {doubt}
        </span>
      ))}
      {problem !== undefined && (
        <span role="alert" id={`${id}-problem`} className="col-span-2 text-[12px] text-stop">
          {problem}
        </span>
      )}
    </div>
  )
}

/** Any of a few, each a box to tick. */
function Several({ field: { path, label, choices = [], empty = '' }, register }: Pick<FieldProps, 'field' | 'register'>) {
  return (
    <fieldset className="col-span-full flex flex-wrap items-center gap-x-4 gap-y-1 py-1 text-[12.5px]">
      <legend className="sr-only">{label}</legend>
      <span aria-hidden className="text-muted">
        {label}
        <span className="ml-1 text-[12px]">(none ticked: {empty})</span>
      </span>
      {choices.map((choice) => {
        const { key, name } = typeof choice === 'string' ? { key: choice, name: inWords(choice) } : choice
        return (
          <label key={key} className="flex min-h-6 items-center gap-1.5">
            <input type="checkbox" value={key} className="size-4 accent-lantern" {...register(path)} />
            {name}
          </label>
        )
      })}
    </fieldset>
  )
}

const box = 'h-7 rounded border border-line bg-sunk px-2 text-[12.5px] placeholder:text-muted/70 aria-[invalid=true]:border-stop'

function Control({
  id,
  field,
  register,
  control,
  invalid,
  placeholder,
}: {
  id: string
  field: RecordField
  register: FieldProps['register']
  control: FormControl
  invalid: boolean
  placeholder: string
}) {
  const shared = { id, 'aria-invalid': invalid, 'aria-describedby': invalid ? `${id}-problem` : undefined, 'data-hint': field.help }
  switch (field.kind) {
    case 'number':
      return (
        <input
          {...shared}
          inputMode="decimal"
          placeholder={placeholder}
          className={`${box} figure w-24 text-right`}
          {...register(field.path, { setValueAs: toNumber })}
        />
      )
    case 'choice':
      return <Choice id={id} field={field} control={control} />
    case 'yes':
      return <input {...shared} type="checkbox" className="size-4 accent-lantern" {...register(field.path)} />
    case 'color':
      return <Color id={id} field={field} control={control} />
    case 'long':
    case 'lines':
      return (
        <textarea
          {...shared}
          rows={5}
          placeholder={placeholder}
          spellCheck={field.kind === 'long'}
          className={clsx(box, 'h-auto w-[34rem] max-w-full py-1', field.kind === 'lines' && 'figure')}
          {...register(field.path, { setValueAs: emptyToNothing })}
        />
      )
    case 'tags':
      return <input {...shared} placeholder={placeholder} className={`${box} w-40`} {...register(field.path, { setValueAs: toTags })} />
    case 'several':
      return null
    case 'text':
      return (
        <input {...shared} placeholder={placeholder} className={`${box} w-40`} {...register(field.path, { setValueAs: emptyToNothing })} />
      )
  }
}

type OwnState = Pick<FieldProps, 'field' | 'control'> & { readonly id: string }

/** One of a few, or none. */
function Choice({ id, field: { path, label, empty, choices = [] }, control }: OwnState) {
  const { field } = useController({ name: path, control })
  const none = empty === undefined ? [] : [{ id: '', name: empty }]
  return (
    <Select
      id={id}
      label=""
      name={label}
      value={String(field.value ?? '')}
      of={[
        ...none,
        ...choices.map((choice) =>
          typeof choice === 'string' ? { id: choice, name: inWords(choice) } : { id: choice.key, name: choice.name },
        ),
      ]}
      className="w-40"
      onChange={(chosen) => field.onChange(emptyToNothing(chosen))}
    />
  )
}

/** A colour. Where there is none yet, the browser's own field would show black as if it were chosen. */
function Color({ id, field: { path, empty }, control }: OwnState) {
  const { field } = useController({ name: path, control })
  return (
    <span className="relative flex h-7 w-24 items-center justify-center rounded border border-line bg-sunk text-[12px] text-muted focus-within:outline-2 focus-within:outline-lantern">
      {field.value === undefined && empty}
      <input
        id={id}
        type="color"
        value={field.value ?? '#808080'}
        onChange={field.onChange}
        onBlur={field.onBlur}
        className={clsx('absolute inset-0 size-full rounded p-0.5', field.value === undefined && 'opacity-0')}
      />
    </span>
  )
}

/** Empty text takes a value back; a comma counts as a decimal point. */
const toNumber = (value: unknown): number | undefined => {
  if (typeof value === 'number' || value === undefined) return value as number | undefined
  const text = String(value).trim()
  return text === '' ? undefined : typedNumber(text)
}
const emptyToNothing = (value: unknown): unknown => (value === '' || value === null ? undefined : value)
const toTags = (value: unknown): string[] =>
  (Array.isArray(value) ? value : String(value ?? '').split(',')).map((tag) => String(tag).trim()).filter((tag) => tag !== '')

/** The first sentence of an error, however deep it lies. */
function problemOf(error: unknown): string | undefined {
  if (typeof error !== 'object' || error === null) return undefined
  const { message } = error as { message?: unknown }
  if (typeof message === 'string') return message.includes('NaN') ? 'This is no number.' : message
  return Object.values(error).map(problemOf).find(Boolean)
}

/** Without what is not filled in. */
function pruned(value: unknown): unknown {
  if (Array.isArray(value)) return value.every((entry) => entry === undefined) && value.length > 0 ? undefined : value.map(pruned)
  if (typeof value !== 'object' || value === null) return value
  const entries = Object.entries(value)
    .map(([name, entry]) => [name, pruned(entry)] as const)
    .filter(([, entry]) => entry !== undefined)
  return entries.length === 0 && Object.keys(value).length > 0 ? undefined : Object.fromEntries(entries)
}
