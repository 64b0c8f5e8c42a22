import { type FaultId, faults } from '@sable/core/faults/faults'
import { drawingOf } from './drawings'

const looks = {
  line: { strokeWidth: 1.8, fill: 'none' },
  thin: { strokeWidth: 0.9, fill: 'none' },
  faint: { strokeWidth: 1, fill: 'none', strokeDasharray: '2 3', opacity: 0.7 },
  solid: { strokeWidth: 1, fill: 'currentColor' },
} as const

/** What a fault looks like, drawn in lines alone, so that it is told apart without colour. */
export function FaultDrawing({ fault, className }: { fault: FaultId; className?: string }) {
  return (
    <svg
      viewBox="0 0 72 56"
      role="img"
      aria-label={faults[fault].looks}
      className={className}
      stroke="currentColor"
      strokeLinejoin="round"
      strokeLinecap="round"
    >
      {drawingOf(fault).map(({ d, as = 'line' }) => (
        <path key={d} d={d} {...looks[as]} />
      ))}
    </svg>
  )
}
