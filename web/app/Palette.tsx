import { settingNames, settings } from '@sable/core/profile/settings'
import { useQuery } from '@tanstack/react-query'
import { Command } from 'cmdk'
import { useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import { lineupsQuery } from '../api/lineups'
import { partsQuery } from '../api/parts'
import { shelfQuery } from '../api/shelf'
import { benchViews } from '../bench/shell/views'
import { redo, undo, useDesk } from '../desk/deskStore'
import { goTo } from '../desk/goTo'
import { entries } from '../handbook/pages'
import { toggleTheme } from '../ui/theme'
import { recent } from './recent'
import { useShortcuts } from './shortcutStore'

interface Item {
  readonly id: string
  readonly name: string
  readonly group: string
  /** Other words by which it is found. */
  readonly words?: readonly string[]
  readonly run: () => void
}

/**
 * How well what was typed fits an item: every word of it begins a word of the item, or stands within one. The last of the words is its name;
 * until the list knows an item's words, it is asked about by its value alone.
 */
function nearness(value: string, wanted: string, words: readonly string[]): number {
  const name = (words.at(-1) ?? value).toLowerCase()
  const typed = wanted.toLowerCase().trim()
  if (name.startsWith(typed)) return 1
  const own = words.flatMap((word) => word.toLowerCase().split(/[\s,:–-]+/))
  const parts = typed.split(/\s+/)
  if (parts.every((part) => own.some((word) => word.startsWith(part)))) return name.includes(parts[0]!) ? 0.8 : 0.6
  return parts.every((part) => name.includes(part)) ? 0.4 : 0
}

/** So many of a group are listed while nothing is typed. */
const AT_FIRST = 6

/** Everything that can be gone to or done, found by a few letters; what was chosen last comes first. */
export default function Palette({ onClose }: { onClose: () => void }) {
  const items = useItems()
  const [typed, setTyped] = useState('')
  const last = recent.all()
  const lately = last.flatMap((id) => items.find((item) => item.id === id) ?? [])
  const groups = [...new Set(items.map(({ group }) => group))]
  const choose = ({ id, run }: Item): void => {
    recent.add(id)
    onClose()
    run()
  }
  const listed = (group: string): readonly Item[] => {
    const own = items.filter((item) => item.group === group)
    return typed.trim() === '' ? own.slice(0, group === 'Handbook' ? 0 : AT_FIRST) : own
  }
  return (
    <Command.Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      label="Find anything"
      loop
      filter={(value, wanted, words = []) => nearness(value, wanted, words)}
      className="fixed top-[14vh] left-1/2 z-50 w-[38rem] max-w-[92vw] -translate-x-1/2 overflow-hidden rounded-lg border border-strong bg-raised"
      overlayClassName="fixed inset-0 z-40 bg-black/55"
    >
      <Command.Input
        value={typed}
        onValueChange={setTyped}
        placeholder="A place, lineup, part, setting, action, or anything of the handbook"
        className="h-11 w-full border-b border-line bg-transparent px-4 text-[14px] outline-none placeholder:text-muted"
      />
      <Command.List className="max-h-[52vh] overflow-auto p-1.5">
        <Command.Empty className="p-4 text-[12.5px] text-muted">Nothing is called so.</Command.Empty>
        {typed.trim() === '' && lately.length > 0 && <Group name="Lately" items={lately} prefix="lately " onChoose={choose} />}
        {groups.map((group) => (
          <Group key={group} name={group} items={listed(group)} prefix="" onChoose={choose} />
        ))}
      </Command.List>
    </Command.Dialog>
  )
}

function Group({
  name,
  items,
  prefix,
  onChoose,
}: {
  name: string
  items: readonly Item[]
  prefix: string
  onChoose: (item: Item) => void
}) {
  if (items.length === 0) return null
  return (
    <Command.Group
      heading={name}
      className="[&_[cmdk-group-heading]]:px-2.5 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:pb-1 [&_[cmdk-group-heading]]:text-[12px] [&_[cmdk-group-heading]]:text-muted"
    >
      {items.map((item) => (
        <Command.Item
          key={item.id}
          value={`${prefix}${item.id} ${item.name}`}
          keywords={[...(item.words ?? []), item.name]}
          onSelect={() => onChoose(item)}
          className="flex min-h-7 cursor-pointer items-center gap-3 rounded px-2.5 text-[13px] aria-selected:bg-glow aria-selected:text-lantern-ink"
        >
          <span className="min-w-0 flex-1 truncate">{item.name}</span>
          {prefix !== '' && <span className="text-[12px] text-muted">{item.group}</span>}
        </Command.Item>
      ))}
    </Command.Group>
  )
}

function useItems(): readonly Item[] {
  const navigate = useNavigate()
  const lineups = useQuery(lineupsQuery)
  const parts = useQuery(partsQuery)
  const shelf = useQuery(shelfQuery)
  const lineupId = useDesk((desk) => desk.lineupId)
  const candidates = useDesk((desk) => desk.content?.candidates)
  return useMemo(() => {
    const to = (address: string) => () => void navigate(address)
    const ledger = `/bench/${lineupId}/ledger`
    const isOpen = lineupId !== undefined
    return [
      ...(isOpen
        ? benchViews.map(
            (view): Item => ({
              id: `view ${view}`,
              name: `${view[0]!.toUpperCase()}${view.slice(1)}`,
              group: 'Places',
              words: ['bench', 'view'],
              run: to(`/bench/${lineupId}/${view}`),
            }),
          )
        : [{ id: 'place bench', name: 'Bench', group: 'Places', run: to('/bench') }]),
      ...['Trials', 'Log', 'Faults', 'Queue', 'Shelf', 'Handbook'].map(
        (name): Item => ({ id: `place ${name}`, name, group: 'Places', run: to(`/${name.toLowerCase()}`) }),
      ),
      ...['Looking back', 'Experiments', 'Trainer'].map(
        (name, i): Item => ({
          id: `log ${name}`,
          name,
          group: 'Places',
          words: ['log'],
          run: to(`/log?view=${['back', 'experiments', 'trainer'][i]}`),
        }),
      ),
      {
        id: 'place plates',
        name: 'Plates',
        group: 'Places',
        words: ['queue', 'bed', 'arrange', 'several parts'],
        run: to('/queue/plates'),
      },
      { id: 'do new', name: 'New lineup', group: 'Actions', words: ['begin', 'load', 'model'], run: to('/bench/new') },
      ...(isOpen
        ? [
            {
              id: 'do sheet',
              name: 'Print the comparison',
              group: 'Actions',
              words: ['paper', 'sheet'],
              run: to(`/bench/${lineupId}/sheet`),
            },
            { id: 'do undo', name: 'Undo', group: 'Actions', run: () => undo() },
            { id: 'do redo', name: 'Redo', group: 'Actions', run: () => redo() },
          ]
        : []),
      { id: 'do theme', name: 'Other theme', group: 'Actions', words: ['dark', 'light', 'sable', 'paper'], run: toggleTheme },
      { id: 'do keys', name: 'Keys', group: 'Actions', words: ['shortcuts', 'hotkeys'], run: () => useShortcuts.setState({ open: true }) },
      { id: 'do schools', name: 'Choose schools', group: 'Actions', words: ['disagree', 'practice'], run: to('/handbook/page/schools') },
      ...(candidates ?? []).map(
        ({ id, name }): Item => ({
          id: `column ${id}`,
          name,
          group: 'Columns',
          words: ['candidate'],
          run: () => {
            to(ledger)()
            goTo({ candidateId: id })
          },
        }),
      ),
      ...(lineups.data ?? []).map(({ id, name }): Item => ({ id: `lineup ${id}`, name, group: 'Lineups', run: to(`/bench/${id}/ledger`) })),
      ...(parts.data ?? []).map(
        ({ id, name }): Item => ({ id: `part ${id}`, name: `New lineup of ${name}`, group: 'Parts', run: to(`/bench/new?part=${id}`) }),
      ),
      ...(isOpen
        ? settingNames.map(
            (name): Item => ({
              id: `setting ${name}`,
              name: settings[name].label,
              group: 'Settings',
              words: settings[name].synonyms,
              run: () => {
                to(ledger)()
                goTo({ setting: name })
              },
            }),
          )
        : []),
      ...(['printers', 'nozzles', 'materials', 'spools', 'profiles'] as const).flatMap((kind) =>
        (shelf.data?.[kind] ?? [])
          .filter(({ archived }) => !archived)
          .map(
            ({ key, name }): Item => ({
              id: `record ${kind} ${key}`,
              name,
              group: 'On the shelf',
              words: [kind],
              run: to(`/shelf/${kind}/${key}`),
            }),
          ),
      ),
      ...entries.map(
        ({ id, title, synonyms }): Item => ({
          id: `entry ${id}`,
          name: title,
          group: 'Handbook',
          words: synonyms,
          run: to(`/handbook/${id}`),
        }),
      ),
    ]
  }, [navigate, lineups.data, parts.data, shelf.data, lineupId, candidates])
}
