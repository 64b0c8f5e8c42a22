import { definitionOf, isSettingName, type SettingName } from '@sable/core/profile/settings'
import type { Dimension } from '@sable/core/search/space'
import { inWords } from '@sable/core/units/format'

/** What a record of the shelf, or an orientation, is called by its key. */
export type NameOf = (kind: Dimension['kind'], key: string) => string

/** What a setting, or a kind of record, is called that may vary. */
export const labelOf = (id: SettingName | Exclude<Dimension['kind'], 'setting'>): string =>
  isSettingName(id) ? definitionOf(id).label : `${id[0]!.toUpperCase()}${id.slice(1)}`

export const dimensionLabel = (dimension: Dimension): string => labelOf(dimension.kind === 'setting' ? dimension.name : dimension.kind)

/** One choice as a person says it, with its unit. */
export function choiceWords(dimension: Dimension, choice: number | string, nameOf: NameOf): string {
  if (dimension.kind !== 'setting') return nameOf(dimension.kind, String(choice))
  const setting = definitionOf(dimension.name)
  if (setting.kind === 'choice') return inWords(String(choice))
  return setting.unit === '' ? String(choice) : `${choice} ${setting.unit}`
}
