import type { ForetoldPrint } from '@sable/core/log/foretoldPrint'
import { inMoney } from '../ui/currency'

/** All that was foretold of a print, each figure with its 80 % range. */
export function Foretold({ figures }: Pick<ForetoldPrint, 'figures'>) {
  return (
    <table className="mt-3 w-full max-w-3xl text-[12.5px]" aria-label="Foretold">
      <thead>
        <tr className="border-b border-line text-[12px] text-muted">
          <th className="py-0.5 text-left font-normal">Foretold</th>
          <th className="text-right font-normal" />
          <th className="text-right font-normal">four times in five, ±</th>
        </tr>
      </thead>
      <tbody>
        {figures.map(({ id, label, text, unit, value, high }) => (
          <tr key={id} className="border-b border-line/60">
            <th className="py-0.5 text-left font-normal text-muted">{label}</th>
            <td className="figure text-right">
              {text} <span className="text-[12px] text-muted">{inMoney(unit)}</span>
            </td>
            <td className="figure text-right text-muted">{value > 0 ? `${Math.round(100 * (high / value - 1))} %` : '–'}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
