import { X } from 'lucide-react'
import { Dialog } from 'radix-ui'
import { IconButton } from './Button'

/** Title of a sheet or drawer, and the button that closes it. */
export const DialogHead = ({ title }: { title: string }) => (
  <div className="mb-3 flex items-center justify-between gap-4">
    <Dialog.Title className="truncate text-[15px] font-semibold">{title}</Dialog.Title>
    <Dialog.Close asChild>
      <IconButton label="Close">
        <X className="size-4" />
      </IconButton>
    </Dialog.Close>
  </div>
)
