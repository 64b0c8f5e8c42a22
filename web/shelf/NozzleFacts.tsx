import { misfit, type Nozzle, wearOf } from '@sable/core/shelf/nozzle'
import type { Printer } from '@sable/core/shelf/printer'

/** Which printers a nozzle fits, and how far it is worn. */
export function NozzleFacts({ nozzle, printers }: { nozzle: Nozzle; printers: readonly Printer[] }) {
  const wear = wearOf(nozzle)
  return (
    <section aria-label="What is known of it" className="flex flex-wrap gap-x-8 gap-y-1 border-y border-line py-2.5 text-[12.5px]">
      <p>
        <span className="text-muted">Worn</span> <span className="figure">{Math.round(100 * wear)} %</span>{' '}
        <span className="text-[12px] text-muted">of the abrasive filament that such a body bears, assumed</span>
      </p>
      {(nozzle.hoursRun ?? 0) > 0 && (
        <p>
          <span className="text-muted">Run</span> <span className="figure">{nozzle.hoursRun!.toFixed(1)}</span>{' '}
          <span className="text-[12px] text-muted">h by its record and the log</span>
        </p>
      )}
      <p className="min-w-0">
        <span className="text-muted">Fits</span>{' '}
        {printers.map((printer, i) => {
          const why = misfit(nozzle, printer)
          return (
            <span key={printer.key} data-hint={why} className={why ? 'text-muted line-through' : ''}>
              {i > 0 && ', '}
              {printer.name}
            </span>
          )
        })}
        <span className="text-[12px] text-muted"> as far as inlet and thread are told</span>
      </p>
      <p className="w-full text-[12px] text-muted">
        Nozzles are changed hot: the right wrench, gloves, and power off at the motors. Repeat the temperature tower afterwards.
      </p>
    </section>
  )
}
