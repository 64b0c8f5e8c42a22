import type { Shelf } from '@sable/contract/shelf'
import type { Purpose } from '@sable/core/physics/strength/purpose'
import { starterMaterials, starterNozzles, starterPrinters } from '@sable/core/shelf/starter'
import { useQueryClient } from '@tanstack/react-query'
import { type ReactNode, useState } from 'react'
import { asRefusal } from '../../api/asRefusal'
import { ReadLimitsDialog } from '../../shelf/ReadLimitsDialog'
import { shelfActions } from '../../shelf/shelfStore'
import { Button } from '../../ui/Button'
import { Choices } from '../../ui/Choices'
import { inMoney } from '../../ui/currency'
import type { Refusal } from '../../ui/Notice'
import { NumberField } from '../../ui/NumberField'
import { Select } from '../../ui/Select'
import type { Answers } from './answers'

const kinds = [
  { id: 'show', name: 'to look at' },
  { id: 'work', name: 'to work' },
  { id: 'load', name: 'to carry a load' },
] as const

/** Limits that are asked for first; the others stand with the part's purpose. */
const limits = [
  ['maxTimeS', 'Time at most', 'min', 60],
  ['maxCost', 'Cost at most', '¤', 1],
  ['maxRaUm', 'Surface Ra at most', 'µm', 1],
  ['minLoadN', 'Bears at least', 'N', 1],
] as const

/** Four short questions; each has an answer already. */
export function Questions({
  answers: { printer, nozzle, material, spool, purpose },
  shelf,
  onChange,
  onRefusal,
}: {
  answers: Answers
  shelf: Shelf
  onChange: (more: Partial<Answers>) => void
  onRefusal: (refusal: Refusal) => void
}) {
  const [reading, setReading] = useState(false)
  const queries = useQueryClient()
  const attempt = async (work: () => Promise<void>): Promise<void> => {
    try {
      await work()
    } catch (error) {
      onRefusal(asRefusal(error))
    }
  }
  /** A machine of one's own like another one, with the limits that it told. */
  const own = shelf.printers.find(({ key }) => key === printer)
  const setPurpose = (more: Partial<Purpose>): void => onChange({ purpose: { ...purpose, ...more } })
  const here = <R extends { archived: boolean }>(records: readonly R[]): readonly R[] => records.filter(({ archived }) => !archived)
  const spools = here(shelf.spools).filter(({ empty }) => !empty)
  const loaded = [
    ...spools.map(({ key, name }) => ({ id: `spool ${key}`, name, group: 'reels on the shelf' })),
    ...here(shelf.materials).map(({ key, name }) => ({ id: `material ${key}`, name, group: 'any reel of' })),
  ]
  return (
    <ol className="space-y-5 text-[12.5px]">
      <Asked title="Which machine?">
        {here(shelf.printers).length === 0 ? (
          <Select
            label="One like"
            value=""
            hint="choose"
            of={starterPrinters.map(({ key, name }) => ({ id: key, name }))}
            onChange={(key) =>
              void attempt(async () => {
                const { key: _, ...record } = starterPrinters.find((one) => one.key === key)!
                onChange({ printer: await shelfActions(queries).add('printers', record) })
              })
            }
          />
        ) : (
          <Select
            label="Printer"
            value={printer}
            of={here(shelf.printers).map(({ key, name, starter }) => ({ id: key, name, group: starter ? 'one like' : 'yours' }))}
            onChange={(key) => onChange({ printer: key })}
          />
        )}
        {here(shelf.nozzles).length === 0 ? (
          <Select
            label="Nozzle"
            value=""
            hint="choose"
            of={starterNozzles.map(({ key, name }) => ({ id: key, name }))}
            onChange={(key) =>
              void attempt(async () => {
                const { key: _, ...record } = starterNozzles.find((one) => one.key === key)!
                onChange({ nozzle: await shelfActions(queries).add('nozzles', record) })
              })
            }
          />
        ) : (
          <Select
            label="Nozzle"
            value={nozzle}
            of={here(shelf.nozzles).map(({ key, name }) => ({ id: key, name }))}
            onChange={(key) => onChange({ nozzle: key })}
          />
        )}
        {own && (
          <Button className="h-6" onClick={() => setReading(true)}>
            Paste what yours tells about itself …
          </Button>
        )}
      </Asked>
      <Asked title="What is loaded?">
        {loaded.length === 0 ? (
          <Select
            label="Material"
            value=""
            hint="choose"
            of={starterMaterials.map(({ key, name }) => ({ id: key, name }))}
            onChange={(key) =>
              void attempt(async () => {
                const { key: _, ...record } = starterMaterials.find((one) => one.key === key)!
                onChange({ material: await shelfActions(queries).add('materials', record), spool: undefined })
              })
            }
          />
        ) : (
          <Select
            label="Filament"
            value={spool === undefined ? `material ${material}` : `spool ${spool}`}
            of={loaded}
            onChange={(id) => {
              const [kind, key] = [id.slice(0, id.indexOf(' ')), id.slice(id.indexOf(' ') + 1)]
              if (kind === 'material') onChange({ material: key, spool: undefined })
              else onChange({ spool: key, material: shelf.spools.find((one) => one.key === key)!.material })
            }}
          />
        )}
      </Asked>
      <Asked title="What is it for?">
        <Choices label="" name="Purpose" of={kinds} value={purpose.kind} onChange={(kind) => kind && setPurpose({ kind })} />
      </Asked>
      <Asked title="What must it meet?">
        <div className="w-full space-y-1.5">
          {limits
            .filter(([limit]) => purpose.kind !== 'show' || limit !== 'minLoadN')
            .map(([limit, label, unit, per]) => (
              <NumberField
                key={limit}
                label={label}
                unit={inMoney(unit)}
                per={per}
                value={purpose.limits[limit]}
                hint="any"
                problem="more than nothing"
                onCommit={(value) => {
                  if (value !== undefined && !(value > 0)) return false
                  const { [limit]: _, ...rest } = purpose.limits
                  setPurpose({ limits: value === undefined ? rest : { ...rest, [limit]: value } })
                  return true
                }}
              />
            ))}
        </div>
      </Asked>
      {reading && own && (
        <ReadLimitsDialog
          printer={own}
          onTake={({ key: _, ...record }) =>
            void attempt(async () => {
              const { starter: __, archived: ___, revision: ____, ...said } = { starter: false, archived: false, revision: 1, ...record }
              const name = own.starter ? `Mine, like ${own.name}` : own.name
              if (own.starter) onChange({ printer: await shelfActions(queries).add('printers', { ...said, name }) })
              else await shelfActions(queries).write('printers', own, { ...said, key: own.key } as never)
            })
          }
          onClose={() => setReading(false)}
        />
      )}
    </ol>
  )
}

const Asked = ({ title, children }: { title: string; children: ReactNode }) => (
  <li>
    <h2 className="mb-1.5 font-semibold text-lantern-ink">{title}</h2>
    <div className="flex flex-wrap items-center gap-x-4 gap-y-2">{children}</div>
  </li>
)
