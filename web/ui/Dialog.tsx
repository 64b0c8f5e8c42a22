import { AlertDialog, Dialog } from 'radix-ui'
import type { ReactNode } from 'react'
import { DialogHead } from './DialogHead'

/** Something to look at or to work on over the bench, closed when it is done. */
export function Sheet({
  title,
  children,
  onClose,
  width = 'w-[46rem]',
}: {
  title: string
  children: ReactNode
  onClose: () => void
  width?: string
}) {
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/55" />
        <Dialog.Content
          aria-describedby={undefined}
          className={`fixed top-[12vh] left-1/2 z-50 ${width} max-h-[78vh] max-w-[94vw] -translate-x-1/2 overflow-auto rounded-lg border border-strong bg-raised p-5`}
        >
          <DialogHead title={title} />
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  )
}

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
