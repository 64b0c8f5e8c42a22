import clsx from 'clsx'
import { Check, ChevronDown } from 'lucide-react'
import { Select as Radix } from 'radix-ui'

/** Lists know no empty value; an option of that id stands for itself by this one. */
const NONE = '–none–'

export interface Option<Id extends string> {
  readonly id: Id
  readonly name: string
  /** Options of one group stand under its name. */
  readonly group?: string
}

/** A choice among a few, with its label before it or above it. */
export function Select<Id extends string>({
  id,
  label,
  name = label,
  value,
  of,
  hint = '',
  layout = 'beside',
  className,
  onChange,
}: {
  /** For a label that stands elsewhere. */
  id?: string
  label: string
  /** What it is called where its label alone would not tell. */
  name?: string
  /** Empty where nothing is chosen yet. */
  value: Id | ''
  of: readonly Option<Id>[]
  /** Stands where nothing is chosen. */
  hint?: string
  layout?: 'beside' | 'above'
  className?: string
  onChange: (id: Id) => void
}) {
  const groups = [...new Set(of.map(({ group = '' }) => group))]
  return (
    <div className={clsx(layout === 'beside' ? 'flex items-center gap-2 text-[12.5px]' : 'block text-[12px]')}>
      {label !== '' && <span className="text-muted">{label}</span>}
      <Radix.Root
        value={value === '' && of.some(({ id }) => id === '') ? NONE : value}
        onValueChange={(id) => onChange((id === NONE ? '' : id) as Id)}
      >
        <Radix.Trigger
          id={id}
          aria-label={name}
          data-value={value}
          className={clsx(
            'flex h-7 items-center gap-1 rounded border border-line bg-sunk pr-1 pl-2 text-left data-[placeholder]:text-muted',
            layout === 'above' ? 'mt-0.5 w-full' : 'max-w-44',
            className,
          )}
        >
          <span className="min-w-0 flex-1 truncate">
            <Radix.Value placeholder={hint} />
          </span>
          <Radix.Icon>
            <ChevronDown className="size-3.5 text-muted" aria-hidden />
          </Radix.Icon>
        </Radix.Trigger>
        <Radix.Portal>
          <Radix.Content
            position="popper"
            sideOffset={4}
            collisionPadding={8}
            className="z-50 max-h-[min(24rem,var(--radix-select-content-available-height))] min-w-(--radix-select-trigger-width) overflow-auto rounded-md border border-strong bg-raised p-1 shadow-xl shadow-black/40"
          >
            <Radix.Viewport>
              {groups.map((group) => (
                <Radix.Group key={group}>
                  {group !== '' && <Radix.Label className="px-2 pt-1 pb-0.5 text-[12px] text-muted">{group}</Radix.Label>}
                  {of
                    .filter((one) => (one.group ?? '') === group)
                    .map((one) => (
                      <Radix.Item
                        key={one.id}
                        value={one.id === '' ? NONE : one.id}
                        data-id={one.id}
                        className="flex cursor-default items-center gap-2 rounded px-2 py-1 text-[12.5px] outline-none data-[highlighted]:bg-line data-[state=checked]:text-lantern-ink"
                      >
                        <span className="flex-1">
                          <Radix.ItemText>{one.name}</Radix.ItemText>
                        </span>
                        <Radix.ItemIndicator>
                          <Check className="size-3.5" aria-hidden />
                        </Radix.ItemIndicator>
                      </Radix.Item>
                    ))}
                </Radix.Group>
              ))}
            </Radix.Viewport>
          </Radix.Content>
        </Radix.Portal>
      </Radix.Root>
    </div>
  )
}
