import { CalendarDays, Download, Undo2 } from 'lucide-react'
import { Link } from 'react-router'
import { Button, IconButton } from '../ui/Button'
import { Choices } from '../ui/Choices'
import { EditableText } from '../ui/EditableText'

export const zooms = [
  { id: '24', name: 'a day' },
  { id: '48', name: 'two days' },
  { id: '96', name: 'four days' },
  { id: '168', name: 'a week' },
] as const

/** Name of a queue, how far its clock reaches, and what can be done with it as a whole. */
export function QueueHead({
  name,
  share,
  zoom,
  undoes,
  isPlanned,
  sheet,
  onName,
  onZoom,
  onUndo,
  onCalendar,
  onCsv,
  onRemove,
}: {
  name: string
  /** Of the planning that is under way. */
  share: number | undefined
  zoom: (typeof zooms)[number]['id']
  /** What would be taken back. */
  undoes: string | undefined
  isPlanned: boolean
  /** Address of the page to print. */
  sheet: string
  onName: (name: string) => void
  onZoom: (id: string | undefined) => void
  onUndo: () => void
  onCalendar: () => void
  onCsv: () => void
  onRemove: () => void
}) {
  return (
    <div className="flex flex-wrap items-center gap-3 px-3 py-2">
      <EditableText text={name} label="Name of the queue" onCommit={onName} className="text-[16px] font-semibold" />
      <div className="flex-1" />
      {share !== undefined && (
        <p role="status" className="figure text-[12px] text-muted">
          Planning … {Math.round(100 * share)} %
        </p>
      )}
      <IconButton label={undoes === undefined ? 'Nothing to undo' : `Undo: ${undoes}`} disabled={undoes === undefined} onClick={onUndo}>
        <Undo2 className="size-4" />
      </IconButton>
      <Choices label="" name="Clock" of={zooms} value={zoom} onChange={onZoom} />
      <Button disabled={!isPlanned} onClick={onCalendar}>
        <CalendarDays className="size-3.5" aria-hidden /> Calendar
      </Button>
      <Button disabled={!isPlanned} onClick={onCsv}>
        <Download className="size-3.5" aria-hidden /> CSV
      </Button>
      <Link to={sheet} className="text-[12px] text-muted underline decoration-line underline-offset-2">
        page to print
      </Link>
      <Button tone="danger" onClick={onRemove}>
        Delete
      </Button>
    </div>
  )
}
