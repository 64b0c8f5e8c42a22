import { Dialog } from 'radix-ui'
import type { ReactNode } from 'react'
import { DialogHead } from './DialogHead'

/** Something to read beside the bench, which stays in use. */
export function Drawer({ title, children, onClose }: { title: string; children: ReactNode; onClose: () => void }) {
  return (
    <Dialog.Root open modal={false} onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Content
          aria-describedby={undefined}
          onInteractOutside={(event) => event.preventDefault()}
          className="fixed top-0 right-0 bottom-0 z-40 w-[26rem] max-w-[92vw] overflow-auto border-l border-strong bg-raised p-4 shadow-2xl shadow-black/40"
        >
          <DialogHead title={title} />
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  )
}
