import type { Shelf } from '@sable/contract/shelf'
import { definitionOf, type SettingName, settingNames } from '@sable/core/profile/settings'
import type { Profile } from '@sable/core/shelf/profile'
import { useState } from 'react'
import { formatValue } from '../bench/ledger/rows'
import { Sheet } from '../ui/Dialog'
import { Select } from '../ui/Select'

/** Two profiles beside each other: what either says and the other does not, or says otherwise. */
export function ProfilesBeside({ profile, shelf, onClose }: { profile: Profile; shelf: Shelf; onClose: () => void }) {
  const others = shelf.profiles.filter(({ key, archived }) => !archived && key !== profile.key)
  const [chosen, choose] = useState(() => (others.find(({ family }) => family !== '' && family === profile.family) ?? others[0])?.key ?? '')
  const other = others.find(({ key }) => key === chosen)
  const differing = settingNames.filter((name) => profile.values[name] !== other?.values[name])
  const shown = (name: SettingName, of: Profile): string => {
    const value = of.values[name]
    const setting = definitionOf(name)
    if (value === undefined) return '–'
    return `${formatValue(setting, value)}${setting.kind === 'number' && setting.unit !== '' ? ` ${setting.unit}` : ''}`
  }
  return (
    <Sheet title={`${profile.name} beside another profile`} onClose={onClose} width="w-[38rem]">
      {other === undefined ? (
        <p className="py-4 text-muted">There is no other profile on the shelf.</p>
      ) : (
        <>
          <Select
            label="Beside"
            value={chosen}
            of={others.map(({ key, name, family }) => ({ id: key, name, group: family }))}
            onChange={choose}
          />
          <table className="mt-3 w-full text-[12.5px]" aria-label="Differences">
            <thead>
              <tr className="border-b border-line text-[12px] text-muted">
                <th className="py-1 text-left font-normal">setting</th>
                <th className="text-right font-normal">{profile.name}</th>
                <th className="text-right font-normal">{other.name}</th>
              </tr>
            </thead>
            <tbody>
              {differing.map((name) => (
                <tr key={name} className="border-b border-line/60">
                  <th className="py-0.5 text-left font-normal">{definitionOf(name).label}</th>
                  <td className="figure text-right">{shown(name, profile)}</td>
                  <td className="figure text-right">{shown(name, other)}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="mt-3 text-[12px] text-muted">
            {differing.length === 0 ? 'Both say the same.' : '–: not said; printer, nozzle, material and spool say it.'}
          </p>
        </>
      )}
    </Sheet>
  )
}
