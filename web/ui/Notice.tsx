import { CircleAlert, X } from 'lucide-react'
import { IconButton } from './Button'

/** What a refusal says: the sentence, the place, the way out. */
export interface Refusal {
  readonly message: string
  readonly where: string
  readonly remedy: string
}

export function Notice({ refusal, onClose }: { refusal: Refusal; onClose?: () => void }) {
  return (
    <div role="alert" className="flex items-start gap-2.5 rounded-md border border-stop/50 bg-raised px-3 py-2">
      <CircleAlert className="mt-0.5 size-4 shrink-0 text-stop" aria-hidden />
      <p className="min-w-0 flex-1">
        {refusal.where !== '' && <span className="font-medium">{refusal.where}: </span>}
        {refusal.message} <span className="text-muted">{refusal.remedy}</span>
      </p>
      {onClose && (
        <IconButton label="Close" onClick={onClose}>
          <X className="size-3.5" />
        </IconButton>
      )}
    </div>
  )
}
