import { Popover as Radix } from 'radix-ui'
import type { ReactNode } from 'react'

/** A small panel beside what opened it. */
export function Popover({
  trigger,
  children,
  label,
  width = 'w-80',
}: {
  trigger: ReactNode
  children: ReactNode
  label: string
  width?: string
}) {
  return (
    <Radix.Root>
      <Radix.Trigger asChild>{trigger}</Radix.Trigger>
      <Radix.Portal>
        <Radix.Content
          aria-label={label}
          sideOffset={6}
          collisionPadding={8}
          className={`z-50 ${width} max-h-[min(75vh,var(--radix-popover-content-available-height))] overflow-auto rounded-md border border-strong bg-raised p-3 shadow-xl shadow-black/40`}
        >
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  )
}
