import { type Action, actions, type PickedCase } from '@sable/core/physics/strength/pickedCases'
import { MousePointerClick, Plus, X } from 'lucide-react'
import { Button, IconButton } from '../../ui/Button'
import { Checkbox } from '../../ui/Checkbox'
import { EditableText } from '../../ui/EditableText'
import { NumberField } from '../../ui/NumberField'
import { Select } from '../../ui/Select'

/** What is being pointed at. */
export type Picking = 'hold' | 'load'

const actionWords: Readonly<Record<Action, readonly [name: string, unit: string]>> = {
  force: ['force', 'N'],
  mass: ['hanging mass', 'kg'],
  moment: ['moment', 'N·m'],
  pressure: ['pressure', 'MPa'],
}

/** Ways that a load may act, in coordinates of the part as it lies; into the face where there is none. */
export const ways = [
  { id: 'face', name: 'into the face' },
  { id: '0 0 -1', name: 'down' },
  { id: '0 0 1', name: 'up' },
  { id: '1 0 0', name: 'towards +X' },
  { id: '-1 0 0', name: 'towards −X' },
  { id: '0 1 0', name: 'towards +Y' },
  { id: '0 -1 0', name: 'towards −Y' },
] as const
export type Way = (typeof ways)[number]['id']

/** Ends of the part as it lies, and which way they look. */
const ends = [
  { id: '-1 0 0', name: 'at −X' },
  { id: '1 0 0', name: 'at +X' },
  { id: '0 -1 0', name: 'at −Y' },
  { id: '0 1 0', name: 'at +Y' },
  { id: '0 0 -1', name: 'at the bed' },
  { id: '0 0 1', name: 'at the top' },
] as const

/** The cases of a purpose: where the part is held and what acts on it, face by face. */
export function CasesForm({
  cases,
  open,
  picking,
  wayOf,
  onOpen,
  onPick,
  onEnd,
  onChange,
  onWay,
}: {
  cases: readonly PickedCase[]
  open: PickedCase | undefined
  picking: Picking | undefined
  /** Of a load, as the part lies now; nothing where it is none of those that can be chosen. */
  wayOf: (load: PickedCase['loads'][number]) => Way | undefined
  onOpen: (id: string) => void
  onPick: (what: Picking | undefined) => void
  /** Takes a whole end in the place of a face. */
  onEnd: (way: string, what: Picking) => void
  onChange: (cases: readonly PickedCase[]) => void
  onWay: (load: PickedCase['loads'][number], way: Way) => PickedCase['loads'][number]
}) {
  const put = (next: PickedCase): void => onChange(cases.map((one) => (one.id === next.id ? next : one)))
  const add = (): void => {
    const id = crypto.randomUUID()
    onChange([...cases, { id, name: `Case ${cases.length + 1}`, holds: [], loads: [] }])
    onOpen(id)
    onPick('hold')
  }
  return (
    <section aria-label="Cases" className="text-[12.5px]">
      <h3 className="flex items-center gap-2 font-semibold">
        <span className="flex-1">Held and loaded</span>
        <Button onClick={add} disabled={cases.length >= 8}>
          <Plus className="size-3.5" aria-hidden /> Case
        </Button>
      </h3>
      {cases.length === 0 && (
        <p className="mt-1 text-[12px] text-muted">
          Now the load of the purpose acts along an axis, from end to end. Make a case to point at the faces where the part is held, and
          where it is pushed, pulled, pressed or twisted.
        </p>
      )}
      {cases.length > 1 && (
        <div className="mt-1">
          <Select label="Shown" value={open?.id ?? ''} of={cases.map(({ id, name }) => ({ id, name }))} onChange={onOpen} />
        </div>
      )}
      {open && (
        <div className="mt-1 space-y-1.5 border-t border-line pt-1.5">
          <p className="flex items-center gap-1 font-medium">
            <EditableText
              label="Name of the case"
              text={open.name}
              onCommit={(name) => name.trim() !== '' && put({ ...open, name: name.trim().slice(0, 60) })}
              className="flex-1"
            />
            <IconButton label={`Take ${open.name} away`} onClick={() => onChange(cases.filter(({ id }) => id !== open.id))}>
              <X className="size-3.5" />
            </IconButton>
          </p>
          <ul>
            {open.holds.map((hold, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: holds have no names, and keep their order.
              <li key={i} className="flex items-center gap-2 py-0.5">
                <span aria-hidden className="size-2.5 rounded-full bg-better" />
                <span className="flex-1">held at {'outwards' in hold.face ? 'an end' : 'a face'}</span>
                <Checkbox
                  checked={hold.slides}
                  onChange={(slides) => put({ ...open, holds: open.holds.map((own, k) => (k === i ? { ...own, slides } : own)) })}
                >
                  slides
                </Checkbox>
                <IconButton label={`Take hold ${i + 1} away`} onClick={() => put({ ...open, holds: open.holds.filter((_, k) => k !== i) })}>
                  <X className="size-3.5" />
                </IconButton>
              </li>
            ))}
            {open.loads.map((load, i) => {
              const change = (next: typeof load): void => put({ ...open, loads: open.loads.map((own, k) => (k === i ? next : own)) })
              return (
                // biome-ignore lint/suspicious/noArrayIndexKey: loads have no names, and keep their order.
                <li key={i} className="space-y-1 border-t border-line/60 py-1.5">
                  <p className="flex items-center gap-2">
                    <span aria-hidden className="size-2.5 rounded-full bg-lantern" />
                    <span className="flex-1">
                      <Select
                        label="Acts"
                        value={load.action}
                        of={actions.map((id) => ({ id, name: actionWords[id][0] }))}
                        onChange={(action) => change({ ...load, action })}
                      />
                    </span>
                    <IconButton
                      label={`Take load ${i + 1} away`}
                      onClick={() => put({ ...open, loads: open.loads.filter((_, k) => k !== i) })}
                    >
                      <X className="size-3.5" />
                    </IconButton>
                  </p>
                  <NumberField
                    label="So much"
                    unit={actionWords[load.action][1]}
                    value={load.amount}
                    onCommit={(amount) => {
                      if (amount === undefined || !(amount > 0 && amount <= 1e6)) return false
                      change({ ...load, amount })
                      return true
                    }}
                    problem="More than 0."
                  />
                  {load.action !== 'pressure' && (
                    <Select
                      label={load.action === 'moment' ? 'About' : 'Which way'}
                      value={wayOf(load) ?? 'own'}
                      of={wayOf(load) ? ways : [{ id: 'own' as const, name: 'as it was picked' }, ...ways]}
                      onChange={(way) => way !== 'own' && change(onWay(load, way))}
                    />
                  )}
                </li>
              )
            })}
          </ul>
          <p className="flex flex-wrap gap-2">
            <Button tone={picking === 'hold' ? 'main' : 'quiet'} onClick={() => onPick(picking === 'hold' ? undefined : 'hold')}>
              <MousePointerClick className="size-3.5" aria-hidden /> Hold a face
            </Button>
            <Button tone={picking === 'load' ? 'main' : 'quiet'} onClick={() => onPick(picking === 'load' ? undefined : 'load')}>
              <MousePointerClick className="size-3.5" aria-hidden /> Load a face
            </Button>
          </p>
          {picking && (
            <div className="flex flex-wrap items-center gap-2">
              <p role="status" className="text-lantern-ink">
                Click the face where it is {picking === 'hold' ? 'held' : 'loaded'}. Escape leaves it.
              </p>
              <Select
                label="Or all of the end"
                value=""
                of={[{ id: '', name: 'choose' }, ...ends]}
                onChange={(way) => way !== '' && onEnd(way, picking)}
              />
            </div>
          )}
        </div>
      )}
    </section>
  )
}
