import type { Candidate } from '@sable/contract/lineup'
import { type ShelfKind, setupOf } from '@sable/contract/shelf'
import { definitionOf, type SettingName, type SettingValues } from '@sable/core/profile/settings'
import { layersOf, type Origin, origins, resolveSettings } from '@sable/core/setup/resolve'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { asRefusal } from '../../api/asRefusal'
import { usesQuery } from '../../api/shelf'
import { useBench } from '../../desk/bench'
import { edit } from '../../desk/deskStore'
import { setValue } from '../../desk/edits'
import { shelfActions } from '../../shelf/shelfStore'
import type { AnyRecord } from '../../shelf/shelfWriter'
import { Button } from '../../ui/Button'
import { Drawer } from '../../ui/Drawer'
import { formatValue } from './rows'

interface Props {
  readonly name: SettingName
  readonly candidate: Candidate
  readonly onClose: () => void
}

const kinds: Partial<Readonly<Record<Origin, ShelfKind>>> = {
  printer: 'printers',
  nozzle: 'nozzles',
  material: 'materials',
  spool: 'spools',
}

/** Every layer that could say a value, what each says, and the value pushed to any of them or taken back. */
export function LayersDrawer({ name, candidate, onClose }: Props) {
  const { shelf, onRefusal } = useBench()
  const queries = useQueryClient()
  const actions = shelfActions(queries)
  const setting = definitionOf(name)
  const setup = setupOf(candidate, shelf)
  if (!setup) return null
  const layers = layersOf(setup, candidate.values)
  const { settings, origins: from } = resolveSettings(setup, candidate.values)
  const now = settings[name]
  const unit = setting.kind === 'number' ? setting.unit : ''

  const record = (origin: Origin): AnyRecord | undefined => {
    const kind = kinds[origin]
    const key = origin === 'printer' || origin === 'nozzle' || origin === 'material' || origin === 'spool' ? candidate[origin] : undefined
    if (!kind || key === undefined) return undefined
    const found = shelf[kind].find((one) => one.key === key)
    if (!found) return undefined
    const { starter: _, archived: __, revision: ___, ...plain } = found
    return plain as AnyRecord
  }
  /** What the record itself says; what follows from its bore or hot end cannot be taken back. */
  const said = (origin: Origin): SettingValues[SettingName] => {
    if (origin === 'profile') return candidate.values[name]
    return (record(origin) as { defaults?: SettingValues } | undefined)?.defaults?.[name]
  }
  const put = async (origin: Origin, value: number | string | undefined): Promise<void> => {
    if (origin === 'profile') return edit((content) => setValue(content, candidate.id, name, value))
    const kind = kinds[origin]
    const before = record(origin)
    if (!kind || !before) return
    const { [name]: _, ...rest } = (before as { defaults?: SettingValues }).defaults ?? {}
    try {
      await actions.write(kind, before, { ...before, defaults: value === undefined ? rest : { ...rest, [name]: value } } as AnyRecord)
    } catch (error) {
      onRefusal(asRefusal(error))
    }
  }

  return (
    <Drawer title={`${setting.label} of ${candidate.name}`} onClose={onClose}>
      <p className="text-[12.5px] text-muted">
        {setting.help} The last layer that says something wins; now that gives{' '}
        <span className="figure text-ink">
          {formatValue(setting, now)} {unit}
        </span>
        .
      </p>
      <ol className="mt-3 divide-y divide-line/60 border-y border-line">
        {origins.map((origin) => {
          const own = record(origin)
          const value = layers[origin][name]
          const wins = from[name] === origin
          const isThere = origin === 'fallback' || origin === 'profile' || own !== undefined
          return (
            <li key={origin} className={`py-2 ${wins ? '' : 'text-muted'}`}>
              <div className="flex items-baseline gap-2">
                <span className={`w-20 shrink-0 text-[12px] ${wins ? 'font-semibold text-lantern-ink' : ''}`}>{words[origin]}</span>
                <span className="min-w-0 flex-1 truncate text-[12.5px]">{own?.name ?? (isThere ? '' : 'none chosen')}</span>
                <span className={`figure ${wins ? 'font-semibold' : ''}`}>{value === undefined ? '–' : formatValue(setting, value)}</span>
                <span className="w-9 text-[12px]">{value === undefined ? '' : unit}</span>
              </div>
              {isThere && origin !== 'fallback' && (
                <div className="mt-1 flex items-center gap-1.5 pl-[5.5rem]">
                  <Button className="h-6 px-2" disabled={said(origin) === now} onClick={() => void put(origin, now)}>
                    Put {formatValue(setting, now)} here
                  </Button>
                  <Button className="h-6 px-2" disabled={said(origin) === undefined} onClick={() => void put(origin, undefined)}>
                    Clear
                  </Button>
                  {kinds[origin] && own && <Reach kind={kinds[origin]} recordKey={own.key} />}
                </div>
              )}
            </li>
          )
        })}
        {candidate.overrides
          .filter(({ values }) => values[name] !== undefined)
          .map((override) => (
            <li key={override.name} className="flex items-baseline gap-2 py-2 text-[12.5px]">
              <span className="w-20 shrink-0 text-[12px]">override</span>
              <span className="min-w-0 flex-1 truncate">{override.name}</span>
              <span className="figure">{formatValue(setting, override.values[name] as number | string)}</span>
              <span className="w-9 text-[12px] text-muted">{unit}</span>
            </li>
          ))}
      </ol>
      <p className="mt-3 text-[12px] text-muted">
        A value that is put on the shelf holds in every column that uses that record and says nothing itself. Undo it on the shelf.
      </p>
    </Drawer>
  )
}

const words: Readonly<Record<Origin, string>> = {
  fallback: 'practice',
  printer: 'printer',
  nozzle: 'nozzle',
  material: 'material',
  school: 'school',
  spool: 'spool',
  profile: 'profile',
}

/** Which lineups a change of the record will touch. */
function Reach({ kind, recordKey }: { kind: ShelfKind; recordKey: string }) {
  const uses = useQuery({ ...usesQuery(kind, recordKey), gcTime: 0 })
  if (!uses.data) return null
  const { lineups, columns } = uses.data
  return (
    <span data-hint={lineups.join('\n')} className="text-[12px] text-muted">
      in {columns} {columns === 1 ? 'column' : 'columns'} of {lineups.length} {lineups.length === 1 ? 'lineup' : 'lineups'}
    </span>
  )
}
