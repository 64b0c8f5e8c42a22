import { formatDuration } from '@sable/core/units/format'
import { Copy, X } from 'lucide-react'
import { Link } from 'react-router'
import type { ToldFigures } from '../predictions/worker/plating'
import { IconButton } from '../ui/Button'
import { useCurrency } from '../ui/currency'
import { NumberField } from '../ui/NumberField'
import type { Item } from './usePlateColumns'

interface Props {
  readonly items: readonly Item[]
  readonly figures: ToldFigures | undefined
  readonly isOld: boolean
  readonly failed: ReadonlyMap<string, string>
  readonly chosen: string | undefined
  readonly onChoose: (id: string) => void
  readonly onSet: (id: string, part: { readonly x?: number; readonly y?: number; readonly turn?: number }) => void
  readonly onCopy: (id: string) => void
  readonly onRemove: (id: string) => void
}

/** The parts of a plate: where each stands, what it takes by itself, and what all share. */
export function PlateTable({ items, figures, isOld, failed, chosen, onChoose, onSet, onCopy, onRemove }: Props) {
  const currency = useCurrency((state) => state.code)
  const own = items.find(({ id }) => id === chosen)
  return (
    <div className="text-[12.5px]">
      <table className="w-full">
        <thead>
          <tr className="text-left text-[12px] text-muted">
            <th className="pb-1 font-normal">Part</th>
            <th className="pb-1 text-right font-normal">Time</th>
            <th className="pb-1 text-right font-normal">Filament</th>
            <th>
              <span className="sr-only">What can be done with it</span>
            </th>
          </tr>
        </thead>
        <tbody className={isOld ? 'opacity-45' : ''}>
          {items.map((item, i) => {
            const told = figures?.parts.length === items.length ? figures.parts[i] : undefined
            return (
              <tr key={item.id} className={`border-t border-line/60 ${item.id === chosen ? 'bg-glow' : ''}`}>
                <td className="max-w-0 w-full py-1 pr-2">
                  <button
                    type="button"
                    aria-pressed={item.id === chosen}
                    onClick={() => onChoose(item.id)}
                    className="block min-h-6 w-full truncate text-left"
                  >
                    {item.column.name}
                  </button>
                  <Link
                    to={`/bench/${item.lineup}/ledger`}
                    className="block min-h-6 truncate text-[12px] text-muted underline decoration-line underline-offset-2"
                  >
                    {item.candidateOf.name}, {item.lineupName}
                  </Link>
                  {failed.has(item.key) && <span className="text-stop">{failed.get(item.key)}</span>}
                </td>
                <td className="figure py-1 text-right align-top leading-6 whitespace-nowrap">{told ? formatDuration(told.timeS) : ''}</td>
                <td className="figure py-1 pl-3 text-right align-top leading-6 whitespace-nowrap">
                  {told ? `${told.massG.toFixed(1)} g` : ''}
                </td>
                <td className="py-1 pl-1 align-top whitespace-nowrap">
                  <IconButton label={`Copy ${item.column.name}`} onClick={() => onCopy(item.id)}>
                    <Copy className="size-3.5" />
                  </IconButton>
                  <IconButton label={`Take ${item.column.name} off`} onClick={() => onRemove(item.id)}>
                    <X className="size-3.5" />
                  </IconButton>
                </td>
              </tr>
            )
          })}
        </tbody>
        {figures && items.length > 0 && (
          <tfoot className={isOld ? 'opacity-45' : ''}>
            <Sum label="Ways between parts" time={figures.sharedS} />
            {figures.startUpS !== undefined && <Sum label="Heating, homing, purging" time={figures.startUpS} />}
            <tr className="border-t border-line font-semibold">
              <td className="py-1.5">All of it</td>
              <td className="figure py-1.5 text-right whitespace-nowrap">{formatDuration(figures.timeS + (figures.startUpS ?? 0))}</td>
              <td className="figure py-1.5 pl-3 text-right whitespace-nowrap">{figures.massG.toFixed(1)} g</td>
              <td />
            </tr>
            <tr className="text-muted">
              <td className="pb-1">Cost</td>
              <td />
              <td className="figure pb-1 pl-3 text-right whitespace-nowrap">
                {figures.cost.toFixed(2)} {currency}
              </td>
              <td />
            </tr>
          </tfoot>
        )}
      </table>
      {own && (
        <fieldset className="mt-3 border-t border-line pt-3">
          <legend className="sr-only">Where {own.column.name} stands</legend>
          <p className="mb-1.5 font-medium">{own.column.name} stands at</p>
          <div key={own.id} className="flex gap-3">
            {places.map(({ of, label, unit, most }) => (
              <NumberField
                key={of}
                layout="above"
                width="w-16"
                label={label}
                unit={unit}
                value={own[of]}
                onCommit={(value) => {
                  if (value === undefined || Math.abs(value) > most) return false
                  onSet(own.id, { [of]: value })
                  return true
                }}
              />
            ))}
          </div>
          <p className="mt-1.5 text-[12px] text-muted">From the middle of the bed; turned counter-clockwise, its paths with it.</p>
        </fieldset>
      )}
    </div>
  )
}

const places = [
  { of: 'x', label: 'x', unit: 'mm', most: 2000 },
  { of: 'y', label: 'y', unit: 'mm', most: 2000 },
  { of: 'turn', label: 'turned', unit: '°', most: 360 },
] as const

const Sum = ({ label, time }: { label: string; time: number }) => (
  <tr className="border-t border-line/60 text-muted">
    <td className="py-1">{label}</td>
    <td className="figure py-1 text-right whitespace-nowrap">{formatDuration(time)}</td>
    <td />
    <td />
  </tr>
)
