import { type Shelf, tookOf } from '@sable/contract/shelf'
import { stretchesOf } from '@sable/core/log/book'
import type { Spool } from '@sable/core/shelf/spool'
import { Link } from 'react-router'
import { dayOf } from '../ui/dates'

/** Less than what a scale is off by is not worth a colour, g. */
const WORTH_G = 5
const LATEST = 8

/** A reel between its times on the scale: what is gone, what prints took of it, and what nobody can tell. */
export function SpoolBook({ spool, shelf }: { spool: Spool; shelf: Shelf }) {
  const prints = tookOf(shelf)
  const stretches = stretchesOf(spool, prints)
  const count = prints.filter(({ reels }) => reels.some((reel) => reel.spool === spool.key)).length
  if (count === 0) return null
  const grams = (value: number): string => `${value < -0.5 ? '−' : ''}${Math.abs(value).toFixed(0)}`
  return (
    <section aria-label="Book of the reel" className="text-[12.5px]">
      <h3 className="mb-1 font-semibold">
        Book{' '}
        <Link to={`/log?spool=${spool.key}`} className="font-normal text-muted underline decoration-line underline-offset-2">
          {count} {count === 1 ? 'print' : 'prints'}
        </Link>
      </h3>
      <table className="w-full max-w-[40rem] text-right">
        <thead className="text-[12px] text-muted">
          <tr className="border-b border-line">
            <th className="py-0.5 text-left font-normal">on the scale</th>
            <th className="font-normal">gone, g</th>
            <th className="font-normal">by prints, g</th>
            <th className="font-normal">unexplained, g</th>
          </tr>
        </thead>
        <tbody className="figure">
          {stretches.slice(0, LATEST).map(({ from, to, goneG, printedG, unexplainedG, prints: of }) => (
            <tr key={`${from} ${to}`} className="border-b border-line/60">
              <td className="py-0.5 text-left">
                {dayOf(from)} to {dayOf(to)}
              </td>
              <td>{grams(goneG)}</td>
              <td>
                {of === 0 ? '–' : grams(printedG)}
                {of > 1 && <span className="text-muted"> in {of}</span>}
              </td>
              <td className={Math.abs(unexplainedG) > WORTH_G ? 'text-worse' : 'text-muted'}>{grams(unexplainedG)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  )
}
