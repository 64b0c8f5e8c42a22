import { definitionOf, isSettingName } from '../profile/settings'

/** What a print was made with, as far as two of them are compared. */
export interface MadeWith {
  readonly printer: string
  readonly nozzle: string
  readonly material: string
  readonly spool?: string | undefined
  /** Whether the reel had likely taken up water. */
  readonly wet?: boolean | undefined
  readonly resolved: Readonly<Record<string, { readonly value: number | string }>>
}

/** A difference between two prints. */
export interface Changed {
  readonly label: string
  readonly was: string
  readonly is: string
}

/** What was changed between a print and an earlier one: what it was made with, and every setting that came to another value. */
export function sincePrint(before: MadeWith, now: MadeWith): Changed[] {
  const with_: Changed[] = (['printer', 'nozzle', 'material', 'spool'] as const).flatMap((label) =>
    before[label] === now[label] ? [] : [{ label, was: before[label] ?? 'none', is: now[label] ?? 'none' }],
  )
  const water = (wet: boolean | undefined): string => (wet === undefined ? 'unknown' : wet ? 'likely wet' : 'dry')
  if (before.wet !== now.wet && before.spool === now.spool) with_.push({ label: 'reel', was: water(before.wet), is: water(now.wet) })
  const names = [...new Set([...Object.keys(before.resolved), ...Object.keys(now.resolved)])]
  return [
    ...with_,
    ...names.flatMap((name) => {
      const [was, is] = [before.resolved[name]?.value, now.resolved[name]?.value]
      if (was === is) return []
      const definition = isSettingName(name) ? definitionOf(name) : undefined
      const unit = definition?.kind === 'number' ? ` ${definition.unit}` : ''
      const told = (value: number | string | undefined): string => (value === undefined ? 'not there' : `${value}${unit}`.trim())
      return [{ label: definition?.label ?? name, was: told(was), is: told(is) }]
    }),
  ]
}
