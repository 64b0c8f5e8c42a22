import { DropdownMenu } from 'radix-ui'
import type { ReactNode } from 'react'

/** A dropdown of actions. */
export function Menu({ trigger, children, align = 'start' }: { trigger: ReactNode; children: ReactNode; align?: 'start' | 'end' }) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>{trigger}</DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align={align}
          sideOffset={4}
          collisionPadding={8}
          className="z-50 max-h-[70vh] min-w-48 overflow-auto rounded-md border border-strong bg-raised p-1 shadow-xl shadow-black/40"
        >
          {children}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  )
}

export function MenuItem({
  onSelect,
  children,
  hint,
  disabled,
  current,
}: {
  onSelect: () => void
  children: ReactNode
  hint?: string
  disabled?: boolean
  current?: boolean
}) {
  return (
    <DropdownMenu.Item
      onSelect={onSelect}
      disabled={disabled ?? false}
      aria-current={current || undefined}
      className="flex cursor-default items-center gap-2 rounded px-2 py-1 text-[12.5px] outline-none data-[disabled]:opacity-40 data-[highlighted]:bg-line aria-[current]:text-lantern-ink"
    >
      <span className="flex min-w-0 flex-1 items-center gap-2">{children}</span>
      {hint !== undefined && <span className="text-[12px] text-muted">{hint}</span>}
    </DropdownMenu.Item>
  )
}

export const MenuSeparator = () => <DropdownMenu.Separator className="my-1 h-px bg-line" />

export const MenuLabel = ({ children }: { children: ReactNode }) => (
  <DropdownMenu.Label className="px-2 pt-1 pb-0.5 text-[12px] text-muted">{children}</DropdownMenu.Label>
)
