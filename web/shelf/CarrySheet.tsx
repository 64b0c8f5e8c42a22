import { type Shelf, setupOf } from '@sable/contract/shelf'
import { definitionOf } from '@sable/core/profile/settings'
import { type CarriedValue, carriedValues, carry } from '@sable/core/setup/carry'
import type { Profile } from '@sable/core/shelf/profile'
import { useMemo, useState } from 'react'
import { formatValue } from '../bench/ledger/rows'
import { Button } from '../ui/Button'
import { Checkbox } from '../ui/Checkbox'
import { Sheet } from '../ui/Dialog'
import { Select } from '../ui/Select'
import { today } from '../ui/today'
import { madeWith } from './madeWith'

type Kind = 'printers' | 'nozzles' | 'materials'

/** A profile for something else: what is worked out anew, each with its reason, to be taken or refused. */
export function CarrySheet({
  profile,
  shelf,
  onKeep,
  onClose,
}: {
  profile: Profile
  shelf: Shelf
  onKeep: (profile: Profile) => void
  onClose: () => void
}) {
  const from = useMemo(() => madeWith(profile, shelf), [profile, shelf])
  const [to, setTo] = useState(() => ({ ...from, material: otherMaterial(profile, shelf) }))
  const [refused, setRefused] = useState<ReadonlySet<string>>(new Set())
  const changes = useMemo(() => {
    const [before, after] = [setupOf(from, shelf, today()), setupOf(to, shelf, today())]
    return before && after ? carry(profile.values, before, after) : []
  }, [from, to, profile, shelf])
  const taken = changes.filter(({ name }) => !refused.has(name))
  const named = (kind: Kind, key: string): string => shelf[kind].find((one) => one.key === key)?.name ?? key
  const choices = (kind: Kind) => shelf[kind].filter(({ archived }) => !archived).map(({ key, name }) => ({ id: key, name }))
  const bore = shelf.nozzles.find(({ key }) => key === to.nozzle)?.bore
  const keep = (): void => {
    const base = profile.family === '' ? profile.name : profile.family[0]!.toUpperCase() + profile.family.slice(1)
    onKeep({
      ...profile,
      key: 'new',
      name: `${base}, ${named('materials', to.material)}${to.nozzle === from.nozzle ? '' : `, ${bore} mm`}`.slice(0, 80),
      materials: [to.material],
      bores: bore === undefined ? undefined : [bore, bore],
      carriedFrom: profile.key,
      values: carriedValues(profile.values, taken),
    })
    onClose()
  }
  return (
    <Sheet title={`Carry ${profile.name} to another material`} onClose={onClose} width="w-[46rem]">
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2 text-[12.5px]">
        <span className="text-muted">
          made for {named('materials', from.material)}, {named('nozzles', from.nozzle)}
        </span>
        <Select
          label="to"
          name="Material"
          value={to.material}
          of={choices('materials')}
          onChange={(material) => setTo({ ...to, material })}
        />
        <Select label="" name="Nozzle" value={to.nozzle} of={choices('nozzles')} onChange={(nozzle) => setTo({ ...to, nozzle })} />
        <Select label="on" name="Printer" value={to.printer} of={choices('printers')} onChange={(printer) => setTo({ ...to, printer })} />
      </div>
      {changes.length === 0 ? (
        <p className="py-5 text-[12.5px] text-muted">
          Nothing that this profile says rests on what it was made with: it can be used as it is.
        </p>
      ) : (
        <table className="mt-3 w-full text-[12.5px]">
          <thead>
            <tr className="border-b border-line text-left text-[12px] text-muted">
              <th className="py-1 font-normal">taken</th>
              <th className="font-normal">setting</th>
              <th className="text-right font-normal">was</th>
              <th className="pr-4 text-right font-normal">becomes</th>
              <th className="font-normal">because</th>
            </tr>
          </thead>
          <tbody>
            {changes.map((change) => (
              <Change
                key={change.name}
                change={change}
                isTaken={!refused.has(change.name)}
                onTaken={(isTaken) => {
                  const next = new Set(refused)
                  if (isTaken) next.delete(change.name)
                  else next.add(change.name)
                  setRefused(next)
                }}
              />
            ))}
          </tbody>
        </table>
      )}
      <p className="mt-3 text-[12px] text-muted">
        Other values stay as they are. After another material or nozzle, dry the reel and repeat the temperature tower.
      </p>
      <div className="mt-3 flex justify-end gap-2">
        <Button onClick={onClose}>Cancel</Button>
        <Button tone="main" onClick={keep}>
          Keep as a profile
        </Button>
      </div>
    </Sheet>
  )
}

function Change({ change, isTaken, onTaken }: { change: CarriedValue; isTaken: boolean; onTaken: (isTaken: boolean) => void }) {
  const setting = definitionOf(change.name)
  const unit = setting.kind === 'number' && setting.unit !== '' ? ` ${setting.unit}` : ''
  return (
    <tr className="border-b border-line/60 align-baseline">
      <td className="py-1">
        <Checkbox name={`Take ${setting.label}`} checked={isTaken} onChange={onTaken} />
      </td>
      <th className="font-normal whitespace-nowrap">
        <span className="block text-left">{setting.label}</span>
      </th>
      <td className="figure text-right whitespace-nowrap text-muted">
        {formatValue(setting, change.from)}
        {unit}
      </td>
      <td className={`figure pr-4 pl-3 text-right whitespace-nowrap ${isTaken ? '' : 'line-through opacity-60'}`}>
        {formatValue(setting, change.comesTo)}
        {unit}
      </td>
      <td className="text-[12px] text-muted">
        {change.why}
        {change.to === undefined && ' · from the shelf'}
      </td>
    </tr>
  )
}

/** The first that the profile is not for. */
const otherMaterial = ({ materials }: Profile, shelf: Shelf): string =>
  shelf.materials.find(({ key, archived }) => !archived && !materials.includes(key))?.key ?? shelf.materials[0]?.key ?? ''
