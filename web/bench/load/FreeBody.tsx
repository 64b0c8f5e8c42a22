import { formatForce } from '@sable/core/units/format'
import { type Bearing, freeBodyOf } from './bearing'

const HEIGHT = 92
const BEAM = 46

/** The load freed from its part: where it acts, what holds against it, and the moment between them. */
export function FreeBody({ bearing, forceN, left, width }: { bearing: Bearing; forceN: number; left: number; width: number }) {
  const { forces, held, arm } = freeBodyOf(bearing)
  const x = (at: number): number => left + at * width
  const newtons = (share: number): string => formatForce(share * forceN)
  const momentNm = (forceN * arm * (bearing.to - bearing.from)) / 1000
  const clamp = held.find(({ how }) => how === 'clamped')
  const across = forces.find(({ way }) => way === 'across')
  const words = [
    ...forces.map(({ at, way, share }) => `${newtons(share)} ${wayWords[way]} at ${place(bearing, at)}`),
    ...held.map(({ at, how }) => `${how === 'clamped' ? 'held' : 'resting'} at ${place(bearing, at)}`),
    ...(arm > 0 && clamp ? [`a moment of ${momentNm.toFixed(2)} N·m where it is held`] : []),
  ].join(', ')
  return (
    <svg width={left + width + 16} height={HEIGHT} role="img" aria-label={`Free body: ${words}`} data-chart="free body">
      <rect x={x(0)} y={BEAM - 5} width={width} height={10} className="fill-line stroke-strong" />
      {held.map(({ at, how }) =>
        how === 'clamped' ? (
          <g key={at} className="stroke-ink">
            <line x1={x(at)} x2={x(at)} y1={BEAM - 16} y2={BEAM + 16} strokeWidth={2} />
            {[-12, -6, 0, 6, 12].map((dy) => {
              const outward = at < 0.5 ? -6 : 6
              return <line key={dy} x1={x(at)} y1={BEAM + dy} x2={x(at) + outward} y2={BEAM + dy + 5} />
            })}
          </g>
        ) : (
          <path key={at} d={`M${x(at)} ${BEAM + 6}l-7 11h14z`} className="fill-none stroke-ink" />
        ),
      )}
      {forces.map(({ at, way, share }) => (
        <Force key={`${way} ${at}`} x={x(at)} way={way} text={newtons(share)} />
      ))}
      {clamp && across && arm > 0 && (
        <g className="fill-muted text-[12px]">
          <line x1={x(clamp.at)} x2={x(across.at)} y1={BEAM + 30} y2={BEAM + 30} className="stroke-muted" />
          <line x1={x(clamp.at)} x2={x(clamp.at)} y1={BEAM + 25} y2={BEAM + 35} className="stroke-muted" />
          <line x1={x(across.at)} x2={x(across.at)} y1={BEAM + 25} y2={BEAM + 35} className="stroke-muted" />
          <text x={(x(clamp.at) + x(across.at)) / 2} y={BEAM + 43} textAnchor="middle">
            <tspan className="figure">{(arm * (bearing.to - bearing.from)).toFixed(1)} mm</tspan>, at its hold{' '}
            <tspan className="figure">{momentNm.toFixed(2)} N·m</tspan>
          </text>
        </g>
      )}
    </svg>
  )
}

const wayWords = { out: 'pulling out', in: 'pressing in', across: 'pressing across', back: 'holding against it' } as const

const place = ({ from, to }: Bearing, at: number): string => `${(at * (to - from)).toFixed(0)} mm`

function Force({ x, way, text }: { x: number; way: 'out' | 'in' | 'across' | 'back'; text: string }) {
  // Arrows end at the beam when they press, and begin there when they pull.
  const [dx, dy] = { out: [34, 0], in: [-34, 0], across: [0, 28], back: [0, -22] }[way] as [number, number]
  const [x1, y1] = way === 'across' ? [x, BEAM - 6 - dy] : way === 'back' ? [x, BEAM + 20 - dy] : way === 'in' ? [x - dx, BEAM] : [x, BEAM]
  const tone = way === 'back' ? 'stroke-muted fill-muted' : 'stroke-lantern fill-lantern'
  const angle = (Math.atan2(dy, dx) * 180) / Math.PI
  return (
    <g className={tone}>
      <line x1={x1} y1={y1} x2={x1 + dx} y2={y1 + dy} strokeWidth={2} />
      <path d="M0 0l-8 -4v8z" transform={`translate(${x1 + dx} ${y1 + dy}) rotate(${angle})`} stroke="none" />
      <text
        x={way === 'out' || way === 'in' ? x1 + dx / 2 : x1 + 6}
        y={way === 'back' ? BEAM + 44 : way === 'across' ? y1 + 9 : BEAM - 12}
        textAnchor={way === 'out' || way === 'in' ? 'middle' : 'start'}
        stroke="none"
        className="figure fill-ink"
      >
        {text}
      </text>
    </g>
  )
}
