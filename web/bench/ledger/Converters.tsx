import { medians } from '@sable/core/constants/constants'
import { tipOffset } from '@sable/core/physics/melt/flowLimit'
import type { Setup } from '@sable/core/setup/resolve'
import { type NozzleBody, nozzleBodies } from '@sable/core/shelf/nozzle'
import { filamentArea } from '@sable/core/units/flow'
import { inWords } from '@sable/core/units/format'
import { typedNumber } from '@sable/core/units/typedNumber'
import { ArrowLeftRight } from 'lucide-react'
import { useState } from 'react'
import { Button } from '../../ui/Button'
import { inMoney } from '../../ui/currency'
import { Popover } from '../../ui/Popover'
import { Select } from '../../ui/Select'
import type { Cell } from './rows'

type Cells = Readonly<Record<string, Cell>> | undefined

/** Sums that come up at the printer, with the line and filament of the column that is selected. */
export function Converters({ setup, cells }: { setup: Setup | undefined; cells: Cells }) {
  return (
    <Popover
      label="Converters"
      width="w-[27rem]"
      trigger={
        <Button>
          <ArrowLeftRight className="size-3.5" aria-hidden /> Convert
        </Button>
      }
    >
      <Sums setup={setup} cells={cells} />
    </Popover>
  )
}

function Sums({ setup, cells }: { setup: Setup | undefined; cells: Cells }) {
  const number = (name: string, fallback: number): number => {
    const value = Number(cells?.[name]?.value)
    return Number.isFinite(value) && value > 0 ? value : fallback
  }
  const [height, width] = [number('layerHeight', 0.2), number('lineWidth', 0.4)]
  const material = setup?.material
  const [density, price] = [material?.density ?? 1.24, material?.pricePerKg ?? 0]
  const diameter = setup?.printer.filamentDiameter ?? 1.75
  const metresPerGram = 1000 / density / filamentArea(diameter) / 1000
  return (
    <div className="space-y-2.5">
      <Linked
        start={number('outerWallSpeed', 50)}
        sides={[
          { label: 'Speed', unit: 'mm/s', per: 1 },
          { label: 'the same', unit: 'mm/min', per: 60 },
        ]}
      />
      <Linked
        start={number('flowLimit', 11)}
        told={`for a line of ${height} × ${width} mm`}
        sides={[
          { label: 'Flow', unit: 'mm³/s', per: 1 },
          { label: 'Speed', unit: 'mm/s', per: 1 / (height * width) },
        ]}
      />
      <Linked
        start={number('wallCount', 3)}
        told={`of ${width} mm each`}
        sides={[
          { label: 'Walls', unit: '', per: 1 },
          { label: 'Thickness', unit: 'mm', per: width },
        ]}
      />
      <Linked
        start={100}
        told={`${material?.name ?? 'PLA'}, ${density} g/cm³, ${diameter} mm${price > 0 ? inMoney(`, ${price} ¤ a kilogram`) : ''}`}
        sides={[
          { label: 'Filament', unit: 'g', per: 1 },
          { label: 'Length', unit: 'm', per: metresPerGram },
          { label: 'Money', unit: inMoney('¤'), per: price / 1000 },
        ]}
      />
      <Temperatures start={number('nozzleTemperature', 210)} body={setup?.nozzle.body ?? 'brass'} />
    </div>
  )
}

interface Side {
  readonly label: string
  readonly unit: string
  /** How many of its units are one of the first side's. */
  readonly per: number
}

/** Numbers that go with each other: whichever is typed, the others follow. */
function Linked({ start, sides, told }: { start: number; sides: readonly Side[]; told?: string }) {
  const [base, setBase] = useState(start)
  const [typed, setTyped] = useState<{ readonly i: number; readonly text: string }>()
  return (
    <div>
      <div className="flex items-end gap-3">
        {sides.map(({ label, unit, per }, i) => (
          <label key={label} className="block text-[12px]">
            <span className="text-muted">{label}</span>
            <span className="mt-0.5 flex items-center gap-1">
              <input
                aria-label={`${label} ${unit}`.trim()}
                inputMode="decimal"
                value={typed?.i === i ? typed.text : shown(base * per)}
                onChange={(event) => {
                  const text = event.target.value
                  setTyped({ i, text })
                  const value = typedNumber(text)
                  if (Number.isFinite(value) && per > 0) setBase(value / per)
                }}
                onBlur={() => setTyped(undefined)}
                className="figure h-7 w-20 rounded border border-line bg-sunk px-2 text-right"
              />
              <span className="w-11 text-[12px] text-muted">{unit}</span>
            </span>
          </label>
        ))}
      </div>
      {told !== undefined && <p className="mt-0.5 text-[12px] text-muted">{told}</p>}
    </div>
  )
}

const shown = (value: number): string => String(Number(value.toPrecision(4)))

/** What to set with another body for the same heat at the tip. */
function Temperatures({ start, body }: { start: number; body: NozzleBody }) {
  const [other, setOther] = useState<NozzleBody>(body === 'hardenedSteel' ? 'brass' : 'hardenedSteel')
  const [set, setSet] = useState(String(start))
  const value = typedNumber(set)
  return (
    <div className="border-t border-line pt-2.5 text-[12px]">
      <label className="flex flex-wrap items-center gap-1.5">
        <input
          aria-label="Set temperature, °C"
          inputMode="decimal"
          value={set}
          onChange={(event) => setSet(event.target.value)}
          className="figure h-7 w-20 rounded border border-line bg-sunk px-2 text-right"
        />
        <span className="text-muted">°C with {inWords(body)} is as</span>
        <span className="figure">
          {Number.isFinite(value) ? value + tipOffset({ body }, medians.melt) - tipOffset({ body: other }, medians.melt) : '–'}
        </span>
        <span className="text-muted">°C with</span>
        <Select
          label=""
          name="Other body"
          value={other}
          of={nozzleBodies.map((one) => ({ id: one, name: inWords(one) }))}
          onChange={setOther}
        />
      </label>
      <p className="mt-1 text-[12px] text-muted">Common practice, assumed: hardened steel wants 5 to 20 °C more than brass.</p>
    </div>
  )
}
