import type { PrintLine } from '@sable/contract/prints'

const [WIDTH, HEIGHT] = [120, 22]
/** Logarithm of the share at either end: a fifth and more lie on the rim. */
const MOST = Math.log(1.2)

/** Two ticks on one scale: what was foretold in the middle with its 80 % range, and what it really was. */
export function TickScale({ line: { timeS, timeRange, state, ...line } }: { line: PrintLine }) {
  // One that did not come to its end says nothing of the whole.
  const actualS = state === 'good' || state === 'usable' ? line.actualS : undefined
  const toX = (seconds: number): number => {
    const at = Math.max(-MOST, Math.min(MOST, Math.log(seconds / timeS)))
    return WIDTH / 2 + (at / MOST) * (WIDTH / 2 - 3)
  }
  const [low, high] = timeRange.map(toX) as [number, number]
  const isWithin = actualS !== undefined && actualS >= timeRange[0] && actualS <= timeRange[1]
  const told =
    actualS === undefined
      ? 'not timed'
      : `${((100 * actualS) / timeS - 100).toFixed(1)} % off, ${isWithin ? 'within' : 'outside'} the range of ${((100 * timeRange[1]) / timeS - 100).toFixed(0)} %`
  return (
    <svg width={WIDTH} height={HEIGHT} role="img" aria-label={told} className="shrink-0">
      <title>{told}</title>
      <line x1={0} x2={WIDTH} y1={HEIGHT / 2} y2={HEIGHT / 2} className="stroke-line" />
      <rect x={low} width={Math.max(1, high - low)} y={HEIGHT / 2 - 4} height={8} className="fill-strong/40" />
      <line x1={WIDTH / 2} x2={WIDTH / 2} y1={4} y2={HEIGHT - 4} className="stroke-muted" />
      {actualS !== undefined && (
        <line
          x1={toX(actualS)}
          x2={toX(actualS)}
          y1={2}
          y2={HEIGHT - 2}
          strokeWidth={2.5}
          strokeDasharray={isWithin ? undefined : '3 2'}
          className={isWithin ? 'stroke-lantern' : 'stroke-worse'}
        />
      )}
    </svg>
  )
}
