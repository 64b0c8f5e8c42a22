import { AlertDialog } from 'radix-ui'
import type { ReactNode } from 'react'

/** A question that must be answered before going on. */
export function Question({
  title,
  children,
  actions,
  onEscape,
}: {
  title: string
  children: ReactNode
  actions: ReactNode
  onEscape?: () => void
}) {
  return (
    <AlertDialog.Root open>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-40 bg-black/55" />
        <AlertDialog.Content
          onEscapeKeyDown={onEscape}
          className="fixed top-1/3 left-1/2 z-50 w-[30rem] max-w-[92vw] -translate-x-1/2 -translate-y-1/3 rounded-lg border border-strong bg-raised p-5"
        >
          <AlertDialog.Title className="text-[15px] font-semibold">{title}</AlertDialog.Title>
          <AlertDialog.Description asChild>
            <div className="mt-2 text-muted">{children}</div>
          </AlertDialog.Description>
          <div className="mt-5 flex justify-end gap-2">{actions}</div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  )
}
