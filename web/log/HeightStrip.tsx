import type { PrintLine } from '@sable/contract/prints'

const [WIDTH, HEIGHT, LEFT, TOP] = [150, 230, 34, 8]

/** A print from its foot to its top, with what went wrong pinned where it was. */
export function HeightStrip({ line: { heightMm, atZ, faults, state } }: { line: PrintLine }) {
  if (heightMm <= 0) return null
  const toY = (mm: number): number => TOP + (HEIGHT - 2 * TOP) * (1 - Math.min(1, mm / heightMm))
  const pins = [
    ...faults.flatMap(({ what, atZ: z }) => (z === undefined ? [] : [{ what, z }])),
    ...(atZ === undefined || faults.some((fault) => fault.atZ === atZ) ? [] : [{ what: state, z: atZ }]),
  ].sort((a, b) => b.z - a.z)
  const every = niceStep(heightMm / 5)
  const marks = Array.from({ length: Math.floor(heightMm / every) + 1 }, (_, i) => i * every)
  const made = atZ ?? heightMm
  return (
    <svg width={WIDTH} height={HEIGHT} role="img" aria-label={told(pins)} className="shrink-0">
      <title>{told(pins)}</title>
      {marks.map((mm) => (
        <g key={mm}>
          <line x1={LEFT - 5} x2={LEFT} y1={toY(mm)} y2={toY(mm)} className="stroke-strong" />
          <text x={LEFT - 8} y={toY(mm) + 3.5} textAnchor="end" className="figure fill-muted text-[12px]">
            {mm}
          </text>
        </g>
      ))}
      <rect x={LEFT} width={16} y={toY(heightMm)} height={toY(0) - toY(heightMm)} className="fill-none stroke-line" strokeDasharray="3 3" />
      <rect x={LEFT} width={16} y={toY(made)} height={toY(0) - toY(made)} className="fill-strong/40 stroke-strong" />
      {pins.map(({ what, z }) => (
        <g key={`${what} ${z}`}>
          <line x1={LEFT} x2={LEFT + 26} y1={toY(z)} y2={toY(z)} strokeWidth={2} className="stroke-worse" />
          <text x={LEFT + 30} y={toY(z) + 3.5} className="fill-ink text-[12px]">
            {what.length > 14 ? `${what.slice(0, 13)}…` : what}
          </text>
        </g>
      ))}
    </svg>
  )
}

const told = (pins: readonly { readonly what: string; readonly z: number }[]): string =>
  pins.length === 0 ? 'Nothing is pinned to a height.' : pins.map(({ what, z }) => `${what} at ${z} mm`).join(', ')

/** 1, 2 or 5 times a power of ten, not less than this. */
function niceStep(least: number): number {
  const power = 10 ** Math.floor(Math.log10(least))
  return [1, 2, 5, 10].map((n) => n * power).find((step) => step >= least)!
}
