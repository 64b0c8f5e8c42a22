import { definitionOf, type SettingName } from '@sable/core/profile/settings'
import { resolveSettings } from '@sable/core/setup/resolve'
import { starterMaterials, starterNozzles, starterPrinters } from '@sable/core/shelf/starter'
import { useMemo } from 'react'
import { formatValue } from '../bench/ledger/rows'

/** Bores that are told of, mm. */
const bores = [0.25, 0.4, 0.6] as const

/** What a setting usually is by material and bore, where that differs: what the starter records come to. */
export function UsualValues({ name }: { name: SettingName }) {
  const setting = definitionOf(name)
  const rows = useMemo(() => {
    const printer = starterPrinters.find(({ key }) => key === 'lugger') ?? starterPrinters[0]!
    return starterMaterials.map((material) => ({
      name: material.name,
      values: bores.map((bore) => {
        const nozzle = starterNozzles.find((one) => one.bore === bore && one.body === 'brass')!
        return resolveSettings({ printer, nozzle, material }, {}).settings[name]
      }),
    }))
  }, [name])
  const all = new Set(rows.flatMap(({ values }) => values))
  if (all.size < 2) return null
  return (
    <table aria-label="Usual values" className="w-full text-[12px]">
      <thead>
        <tr className="border-b border-line text-muted">
          <th className="py-1 text-left font-normal">Usual{setting.kind === 'number' && setting.unit !== '' ? `, ${setting.unit}` : ''}</th>
          {bores.map((bore) => (
            <th key={bore} className="text-right font-normal">
              {bore} mm
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={row.name} className="border-b border-line/60">
            <th className="py-0.5 text-left font-normal">{row.name}</th>
            {row.values.map((value, i) => (
              <td key={bores[i]} className="figure text-right">
                {formatValue(setting, value)}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  )
}
