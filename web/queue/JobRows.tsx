import { platesOf } from '@sable/contract/plates'
import type { PrintLine } from '@sable/contract/prints'
import { stateOf } from '@sable/contract/queueNow'
import type { QueueContent, QueueJob } from '@sable/contract/queues'
import type { QueuePlan } from '@sable/core/queue/plan'
import type { Printer } from '@sable/core/shelf/printer'
import { formatDuration } from '@sable/core/units/format'
import clsx from 'clsx'
import { X } from 'lucide-react'
import { IconButton } from '../ui/Button'
import { Checkbox } from '../ui/Checkbox'
import { clockOf, momentOf } from '../ui/dates'
import { NumberField } from '../ui/NumberField'
import { Select } from '../ui/Select'

interface Props {
  readonly content: QueueContent
  readonly lines: ReadonlyMap<string, PrintLine>
  readonly plan: QueuePlan | undefined
  readonly now: Date
  /** Printers of the shelf. */
  readonly machines: readonly Printer[]
  readonly printerName: (key: string) => string
  readonly onChange: (job: QueueJob) => void
  readonly onRemove: (job: QueueJob) => void
}

const reelNames = [
  { id: 'own', name: 'its reel' },
  { id: 'alike', name: 'same colour' },
  { id: 'any', name: 'same material' },
] as const

/** Jobs as rows: how many, by when, where, and what the plan says of them. */
export function JobRows({ content, lines, plan, now, machines, printerName, onChange, onRemove }: Props) {
  const clock = (minute: number): string => clockOf(new Date(now.getTime() + 60_000 * minute))
  const at = (minute: number): string => momentOf(new Date(now.getTime() + 60_000 * minute).toISOString())
  return (
    <table className="w-full text-[12.5px]">
      <thead className="text-left text-[12px] text-muted">
        <tr>
          {['Job', 'Copies', 'By', 'Where', 'Off', 'Each takes', 'Ends', 'Late', ''].map((label) => (
            <th key={label} scope="col" className={clsx('border-b border-line py-1 pr-3 font-normal', label === 'Copies' && 'text-right')}>
              {label || <span className="sr-only">Remove</span>}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {content.jobs.map((job) => {
          const { done, running, failed, left } = stateOf(job, lines)
          const own = plan?.items.filter(({ of }) => of === job.id) ?? []
          const last = own.reduce<(typeof own)[number] | undefined>(
            (late, item) => (!late || item.endsAt > late.endsAt ? item : late),
            undefined,
          )
          const refused = plan?.refused.find((one) => one.job === job.id)
          const minutes = job.ways.map(({ foretold }) => (foretold.timeS + foretold.startS) / 60)
          const most = Math.max(
            ...job.ways.map(
              (way) =>
                platesOf(
                  way,
                  machines.find(({ key }) => key === way.printer),
                ).most,
            ),
          )
          const printers = [...new Set(job.ways.map(({ printer }) => printer))]
          return (
            <tr key={job.id} className="border-b border-line/60 align-top [&>td]:py-1.5">
              <td className="max-w-72 pr-3">
                <span className="block truncate">{job.name}</span>
                <span className="block text-[12px] text-muted">
                  {[...new Set(job.ways.map(({ name, profile }) => `${name}, ${profile}`))].join(' or ')}
                  {done > 0 && ` · ${done} done`}
                  {running.length > 0 && ` · ${running.length} running`}
                  {failed > 0 && ` · ${failed} failed`}
                  {job.notBefore !== undefined && Date.parse(job.notBefore) > now.getTime() && ` · not before ${momentOf(job.notBefore)}`}
                  {job.wishedBy !== undefined && ` · wished for by ${momentOf(job.wishedBy)}`}
                </span>
                {refused && <span className="block border-l-2 border-stop pl-2 text-[12px] text-stop">{refused.why}</span>}
              </td>
              <td className="pr-3">
                <NumberField
                  label=""
                  name={`Copies of ${job.name}`}
                  width="w-14"
                  value={job.copies}
                  onCommit={(copies) => {
                    if (copies === undefined || !Number.isInteger(copies) || copies < 1 || copies > 200) return false
                    onChange({ ...job, copies })
                    return true
                  }}
                />
                {job.copies > 1 && most > 1 && (
                  <Checkbox
                    className="mt-1 text-[12px]"
                    checked={job.plates}
                    onChange={(plates) => onChange({ ...job, plates })}
                    help={`Up to ${most} on one plate, one at a time: nobody is needed between them. If one fails, all that stand there count as failed.`}
                  >
                    share plates
                  </Checkbox>
                )}
              </td>
              <td className="pr-3">
                <input
                  type="datetime-local"
                  aria-label={`${job.name} is wanted by`}
                  value={job.deadline === undefined ? '' : localOf(job.deadline)}
                  onChange={({ target }) => {
                    const { deadline: _, ...rest } = job
                    onChange(target.value === '' ? rest : { ...rest, deadline: new Date(target.value).toISOString() })
                  }}
                  className="figure h-7 rounded border border-line bg-sunk px-1.5 text-[12px]"
                />
              </td>
              <td className="pr-3">
                {printers.length === 1 ? (
                  printerName(printers[0]!)
                ) : (
                  <Select
                    label=""
                    name={`Where ${job.name} is printed`}
                    value={job.heldTo ?? ''}
                    of={[{ id: '', name: `any of ${printers.length}` }, ...printers.map((id) => ({ id, name: printerName(id) }))]}
                    onChange={(id) => {
                      const { heldTo: _, ...rest } = job
                      onChange(id === '' ? rest : { ...rest, heldTo: id })
                    }}
                  />
                )}
              </td>
              <td className="pr-3">
                {job.ways.some(({ spool }) => spool !== undefined) && (
                  <Select
                    label=""
                    name={`Off which reel ${job.name} is printed`}
                    value={job.reel}
                    of={reelNames}
                    onChange={(reel) => onChange({ ...job, reel })}
                  />
                )}
              </td>
              <td className="figure pr-3 whitespace-nowrap">
                {formatDuration(60 * Math.min(...minutes))}
                {Math.max(...minutes) - Math.min(...minutes) > 1 && ` to ${formatDuration(60 * Math.max(...minutes))}`}
              </td>
              <td className="figure pr-3 whitespace-nowrap">
                {left === 0 ? 'done' : last ? at(last.endsAt) : ''}
                {last && <span className="block text-[12px] text-muted">{`${clock(last.low)} to ${clock(last.high)}`}</span>}
              </td>
              <td className="figure pr-3 whitespace-nowrap">
                {job.deadline !== undefined && last && (
                  <span className={plan?.late.includes(job.id) ? 'text-stop' : last.lateShare > 0.2 ? 'text-worse' : 'text-muted'}>
                    {plan?.late.includes(job.id)
                      ? `${formatDuration(60 * (last.endsAt - (Date.parse(job.deadline) - now.getTime()) / 60_000))} late`
                      : `${Math.round(100 * last.lateShare)} in 100`}
                  </span>
                )}
              </td>
              <td className="text-right">
                <IconButton label={`Take ${job.name} out`} onClick={() => onRemove(job)}>
                  <X className="size-3.5" />
                </IconButton>
              </td>
            </tr>
          )
        })}
      </tbody>
    </table>
  )
}

/** As a field for day and hour wants it, in the time of this place. */
function localOf(iso: string): string {
  const at = new Date(iso)
  return new Date(at.getTime() - 60_000 * at.getTimezoneOffset()).toISOString().slice(0, 16)
}
