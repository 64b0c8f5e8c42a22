import type { SeenThing } from '@sable/contract/instruments'
import { Ruler } from '../trials/Ruler'
import { useSize } from '../ui/useSize'

/** Room for the ruler, for names of bands, and around it all, px. */
const [RULER, LABELS, ROOM, BELOW] = [46, 56, 14, 26]
/** What hangs or waves is told by the eye from here on, mm. */
const SEEN_SAG = 0.08
/** Share of its lines that look dull from which a stretch is hatched. */
const DULL = 0.3
/** A low thing is drawn so many times as high at most. */
const MOST_RISEN = 3

/** A thing as it stands on the table: its outline, dull stretches, strings in its openings, holes in its walls. To scale, with a ruler. */
export function SeenThingPicture({
  thing: { widthMm, heightMm, rows, strings, gaps },
  name,
  bands = [],
}: {
  thing: SeenThing
  name: string
  bands?: readonly { readonly label: string; readonly fromZ: number; readonly toZ: number }[]
}) {
  const { ref, width, height } = useSize()
  const [roomX, roomY] = [width - RULER - LABELS - 2 * ROOM, height - BELOW - ROOM]
  const zoom = Math.max(0.05, Math.min(roomX / Math.max(1, widthMm), roomY / Math.max(1, heightMm), 12))
  // A low thing is drawn higher than it is: its bands are what is read.
  const rise = Math.max(1, Math.min(MOST_RISEN, Math.floor((10 * roomY) / Math.max(1, heightMm * zoom)) / 10))
  const x0 = RULER + ROOM + Math.max(0, (roomX - widthMm * zoom) / 2)
  const toX = (mm: number): number => x0 + mm * zoom
  const toY = (mm: number): number => height - BELOW - mm * zoom * rise
  const outline = (own: SeenThing['rows']): string =>
    own.map(({ from, to, spans }) => spans.map(([a, b]) => `M${toX(a)},${toY(from)}H${toX(b)}V${toY(to)}H${toX(a)}z`).join('')).join('')
  const every = Math.max(1, Math.ceil(13 / Math.max(0.1, ((bands[0]?.toZ ?? 1) - (bands[0]?.fromZ ?? 0)) * zoom * rise)))
  return (
    <div ref={ref} className="relative h-full min-h-0 w-full overflow-hidden">
      {width > 0 && (
        <svg
          width={width}
          height={height}
          role="img"
          aria-label={`${name}: ${heightMm.toFixed(1)} mm high, ${strings.length} strings and ${gaps.length} holes to be seen`}
        >
          <defs>
            <pattern id="dull" width="4" height="4" patternUnits="userSpaceOnUse" patternTransform="rotate(35)">
              <line x1="0" x2="0" y1="0" y2="4" className="stroke-strong" strokeWidth={1.2} />
            </pattern>
          </defs>
          <path d={outline(rows)} className="fill-strong/35" />
          <path d={outline(rows.filter(({ dull }) => dull > DULL))} fill="url(#dull)" opacity={0.5} />
          {rows.map(({ from, to, spans, sagMm, waveMm }) =>
            spans.map(([a, b]) => (
              <g key={`${from} ${a}`}>
                <path d={wavy(toX(a), toY(from), toY(to), 2 * zoom * waveMm)} className="fill-none stroke-strong" strokeWidth={0.9} />
                <path d={wavy(toX(b), toY(from), toY(to), 2 * zoom * waveMm)} className="fill-none stroke-strong" strokeWidth={0.9} />
                {sagMm > SEEN_SAG && (
                  <path
                    d={`M${toX(a)},${toY(from)} Q${toX((a + b) / 2)},${toY(from - 2 * Math.min(sagMm, 4))} ${toX(b)},${toY(from)}`}
                    className="fill-none stroke-strong"
                    strokeWidth={0.7}
                  />
                )}
              </g>
            )),
          )}
          {strings.map(({ z, from, to, sag }, i) => (
            <path
              // biome-ignore lint/suspicious/noArrayIndexKey: they never change their order.
              key={i}
              d={`M${toX(from)},${toY(z)} Q${toX((from + to) / 2)},${toY(z - 2 * sag)} ${toX(to)},${toY(z)}`}
              className="fill-none stroke-ink"
              strokeWidth={0.8}
            />
          ))}
          {gaps.map(({ z, x, width: wide }, i) => (
            <ellipse
              // biome-ignore lint/suspicious/noArrayIndexKey: they never change their order.
              key={i}
              cx={toX(x)}
              cy={toY(z)}
              rx={Math.max(1.8, wide * zoom * 0.6)}
              ry={Math.max(1.1, 0.22 * zoom)}
              className="fill-ground stroke-ink"
              strokeWidth={0.6}
            />
          ))}
          <line x1={RULER} x2={width - ROOM} y1={toY(0)} y2={toY(0)} className="stroke-strong" />
          <Ruler bottom={0} top={heightMm} toY={toY} x={RULER} zoom={zoom * rise} zero={0} />
          {rise > 1 && (
            <text x={RULER + 12} y={height - 6} className="fill-muted text-[12px]">
              height drawn × {rise}
            </text>
          )}
          {bands.map(({ label, fromZ, toZ }, i) => (
            <g key={label}>
              <line x1={toX(widthMm) + 6} x2={width - ROOM} y1={toY(toZ)} y2={toY(toZ)} className="stroke-line" />
              {i % every === 0 && (
                <text x={width - ROOM - 4} y={toY((fromZ + toZ) / 2) + 4} textAnchor="end" className="figure fill-ink text-[12px]">
                  {label}
                </text>
              )}
            </g>
          ))}
        </svg>
      )}
    </div>
  )
}

/** An edge that swings by so many pixels about where it should be. */
const wavy = (x: number, from: number, to: number, swing: number): string =>
  swing < 0.4 ? `M${x},${from}V${to}` : `M${x},${from}Q${x + swing},${from + 0.25 * (to - from)} ${x},${(from + to) / 2}T${x},${to}`
