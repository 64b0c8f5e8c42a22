import type { Candidate } from '@sable/contract/lineup'
import { purposeChecks } from '@sable/core/checks/safetyChecks'
import { compareRow, type Standing } from '@sable/core/figures/compareRow'
import { figureRows, isFigureId } from '@sable/core/figures/figures'
import { solvedChecks } from '@sable/core/figures/solvedChecks'
import type { FigureId, FigureRow, Told } from '@sable/core/figures/table/figure'
import type { Purpose } from '@sable/core/physics/strength/purpose'
import clsx from 'clsx'
import { ChevronRight } from 'lucide-react'
import { useState } from 'react'
import { useBench } from '../../desk/bench'
import { type Forecast, useForecasts } from '../../predictions/predictionStore'
import { inMoney } from '../../ui/currency'
import { bySeverity, Risks } from './Risks'

/** The predicted figures, each with a small bar against the first column. */
export function FigureRows({
  candidates,
  purpose,
  onWhy,
}: {
  candidates: readonly Candidate[]
  purpose: Purpose
  onWhy: (figure: FigureId, candidateId: string) => void
}) {
  const forecasts = useForecasts()
  const columns = candidates.map(({ id }) => forecasts[id])
  const [open, setOpen] = useState<ReadonlySet<string>>(new Set())
  const toggle = (id: string): void =>
    setOpen((before) => (before.has(id) ? new Set([...before].filter((other) => other !== id)) : new Set([...before, id])))
  return (
    <tbody className="[&_td]:h-[24px]">
      {figureRows.flatMap((row) => [
        <OneRow
          key={row.id}
          row={row}
          candidates={candidates}
          columns={columns}
          purpose={purpose}
          open={open.has(row.id)}
          onToggle={() => toggle(row.id)}
          onWhy={onWhy}
        />,
        ...(open.has(row.id) ? (row.parts ?? []) : []).map((part) => (
          <OneRow key={part.id} row={part} candidates={candidates} columns={columns} purpose={purpose} onWhy={onWhy} nested />
        )),
      ])}
      <RiskRow candidates={candidates} columns={columns} purpose={purpose} />
    </tbody>
  )
}

interface RowProps {
  readonly row: FigureRow
  readonly candidates: readonly Candidate[]
  readonly columns: readonly (Forecast | undefined)[]
  readonly purpose: Purpose
  readonly open?: boolean
  readonly onToggle?: () => void
  readonly onWhy?: (figure: FigureId, candidateId: string) => void
  readonly nested?: boolean
}

function OneRow({ row, candidates, columns, purpose, open = false, onToggle, onWhy, nested = false }: RowProps) {
  const figures = columns.map((column) => (column?.prediction ? row.of(column.prediction, purpose) : undefined))
  const standings = compareRow(
    figures.map((figure) => (figure?.base === figures[0]?.base ? figure?.value : undefined)),
    row,
  )
  return (
    <tr data-row={row.id}>
      <th scope="row" data-hint={row.help} className="sticky left-0 z-10 bg-ground p-0 text-left font-medium">
        {row.parts ? (
          <button
            type="button"
            aria-expanded={open}
            onClick={onToggle}
            className="flex h-[24px] w-full items-center gap-1 pr-2 pl-1 hover:text-lantern-ink"
          >
            <ChevronRight className={clsx('size-3.5 text-muted transition-transform', open && 'rotate-90')} aria-hidden />
            <span className="truncate">{row.label}</span>
          </button>
        ) : (
          <span className={clsx('block truncate pr-2', nested ? 'pl-8 font-normal text-muted' : 'pl-[22px]')}>{row.label}</span>
        )}
      </th>
      {figures.map((figure, i) => {
        const column = columns[i]
        const standing = standings[i] as Standing
        return (
          <td key={candidates[i]?.id} className="relative border-l border-line px-2 align-middle">
            {figure && column ? (
              <Figure
                figure={figure}
                standing={standing}
                old={column.state !== 'done'}
                nested={nested}
                {...(onWhy && isFigureId(row.id)
                  ? {
                      why: {
                        label: `Why ${row.label} of ${candidates[i]?.name}`,
                        open: () => onWhy(row.id as FigureId, candidates[i]!.id),
                      },
                    }
                  : {})}
              />
            ) : (
              <span className="block text-right text-muted">{column?.state === 'refused' ? '—' : <Waiting />}</span>
            )}
          </td>
        )
      })}
    </tr>
  )
}

function Figure({
  figure,
  standing,
  old,
  nested,
  why,
}: {
  figure: Told
  standing: Standing
  old: boolean
  nested: boolean
  why?: { readonly label: string; readonly open: () => void }
}) {
  const numberClass = clsx(
    'figure ml-auto shrink-0 whitespace-nowrap',
    nested ? 'text-[12px]' : 'text-[13.5px] font-semibold',
    figure.basis === 'assumed' && 'text-ink/70',
    figure.basis === 'measured' && 'text-lantern-ink',
  )
  const basis = figure.basis === 'assumed' ? 'Rests on an assumed number' : figure.basis === 'measured' ? 'Measured' : 'Calculated'
  return (
    <div data-hint={basis} className={clsx('flex items-baseline gap-1.5 transition-opacity', old && 'opacity-40')}>
      <span
        className={clsx(
          'figure text-[12px] whitespace-nowrap',
          standing.sense === 'better' && 'text-better',
          standing.sense === 'worse' && 'text-worse',
        )}
      >
        {standing.change}
      </span>
      {figure.note !== undefined && <span className="truncate text-[12px] text-muted">{figure.note}</span>}
      {why ? (
        <button
          type="button"
          data-figure
          aria-label={`${figure.text} ${inMoney(figure.unit)}. ${why.label}`}
          onClick={why.open}
          className={`${numberClass} -my-[2px] min-w-6 rounded py-[2px] text-right leading-[20px] decoration-dotted underline-offset-2 hover:underline`}
        >
          {figure.text}
        </button>
      ) : (
        <span data-figure className={numberClass}>
          {figure.text}
        </span>
      )}
      <span className="w-6 shrink-0 text-[12px] text-muted">{inMoney(figure.unit)}</span>
      <span className="sr-only">{basis}</span>
      <span
        aria-hidden
        className={clsx(
          'absolute bottom-0 left-0 h-[2px]',
          standing.sense === 'better' ? 'bg-better/70' : standing.sense === 'worse' ? 'bg-worse/70' : 'bg-strong',
        )}
        style={{ width: `${standing.bar * 100}%` }}
      />
    </div>
  )
}

const Waiting = () => <span className="inline-block h-2 w-14 animate-pulse rounded bg-line" />

function RiskRow({
  candidates,
  columns,
  purpose,
}: {
  candidates: readonly Candidate[]
  columns: readonly (Forecast | undefined)[]
  purpose: Purpose
}) {
  const { shelf } = useBench()
  const always = candidates.map(({ printer }) => purposeChecks(purpose, shelf.printers.find(({ key }) => key === printer)?.schools))

  return (
    <tr data-row="risks">
      <th scope="row" className="sticky left-0 z-10 border-b border-line bg-ground py-0 pr-2 pl-[22px] text-left font-medium">
        Risks
      </th>
      {columns.map((column, i) => (
        <td key={candidates[i]?.id} className="border-b border-l border-line px-2 text-right">
          {column?.prediction ? (
            <Risks
              checks={bySeverity([...column.prediction.checks, ...solvedChecks(column.prediction, purpose), ...always[i]!])}
              candidate={candidates[i]!}
            />
          ) : (
            <span className="text-muted">{column?.state === 'refused' ? '—' : <Waiting />}</span>
          )}
        </td>
      ))}
    </tr>
  )
}
