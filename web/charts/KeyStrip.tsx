import clsx from 'clsx'
import type { Key } from './colourings'
import { scaleGradient } from './palettes'

/** The key of a drawing in one line; a kind that is pressed stands out. */
export function KeyStrip({ of, only, onOnly }: { of: Key; only?: number | undefined; onOnly?: (kind: number | undefined) => void }) {
  if (of.kind === 'scale') {
    return (
      <p className="flex items-center gap-2 text-[12px] text-muted">
        <span className="figure">{of.low.toFixed(of.digits ?? 0)}</span>
        <span aria-hidden className="h-2.5 w-48 rounded-sm" style={{ background: scaleGradient(of.scale) }} />
        <span className="figure">{of.high.toFixed(of.digits ?? 0)}</span> {of.unit}
      </p>
    )
  }
  const swatch = (label: string, colour: string) => (
    <>
      <span aria-hidden className="h-2 w-3.5 rounded-full" style={{ background: colour }} />
      {label}
    </>
  )
  return (
    <ul className="-mx-1.5 flex flex-wrap gap-x-1 gap-y-0.5 text-[12px]">
      {of.kinds.map(({ id, label, colour }) => (
        <li key={id}>
          {onOnly ? (
            <button
              type="button"
              aria-pressed={only === id}
              onClick={() => onOnly(only === id ? undefined : id)}
              className={clsx(
                'flex items-center gap-1.5 rounded px-1.5 py-0.5 hover:bg-line',
                only !== undefined && only !== id ? 'text-muted' : 'text-ink',
              )}
            >
              {swatch(label, colour)}
            </button>
          ) : (
            <span className="flex items-center gap-1.5 px-1.5 py-0.5">{swatch(label, colour)}</span>
          )}
        </li>
      ))}
    </ul>
  )
}
