import { CircleHelp } from 'lucide-react'
import { showHelp } from './helpStore'

/** A small sign beside something that the handbook explains. @param of its entry: "figure/time" */
export const HelpButton = ({ of, name }: { of: string; name: string }) => (
  <button
    type="button"
    aria-label={`What is ${name}?`}
    onClick={() => showHelp(of)}
    className="inline-grid size-6 shrink-0 place-items-center rounded text-muted hover:text-lantern-ink"
  >
    <CircleHelp className="size-3.5" aria-hidden />
  </button>
)
