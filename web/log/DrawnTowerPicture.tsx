import type { DrawnTower } from '@sable/contract/trainer'

const BAND = 44
const [LEFT, COLUMN, GAP, WALL] = [70, 60, 150, 110]
const TOP = 16

/** A tower as it stands on the table: two columns with what hangs between them, and a wall with what is missing of it. The lowest band stands lowest. */
export function DrawnTowerPicture({ tower: { kind, unit, bands } }: { tower: DrawnTower }) {
  const height = 2 * TOP + BAND * bands.length
  const yOf = (index: number, share: number): number => TOP + BAND * (bands.length - 1 - index) + BAND * (1 - share)
  const [a, b] = [LEFT + COLUMN, LEFT + COLUMN + GAP]
  const right = b + COLUMN
  const hasColumns = kind === 'temperature'
  const wallFrom = hasColumns ? right + 24 : LEFT
  const wall = hasColumns ? WALL : COLUMN + GAP + COLUMN + WALL
  return (
    <svg
      viewBox={`0 0 ${wallFrom + wall + 20} ${height}`}
      preserveAspectRatio="xMinYMin"
      className="h-full max-h-[46rem] w-full"
      role="img"
      aria-label={`A tower of ${bands.length} bands, to be read from the picture`}
    >
      {hasColumns && (
        <>
          <rect x={LEFT} y={TOP} width={COLUMN} height={height - 2 * TOP} className="fill-strong/40 stroke-strong" />
          <rect x={b} y={TOP} width={COLUMN} height={height - 2 * TOP} className="fill-strong/40 stroke-strong" />
        </>
      )}
      <rect x={wallFrom} y={TOP} width={wall} height={height - 2 * TOP} className="fill-strong/40 stroke-strong" />
      {bands.map(({ label, strings, gaps }, i) => (
        <g key={label}>
          <line x1={LEFT - 8} x2={wallFrom + wall} y1={yOf(i, 0)} y2={yOf(i, 0)} className="stroke-line" />
          <text x={LEFT - 14} y={yOf(i, 0.5) + 4} textAnchor="end" className="figure fill-ink text-[12px]">
            {label}
          </text>
          {strings.map(({ at, sag, from, to }) => (
            <path
              key={`${at} ${from}`}
              d={`M${a + GAP * from},${yOf(i, at)} Q${a + (GAP * (from + to)) / 2},${yOf(i, at - sag)} ${a + GAP * to},${yOf(i, at)}`}
              className="fill-none stroke-ink"
              strokeWidth={1}
            />
          ))}
          {gaps.map(({ x, at, width }) => (
            <ellipse
              key={`${x} ${at}`}
              cx={wallFrom + 6 + (wall - 12) * x}
              cy={yOf(i, at)}
              rx={Math.max(2, wall * width * 0.5)}
              ry={2.2}
              className="fill-ground stroke-strong"
            />
          ))}
        </g>
      ))}
      <text x={LEFT - 14} y={TOP - 4} textAnchor="end" className="fill-muted text-[11px]">
        {unit}
      </text>
    </svg>
  )
}
