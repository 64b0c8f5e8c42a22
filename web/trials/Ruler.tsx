/** Millimetres from the bed up. */
export function Ruler({
  bottom,
  top,
  toY,
  x,
  zoom,
  zero,
}: {
  bottom: number
  top: number
  toY: (mm: number) => number
  x: number
  zoom: number
  zero: number
}) {
  const fine = zoom >= 5 ? 1 : zoom >= 2 ? 5 : 10
  const coarse = fine === 1 ? 5 : fine === 5 ? 10 : 50
  const ticks = Array.from({ length: Math.floor((top - bottom) / fine) + 1 }, (_, i) => i * fine)
  return (
    <g>
      <line x1={x} x2={x} y1={toY(bottom)} y2={toY(top)} className="stroke-strong" />
      {ticks.map((mm) => (
        <g key={mm}>
          <line x1={x - (mm % coarse === 0 ? 8 : 4)} x2={x} y1={toY(zero + mm)} y2={toY(zero + mm)} className="stroke-strong" />
          {mm % coarse === 0 && (
            <text x={x - 11} y={toY(zero + mm) + 4} textAnchor="end" className="figure fill-muted text-[12px]">
              {mm}
            </text>
          )}
        </g>
      ))}
      <text x={x - 11} y={toY(bottom) + 20} textAnchor="end" className="fill-muted text-[12px]">
        mm
      </text>
    </g>
  )
}
