import type { StoredCase } from '@sable/contract/cases'
import type { Shelf } from '@sable/contract/shelf'
import { type Keepable, keepableOf } from '@sable/core/faults/case'
import { causes, causesOf, type FaultId, faults } from '@sable/core/faults/faults'
import type { Scene } from '@sable/core/faults/spec/scene'
import { taughtBy } from '@sable/core/faults/teaches'
import type { Weighed } from '@sable/core/faults/weigh'
import { definitionOf, type SettingName } from '@sable/core/profile/settings'
import type { Advice } from '@sable/core/trials/table/kind'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { toast } from 'sonner'
import { asRefusal } from '../api/asRefusal'
import { fetchLineup, lineupsQuery, writeLineup } from '../api/lineups'
import { formatValue } from '../bench/ledger/rows'
import { useWriteAdvice } from '../trials/useWriteAdvice'
import { Button } from '../ui/Button'
import type { Refusal } from '../ui/Notice'
import { Select } from '../ui/Select'

interface Props {
  readonly one: StoredCase
  readonly scene: Scene | undefined
  readonly weighed: readonly Weighed[]
  readonly shelf: Shelf
  readonly onChange: (next: StoredCase) => void
  readonly onRefusal: (refusal: Refusal) => void
}

/** How a case ends: what it was, in a sentence and by name, what is kept of it and where, and what it teaches. */
export function Found(props: Props) {
  return props.one.closed === undefined ? <Closing {...props} /> : <Closed {...props} />
}

const OTHER = 'other'

function Closing({ one, scene, weighed, onChange }: Props) {
  const fault = faults[one.fault as FaultId]
  // What made it go away, else what is likeliest.
  const usual = one.tries.findLast(({ did, mixed }) => did === 'fixed' && !mixed)?.cause ?? weighed[0]?.cause.id ?? OTHER
  const [chosen, setChosen] = useState<string>()
  const found = chosen ?? usual
  const taught = scene && taughtBy(one.fault, found, scene)
  return (
    <form
      className="space-y-2"
      onSubmit={(event) => {
        event.preventDefault()
        const words = String(new FormData(event.currentTarget).get('found') ?? '').trim()
        if (words === '') return
        onChange({ ...one, closed: words, ...(found === OTHER ? {} : { found }), ...(taught ? { taught: [...taught.evidence] } : {}) })
      }}
    >
      <div className="flex flex-wrap items-center gap-2">
        <Select
          label="It was"
          value={found}
          of={[...causesOf(fault).map(({ id, name }) => ({ id, name })), { id: OTHER, name: 'something else' }]}
          className="max-w-80"
          onChange={setChosen}
        />
        <input
          name="found"
          aria-label="What it was"
          placeholder="and in a sentence"
          maxLength={2000}
          className="h-7 min-w-48 flex-1 rounded border border-line bg-sunk px-2"
        />
        <Button type="submit">Close the case</Button>
      </div>
      {taught && <p className="text-[12px] text-muted">Closed so, it teaches: {taught.words}.</p>}
    </form>
  )
}

function Closed({ one, scene, shelf, onChange, onRefusal }: Props) {
  const { closed, found, taught, ...rest } = one
  return (
    <section aria-label="Found" className="space-y-2 border-l-2 border-lantern pl-3">
      <div className="flex items-center gap-3">
        <p className="flex-1">
          <span className="text-muted">Found:</span> {closed}
          {found !== undefined && <span className="block text-[12px] text-muted">{causes.get(found)?.name ?? found}</span>}
        </p>
        <Button onClick={() => onChange(rest)}>Open it again</Button>
      </div>
      {taught && scene && found !== undefined && (
        <p className="text-[12px] text-muted">It teaches: {taughtBy(one.fault, found, scene)?.words ?? 'a limit of the flow'}.</p>
      )}
      {scene &&
        keepableOf(one).map((keep) => <Keep key={keep.keeps} keep={keep} one={one} scene={scene} shelf={shelf} onRefusal={onRefusal} />)}
    </section>
  )
}

/** Writes what was found to its layer: a deed by its name, which can be undone. */
function Keep({
  keep: { keeps, values },
  one,
  scene,
  shelf,
  onRefusal,
}: {
  keep: Keepable
  one: StoredCase
  scene: Scene
  shelf: Shelf
  onRefusal: (refusal: Refusal) => void
}) {
  const write = useWriteAdvice(shelf)
  const writeColumn = useWriteColumn(one)
  const [busy, setBusy] = useState(false)
  // Without a reel of its own the numbers belong to the column.
  const layer = keeps === 'spool' && scene.setup.spool === undefined ? 'profile' : keeps
  const names = Object.keys(values) as SettingName[]
  const words = names.map((name) => `${definitionOf(name).label.toLowerCase()} ${withUnit(name, values[name]!)}`).join(', ')
  const whose = layer === 'spool' ? scene.setup.spool!.name : layer === 'printer' ? scene.setup.printer.name : one.candidate.name
  const isKept = layer !== 'profile' && names.every((name) => ownOf(shelf, layer, scene)?.[name] === values[name])
  if (layer === 'profile' && one.lineup === undefined) return null
  const doKeep = async (): Promise<void> => {
    setBusy(true)
    try {
      if (layer === 'profile') {
        const back = await writeColumn(values)
        toast(`Kept in the column ${whose}: ${words}.`, { action: { label: 'Undo', onClick: () => void back() } })
      } else {
        const advice = names.map((setting): Advice => ({ of: layer, setting, value: values[setting]! }))
        await write(advice, scene.setup)
        toast(`Kept with ${whose}: ${words}.`, { action: { label: 'Undo', onClick: () => void write.undo() } })
      }
    } catch (error) {
      onRefusal(asRefusal(error))
    }
    setBusy(false)
  }
  return (
    <p>
      <Button onClick={() => void doKeep()} disabled={busy || isKept}>
        {isKept ? 'Kept' : 'Keep'} {layer === 'profile' ? 'in the column' : 'with'} {whose}: {words}
      </Button>
    </p>
  )
}

function withUnit(name: SettingName, value: number | string): string {
  const definition = definitionOf(name)
  return `${formatValue(definition, value)}${definition.kind === 'number' ? ` ${definition.unit}` : ''}`.trim()
}

const ownOf = (shelf: Shelf, layer: 'spool' | 'printer', { setup }: Scene) =>
  layer === 'spool'
    ? shelf.spools.find(({ key }) => key === setup.spool?.key)?.defaults
    : shelf.printers.find(({ key }) => key === setup.printer.key)?.defaults

/** Puts values into the column that failed, and returns the way back. */
function useWriteColumn({ lineup, candidate: { id: failed } }: StoredCase) {
  const queries = useQueryClient()
  const put = async (change: (values: StoredCase['candidate']['values']) => StoredCase['candidate']['values']) => {
    const { id, demo: _, updatedAt: __, ...content } = await fetchLineup(lineup!)
    const before = content.candidates.find((one) => one.id === failed)
    if (!before) throw new Error('The column that failed is no longer in its lineup. Take the change over by hand.')
    await writeLineup(id, {
      ...content,
      candidates: content.candidates.map((one) => (one === before ? { ...one, values: change(one.values) } : one)),
    })
    await queries.invalidateQueries(lineupsQuery)
    return before.values
  }
  return async (values: StoredCase['candidate']['values']): Promise<() => Promise<unknown>> => {
    const before = await put((own) => ({ ...own, ...values }))
    return () => put(() => before)
  }
}
