import type { Shelf } from '@sable/contract/shelf'
import { isSettingName } from '@sable/core/profile/settings'
import type { Setup } from '@sable/core/setup/resolve'
import type { Advice } from '@sable/core/trials/table/kind'
import { useQueryClient } from '@tanstack/react-query'
import { useMemo } from 'react'
import { shelfActions } from '../shelf/shelfStore'
import { adviceWords } from './ResultPanel'

/** Puts numbers into records as their settings; says what it wrote, and takes it back. */
export function useWriteAdvice(shelf: Shelf) {
  const queries = useQueryClient()
  const actions = useMemo(() => shelfActions(queries), [queries])
  const write = async (advice: readonly Advice[], setup: Setup): Promise<string> => {
    for (const of of ['spool', 'printer'] as const) {
      const own = advice.filter((one) => one.of === of)
      if (own.length === 0) continue
      const kind = of === 'spool' ? 'spools' : 'printers'
      const key = of === 'spool' ? setup.spool?.key : setup.printer.key
      const kept = (shelf[kind] as readonly (Shelf['spools'][number] | Shelf['printers'][number])[]).find((record) => record.key === key)
      if (!kept) throw new Error(`There is no ${key} on the shelf any more.`)
      const { starter: _, archived: __, revision: ___, ...record } = kept
      const settings = Object.fromEntries(own.filter(({ setting }) => isSettingName(setting)).map(({ setting, value }) => [setting, value]))
      const fields = Object.fromEntries(own.filter(({ setting }) => !isSettingName(setting)).map(({ setting, value }) => [setting, value]))
      const found = of === 'spool' ? { foundWith: setup.nozzle.key } : {}
      await actions.write(kind, record as never, { ...record, ...fields, ...found, defaults: { ...record.defaults, ...settings } } as never)
    }
    return `Written. ${adviceWords(advice, setup)}`
  }
  return Object.assign(write, { undo: () => actions.undo() })
}
