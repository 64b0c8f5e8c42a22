import { figureRows, limitedBy } from '@sable/core/figures/figures'
import { judge } from '@sable/core/figures/limits'
import { useBench } from '../../desk/bench'
import { useForecasts } from '../../predictions/predictionStore'
import { Button } from '../../ui/Button'
import { inMoney } from '../../ui/currency'
import { today } from '../../ui/today'
import { type Cell, cellsOf, ledgerRows } from '../ledger/rows'
import { purposeWords, shownLimit } from '../part/limits'
import { cautionsFor } from './cautions'

/** As many columns as an upright page holds. */
const MOST_COLUMNS = 5

/** A lineup on one page, to be printed and hung beside the printer: figures, risks, cautions, and settings with their other names. */
export function SheetView() {
  const { content, part, shelf } = useBench()
  const forecasts = useForecasts()
  const candidates = content.candidates.slice(0, MOST_COLUMNS)
  const predictions = candidates.map(({ id }) => forecasts[id]?.prediction)
  const cells = candidates.map((candidate) => cellsOf(candidate, candidates[0], shelf))
  const [first] = predictions
  const cautions = cautionsFor(predictions.filter((p) => p !== undefined))
  return (
    <section aria-label="Sheet" className="min-h-0 flex-1 overflow-auto bg-sunk py-5 print:bg-white print:p-0">
      <div className="mx-auto mb-3 flex w-[210mm] items-center gap-3 print:hidden">
        <Button tone="main" onClick={() => window.print()}>
          Print
        </Button>
        <p className="text-[12.5px] text-muted">
          One upright A4 page.
          {content.candidates.length > MOST_COLUMNS && ` The first ${MOST_COLUMNS} of ${content.candidates.length} candidates are on it.`}
        </p>
      </div>
      <article
        data-theme="light"
        className="sheet mx-auto w-[210mm] bg-white p-[10mm] text-[9.5px] leading-[1.35] text-[#1d1916] print:w-auto print:p-0"
      >
        <header className="flex items-end justify-between gap-6 border-b border-[#1d1916] pb-1">
          <div>
            <h1 className="text-[15px] font-semibold">{content.name}</h1>
            <p>
              {part.name}
              {first && `, ${first.mesh.sizeMm.map((mm) => mm.toFixed(1)).join(' × ')} mm`}. {purposeWords(content.purpose)}.
            </p>
          </div>
          <p className="shrink-0 text-right">
            Sable Lantern
            <br />
            {today()}
          </p>
        </header>
        <table className="mt-2 w-full table-fixed">
          <thead>
            <tr>
              <th className="w-[22%] text-left font-normal text-[#6a5e52]">Predicted</th>
              {candidates.map(({ id, name }) => (
                <th key={id} className="text-right font-semibold">
                  {name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {figureRows.map((row) => (
              <tr key={row.id} className="border-t border-[#e0d6c6]">
                <th className="text-left font-normal">{row.label}</th>
                {candidates.map(({ id }, i) => {
                  const told = predictions[i] && row.of(predictions[i], content.purpose)
                  return (
                    <td key={id} className="figure text-right text-[9px]!">
                      {told ? `${told.text} ${inMoney(told.unit)}` : '…'}
                    </td>
                  )
                })}
              </tr>
            ))}
            <tr className="border-t border-[#e0d6c6]">
              <th className="text-left font-normal">Limits</th>
              {candidates.map(({ id }, i) => (
                <td key={id} className="text-right">
                  {predictions[i] && limitText(judge(predictions[i], content.purpose))}
                </td>
              ))}
            </tr>
            <tr className="border-t border-[#e0d6c6] align-top">
              <th className="text-left font-normal">Risks</th>
              {candidates.map(({ id }, i) => (
                <td key={id} className="pl-2 text-right">
                  {predictions[i]?.checks.map((check) => (
                    <p key={check.id}>{check.evidence}</p>
                  ))}
                  {predictions[i]?.checks.length === 0 && 'none found'}
                </td>
              ))}
            </tr>
          </tbody>
        </table>
        <h2 className="mt-2 border-b border-[#1d1916] pb-0.5 text-[9.5px] font-semibold">Settings, and what else they are called</h2>
        <div className="mt-1 columns-2 gap-[6mm]">
          {ledgerRows(shelf).map(({ name, rows }) => {
            const shown = rows.filter(({ id }) => cells.some((column) => column?.[id]?.applies))
            if (shown.length === 0) return null
            return (
              <table key={name} className="mb-1 w-full break-inside-avoid-column">
                <thead>
                  <tr>
                    <th className="w-[46%] text-left font-semibold">{name}</th>
                    {candidates.map((candidate) => (
                      <th key={candidate.id} className="max-w-[12mm] truncate text-right font-normal text-[#6a5e52]">
                        {candidate.name}
                      </th>
                    ))}
                  </tr>
                </thead>
                <tbody>
                  {shown.map((row) => (
                    <tr key={row.id} className="border-t border-[#e0d6c6]/70 align-top text-[8.5px] leading-[1.25]">
                      <th className="text-left font-normal">
                        {row.label}
                        {row.kind === 'setting' && row.setting.kind === 'number' && row.setting.unit !== '' && `, ${row.setting.unit}`}
                        {row.kind === 'setting' && row.setting.synonyms.length > 0 && (
                          <span className="text-[7.5px] text-[#6a5e52]"> ({row.setting.synonyms.slice(0, 2).join(', ')})</span>
                        )}
                      </th>
                      {cells.map((column, i) => (
                        <td key={candidates[i]!.id} className={column?.[row.id]?.differs ? 'text-right font-semibold' : 'text-right'}>
                          {cellText(column?.[row.id])}
                        </td>
                      ))}
                    </tr>
                  ))}
                </tbody>
              </table>
            )
          })}
        </div>
        <footer className="mt-1 border-t border-[#1d1916] pt-1 text-[8px]">
          <p>Values that differ from the first column are bold. Figures are predictions; semi-empirical ones say so in the program.</p>
          {cautions.map((caution) => (
            <p key={caution}>{caution}</p>
          ))}
        </footer>
      </article>
    </section>
  )
}

const cellText = (cell: Cell | undefined): string => (cell?.applies ? cell.text : '')

const limitText = (judged: ReturnType<typeof judge>): string => {
  if (judged.length === 0) return 'none set'
  const missed = judged.filter(({ met }) => !met)
  return missed.length === 0
    ? 'all met'
    : missed
        .map(({ limit, has, known }) =>
          known ? `misses ${limitedBy(limit).noun}: ${shownLimit(limit, has)}` : `${limitedBy(limit).noun} not known`,
        )
        .join(', ')
}
