import type { QueueContent } from '@sable/contract/queues'
import type { Shelf } from '@sable/contract/shelf'
import { Plus, X } from 'lucide-react'
import { Button, IconButton } from '../ui/Button'
import { Checkbox } from '../ui/Checkbox'
import { NumberField } from '../ui/NumberField'
import { Select } from '../ui/Select'
import { ClockField } from './ClockField'
import { machineOf } from './machineOf'

const days = ['Mo', 'Tu', 'We', 'Th', 'Fr', 'Sa', 'Su'] as const

/** Machines with what a person does between two prints, and hours in which somebody is there. */
export function SettingsPanel({
  content,
  shelf,
  onChange,
}: {
  content: QueueContent
  shelf: Shelf
  onChange: (more: Partial<QueueContent>, what: string) => void
}) {
  const { machines, hours, quiet } = content
  const nameOf = (key: string): string => shelf.printers.find((one) => one.key === key)?.name ?? key
  const others = shelf.printers.filter(({ key, archived }) => !archived && !machines.some(({ printer }) => printer === key))
  const minutes = (of: (typeof machines)[number], name: 'changeMinutes' | 'spoolMinutes' | 'nozzleMinutes', label: string) => (
    <NumberField
      label={label}
      name={`${label}, ${nameOf(of.printer)}`}
      unit="min"
      width="w-12"
      value={of[name]}
      onCommit={(value) => {
        if (value === undefined || !(value >= 0 && value <= 600)) return false
        onChange({ machines: machines.map((one) => (one === of ? { ...one, [name]: value } : one)) }, label)
        return true
      }}
    />
  )
  return (
    <div className="grid gap-5 text-[12.5px] lg:grid-cols-2">
      <section aria-label="Machines">
        <h3 className="mb-1 font-semibold">Machines</h3>
        <ul className="space-y-1">
          {machines.map((machine) => (
            <li key={machine.printer} className="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-line/60 py-1">
              <span className="flex w-full items-center gap-4">
                <span className="flex-1 truncate font-medium">{nameOf(machine.printer)}</span>
                <Checkbox
                  checked={machine.away}
                  onChange={(away) => onChange({ machines: machines.map((one) => (one === machine ? { ...one, away } : one)) }, 'away')}
                >
                  away
                </Checkbox>
                <IconButton
                  label={`Take ${nameOf(machine.printer)} out`}
                  onClick={() => onChange({ machines: machines.filter((one) => one !== machine) }, 'machine')}
                >
                  <X className="size-3.5" />
                </IconButton>
              </span>
              {minutes(machine, 'changeMinutes', 'clear and start')}
              {minutes(machine, 'spoolMinutes', 'other reel')}
              {minutes(machine, 'nozzleMinutes', 'other nozzle')}
            </li>
          ))}
        </ul>
        {others.length > 0 && (
          <Select
            label="Another machine"
            value=""
            hint="choose"
            of={others.map(({ key, name }) => ({ id: key, name }))}
            onChange={(printer) => onChange({ machines: [...machines, machineOf(printer)] }, 'machine')}
          />
        )}
      </section>
      <section aria-label="Hours">
        <h3 className="mb-1 font-semibold">Somebody is there</h3>
        {hours.length === 0 && <p className="mb-1 text-muted">Always, as long as no hours are told.</p>}
        <ul className="space-y-1">
          {hours.map((one, place) => {
            const change = (more: Partial<typeof one>): void =>
              onChange({ hours: hours.map((other, i) => (i === place ? { ...one, ...more } : other)) }, 'hours')
            return (
              // biome-ignore lint/suspicious/noArrayIndexKey: hours are told apart by their place alone.
              <li key={place} className="flex flex-wrap items-center gap-2 border-t border-line/60 py-1">
                {days.map((day, i) => (
                  <Checkbox
                    key={day}
                    checked={one.days.includes(i)}
                    onChange={(is) => {
                      const next = is ? [...one.days, i].sort() : one.days.filter((own) => own !== i)
                      if (next.length > 0) change({ days: next })
                    }}
                  >
                    {day}
                  </Checkbox>
                ))}
                {(['from', 'to'] as const).map((end) => (
                  <ClockField
                    key={end}
                    name={`${end}, hours ${place + 1}`}
                    value={one[end]}
                    onChange={(clock) => {
                      const next = { ...one, [end]: clock }
                      if (next.to > next.from) change(next)
                    }}
                  />
                ))}
                <IconButton
                  label={`Take hours ${place + 1} out`}
                  onClick={() => onChange({ hours: hours.filter((_, i) => i !== place) }, 'hours')}
                >
                  <X className="size-3.5" />
                </IconButton>
              </li>
            )
          })}
        </ul>
        <Button onClick={() => onChange({ hours: [...hours, { days: [0, 1, 2, 3, 4], from: '17:00', to: '22:00' }] }, 'hours')}>
          <Plus className="size-3.5" aria-hidden /> Hours
        </Button>
        <div className="mt-3 flex flex-wrap items-center gap-2">
          <Checkbox
            checked={quiet !== undefined}
            onChange={(is) => onChange({ quiet: is ? { from: '22:00', to: '07:00' } : undefined }, 'quiet hours')}
            help="No print runs in them: one that would not be done before begins after."
          >
            Quiet hours, each day
          </Checkbox>
          {quiet &&
            (['from', 'to'] as const).map((end) => (
              <ClockField
                key={end}
                name={`${end}, quiet hours`}
                value={quiet[end]}
                onChange={(clock) => {
                  const next = { ...quiet, [end]: clock }
                  if (next.to !== next.from) onChange({ quiet: next }, 'quiet hours')
                }}
              />
            ))}
        </div>
      </section>
    </div>
  )
}
