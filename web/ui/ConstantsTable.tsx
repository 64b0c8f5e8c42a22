import { type ConstantChange, rangeOfStanding } from '@sable/core/doubt/changes'
import { threeDigits } from '@sable/core/units/format'

/** Constants before something was read and after it, each with its 80 % range. */
export function ConstantsTable({ changes }: { changes: readonly ConstantChange[] }) {
  return (
    <table className="w-full text-[12px]" aria-label="Constants before and after">
      <thead>
        <tr className="border-b border-line text-[12px] text-muted">
          <th className="py-0.5 text-left font-normal">Constant</th>
          <th className="text-right font-normal">before</th>
          <th className="text-right font-normal">after</th>
        </tr>
      </thead>
      <tbody>
        {changes.map((change) => (
          <tr key={change.id} className="border-b border-line align-baseline">
            <th className="py-1 pr-2 text-left font-normal">
              {change.label}
              {change.unit !== '' && <span className="text-[12px] text-muted"> {change.unit}</span>}
            </th>
            {[change.before, change.after].map((standing, i) => {
              const [low, high] = rangeOfStanding(change.id, standing)
              return (
                <td
                  key={i === 0 ? 'before' : 'after'}
                  className={`figure pl-2 text-right whitespace-nowrap ${i === 0 ? 'text-muted' : 'text-lantern-ink'}`}
                >
                  {threeDigits(standing.value)}
                  <span className="block text-[12px] text-muted">
                    {threeDigits(low)}–{threeDigits(high)}
                  </span>
                </td>
              )
            })}
          </tr>
        ))}
      </tbody>
    </table>
  )
}
