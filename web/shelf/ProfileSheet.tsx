import type { Shelf } from '@sable/contract/shelf'
import { definitionOf, type SettingName, settingNames } from '@sable/core/profile/settings'
import { groups } from '@sable/core/profile/table/setting'
import { useQuery } from '@tanstack/react-query'
import { useEffect } from 'react'
import { useParams } from 'react-router'
import { shelfQuery } from '../api/shelf'
import { Lost } from '../app/Lost'
import { formatValue } from '../bench/ledger/rows'
import { Loading } from '../ui/Loading'
import { Markdown } from '../ui/Markdown'
import { PaperPage, PaperPlace } from '../ui/PaperPage'

/** A profile on one page, to be pinned beside the printer. */
export function ProfileSheet() {
  const { recordKey = '' } = useParams()
  const shelf = useQuery(shelfQuery)
  useEffect(() => {
    document.title = 'Profile · Sable Lantern'
  }, [])
  if (!shelf.data) return <Loading what="the profile" failed={shelf.failureReason} />
  const profile = shelf.data.profiles.find(({ key }) => key === recordKey)
  if (!profile) return <Lost what="There is no such profile." />
  return (
    <PaperPlace label="Profile">
      <Page profile={profile} shelf={shelf.data} />
    </PaperPlace>
  )
}

function Page({
  profile: { name, family, tags, materials, bores, notes, values },
  shelf,
}: {
  profile: Shelf['profiles'][number]
  shelf: Shelf
}) {
  const isFor = [
    materials.map((key) => shelf.materials.find((one) => one.key === key)?.name ?? key).join(', '),
    bores ? `${bores[0] === bores[1] ? bores[0] : `${bores[0]} to ${bores[1]}`} mm bore` : '',
  ].filter((text) => text !== '')
  const said = (group: string): readonly SettingName[] =>
    settingNames.filter((own) => values[own] !== undefined && definitionOf(own).group === group)
  return (
    <PaperPage
      title={name}
      under={isFor.join(' · ') || 'for any material'}
      aside={[family, ...tags].filter((text) => text !== '').join(', ')}
    >
      {notes !== '' && (
        <div className="mt-2">
          <Markdown text={notes} />
        </div>
      )}
      <div className="mt-3 columns-2 gap-[8mm]">
        {groups
          .filter((group) => said(group).length > 0)
          .map((group) => (
            <section key={group} className="mb-3 break-inside-avoid">
              <h2 className="font-semibold">{group}</h2>
              <table className="w-full">
                <tbody>
                  {said(group).map((own) => {
                    const setting = definitionOf(own)
                    return (
                      <tr key={own} className="border-t border-[#ddd5c9]">
                        <th className="py-0.5 text-left font-normal">{setting.label}</th>
                        <td className="figure text-right">
                          {formatValue(setting, values[own]!)}
                          {setting.kind === 'number' && setting.unit !== '' ? ` ${setting.unit}` : ''}
                        </td>
                      </tr>
                    )
                  })}
                </tbody>
              </table>
            </section>
          ))}
      </div>
      <p className="mt-2 text-[9px] text-[#6a5e52]">Whatever is not said here comes from printer, nozzle, material and spool.</p>
    </PaperPage>
  )
}
