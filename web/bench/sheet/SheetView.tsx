import type { Candidate } from '@sable/contract/lineup'
import { figureRows, limitedBy } from '@sable/core/figures/figures'
import { judge } from '@sable/core/figures/limits'
import type { Prediction } from '@sable/core/pipeline/predict'
import clsx from 'clsx'
import { useBench } from '../../desk/bench'
import { useForecasts } from '../../predictions/predictionStore'
import { inMoney } from '../../ui/currency'
import { dayOf } from '../../ui/dates'
import { PaperPage, PaperPlace } from '../../ui/PaperPage'
import { type Cell, cellsOf, type LedgerRow, ledgerRows } from '../ledger/rows'
import { purposeWords, shownLimit } from '../part/limits'
import { cautionsFor } from './cautions'

/** As many columns as an upright page holds. */
const MOST_COLUMNS = 4

const letterOf = (index: number): string => String.fromCharCode(65 + index)

/** A candidate of the sheet, by the letter that stands for it above narrow columns. */
interface Column {
  readonly candidate: Candidate
  readonly letter: string
  readonly prediction: Prediction | undefined
  readonly cells: ReturnType<typeof cellsOf>
}

/** A lineup on paper, to be printed and hung beside the printer: figures, risks, cautions, and settings with their other names. */
export function SheetView() {
  const { content, shelf } = useBench()
  const forecasts = useForecasts()
  const columns = content.candidates.map(
    (candidate, i): Column => ({
      candidate,
      letter: letterOf(i),
      prediction: forecasts[candidate.id]?.prediction,
      cells: cellsOf(candidate, content.candidates[0], shelf),
    }),
  )
  const pages = Array.from({ length: Math.ceil(columns.length / MOST_COLUMNS) }, (_, page) =>
    columns.slice(page * MOST_COLUMNS, (page + 1) * MOST_COLUMNS),
  )
  const missing = content.candidates.filter(({ id }) => (forecasts[id]?.state ?? 'running') === 'running').length
  return (
    <PaperPlace
      label="Sheet"
      isReady={missing === 0}
      note={
        <p role="status" className="text-[12.5px] text-muted">
          {missing > 0
            ? `Figures of ${missing} of ${columns.length} candidates are still computed.`
            : pages.length === 1
              ? 'One upright A4 page.'
              : `${pages.length} upright A4 pages, at most ${MOST_COLUMNS} candidates on each.`}
        </p>
      }
    >
      {pages.map((page, i) => (
        <Page key={page[0]?.candidate.id} columns={page} number={pages.length > 1 ? `page ${i + 1} of ${pages.length}` : undefined} />
      ))}
    </PaperPlace>
  )
}

function Page({ columns, number }: { columns: readonly Column[]; number: string | undefined }) {
  const { content, part, shelf } = useBench()
  const first = columns.find(({ prediction }) => prediction)?.prediction
  const cautions = cautionsFor(columns.flatMap(({ prediction }) => prediction ?? []))
  return (
    <PaperPage
      title={content.name}
      under={
        <>
          {part.name}
          {first && `, ${first.mesh.sizeMm.map((mm) => mm.toFixed(1)).join(' × ')} mm`}. {purposeWords(content.purpose)}.
        </>
      }
      aside={
        <>
          Sable Lantern{number !== undefined && `, ${number}`}
          <br />
          {dayOf(new Date())}
        </>
      }
      className="p-[10mm] text-[9.5px] leading-[1.35]"
    >
      <Figures columns={columns} />
      <h2 className="mt-2 border-b border-[#1d1916] pb-0.5 text-[9.5px] font-semibold">Risks</h2>
      {columns.map(({ candidate, letter, prediction }) => (
        <p key={candidate.id}>
          <b>
            {letter} {candidate.name}
          </b>
          : {prediction ? prediction.checks.map(({ evidence }) => evidence).join(' ') || 'none found.' : '…'}
        </p>
      ))}
      <h2 className="mt-2 border-b border-[#1d1916] pb-0.5 text-[9.5px] font-semibold">Settings, and what else they are called</h2>
      <div className="mt-1 columns-2 gap-[6mm]">
        {ledgerRows(shelf).map(({ name, rows }) => (
          <Settings key={name} name={name} rows={rows} columns={columns} />
        ))}
      </div>
      <footer className="mt-1 border-t border-[#1d1916] pt-1 text-[8px]">
        <p>Values that differ from the first column are bold. Figures are predictions; semi-empirical ones say so in the program.</p>
        {cautions.map((caution) => (
          <p key={caution}>{caution}</p>
        ))}
      </footer>
    </PaperPage>
  )
}

function Figures({ columns }: { columns: readonly Column[] }) {
  const { content } = useBench()
  return (
    <table className="mt-2 w-full table-fixed">
      <thead>
        <tr className="align-bottom">
          <th className="w-[22%] text-left font-normal text-[#6a5e52]">Predicted</th>
          {columns.map(({ candidate, letter }) => (
            <th key={candidate.id} className="pl-2 text-right font-semibold">
              {letter} {candidate.name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {figureRows.map((row) => (
          <tr key={row.id} className="border-t border-[#e0d6c6]">
            <th className="text-left font-normal">{row.label}</th>
            {columns.map(({ candidate, prediction }) => {
              const told = prediction && row.of(prediction, content.purpose)
              return (
                <td key={candidate.id} className="figure text-right text-[9px]!">
                  {told ? `${told.text} ${inMoney(told.unit)}` : '…'}
                </td>
              )
            })}
          </tr>
        ))}
        <tr className="border-t border-[#e0d6c6] align-top">
          <th className="text-left font-normal">Limits</th>
          {columns.map(({ candidate, prediction }) => (
            <td key={candidate.id} className="pl-2 text-right">
              {prediction && limitText(judge(prediction, content.purpose))}
            </td>
          ))}
        </tr>
      </tbody>
    </table>
  )
}

function Settings({ name, rows, columns }: { name: string; rows: readonly LedgerRow[]; columns: readonly Column[] }) {
  const shown = rows.filter(({ id }) => columns.some(({ cells }) => cells?.[id]?.applies))
  if (shown.length === 0) return null
  return (
    <table className="mb-1 w-full break-inside-avoid-column">
      <thead>
        <tr>
          <th className="w-[46%] text-left font-semibold">{name}</th>
          {columns.map(({ candidate, letter }) => (
            <th key={candidate.id} className="text-right font-normal text-[#6a5e52]">
              <abbr title={candidate.name} className="no-underline">
                {letter}
              </abbr>
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
            {columns.map(({ candidate, cells }) => (
              <td key={candidate.id} className={clsx('pl-1 text-right', cells?.[row.id]?.differs && 'font-semibold')}>
                {cellText(cells?.[row.id])}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
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
