import { Command } from 'cmdk'
import { Check } from 'lucide-react'
import { Popover } from 'radix-ui'
import { type ReactNode, useState } from 'react'

export interface SearchItem {
  readonly id: string
  readonly name: string
  readonly hint?: string
}

/** More are not listed at once: a few letters find the others. */
const MOST = 60

/** A menu of things by name, that is searched as one types; below them what can be done. */
export function SearchMenu({
  trigger,
  label,
  items,
  current,
  onChoose,
  actions = [],
}: {
  trigger: ReactNode
  /** What is looked for. */
  label: string
  items: readonly SearchItem[]
  /** Id of the one that is open. */
  current?: string | undefined
  onChoose: (id: string) => void
  actions?: readonly { readonly name: string; readonly hint?: string; readonly run: () => void }[]
}) {
  const [open, setOpen] = useState(false)
  const [typed, setTyped] = useState('')
  const wanted = typed.trim().toLowerCase().split(/\s+/)
  const found = items.filter(({ name }) => wanted.every((part) => name.toLowerCase().includes(part)))
  const show = (to: boolean): void => {
    setOpen(to)
    setTyped('')
  }
  const row =
    'flex min-h-7 cursor-pointer items-center gap-2 rounded px-2 text-[12.5px] aria-selected:bg-glow aria-selected:text-lantern-ink'
  return (
    <Popover.Root open={open} onOpenChange={show}>
      <Popover.Trigger asChild>{trigger}</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={4}
          aria-label={label}
          className="z-50 w-[24rem] max-w-[92vw] rounded-md border border-strong bg-raised p-1 shadow-2xl shadow-black/40"
        >
          <Command label={label} shouldFilter={false} loop>
            <Command.Input
              value={typed}
              onValueChange={setTyped}
              placeholder={`${label} (${items.length})`}
              className="mb-1 h-8 w-full rounded border border-line bg-sunk px-2 text-[12.5px] outline-none placeholder:text-muted focus:border-lantern"
            />
            <Command.List className="max-h-[56vh] overflow-auto">
              {found.length === 0 && <p className="px-2 py-1.5 text-[12px] text-muted">Nothing is called so.</p>}
              {found.slice(0, MOST).map(({ id, name, hint }) => (
                <Command.Item
                  key={id}
                  value={id}
                  onSelect={() => {
                    show(false)
                    onChoose(id)
                  }}
                  className={row}
                >
                  <Check className={`size-3.5 shrink-0 ${id === current ? 'text-lantern-ink' : 'invisible'}`} aria-hidden />
                  <span className="min-w-0 flex-1 truncate">{name}</span>
                  {hint !== undefined && <span className="text-[12px] text-muted">{hint}</span>}
                </Command.Item>
              ))}
              {found.length > MOST && <p className="px-2 py-1 text-[12px] text-muted">and {found.length - MOST} more: type some letters</p>}
              {actions.length > 0 && <Command.Separator alwaysRender className="my-1 h-px bg-line" />}
              {actions.map(({ name, hint, run }) => (
                <Command.Item
                  key={`${name} ${hint ?? ''}`}
                  value={`do ${name} ${hint ?? ''}`}
                  onSelect={() => {
                    show(false)
                    run()
                  }}
                  className={row}
                >
                  <span className="min-w-0 flex-1 truncate pl-[1.4rem]">{name}</span>
                  {hint !== undefined && <span className="text-[12px] text-muted">{hint}</span>}
                </Command.Item>
              ))}
            </Command.List>
          </Command>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  )
}
