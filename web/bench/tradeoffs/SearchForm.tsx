import type { LineupContent } from '@sable/contract/lineup'
import { LARGEST_BUDGET, type SearchSpec } from '@sable/contract/search'
import type { Shelf } from '@sable/contract/shelf'
import { figureOf } from '@sable/core/figures/figures'
import { type FigureId, figureIds } from '@sable/core/figures/table/figure'
import { sixOrientations } from '@sable/core/mesh/orientations'
import { definitionOf, type SettingName, settingNames } from '@sable/core/profile/settings'
import { sizeOf } from '@sable/core/search/explore'
import { limitsOf, type Objective, usually } from '@sable/core/search/figures'
import type { Dimension } from '@sable/core/search/space'
import { Plus, X } from 'lucide-react'
import { useMemo, useState } from 'react'
import { useBench } from '../../desk/bench'
import { Button, IconButton } from '../../ui/Button'
import { Checkbox } from '../../ui/Checkbox'
import { Menu, MenuItem, MenuLabel } from '../../ui/Menu'
import { Select } from '../../ui/Select'
import { labelOf } from './dimensionWords'
import { parseChoices } from './parseChoices'

/** Something that may vary, as it is being typed. */
type Draft = { readonly id: SettingName; readonly text: string } | { readonly id: ShelfField; readonly keys: readonly string[] }

const shelfFields = ['printer', 'nozzle', 'material', 'spool', 'orientation'] as const
type ShelfField = (typeof shelfFields)[number]

/** What people turn first (CP-T3, common practice), over ranges that a 0.4 mm bore prints well. */
const usual: readonly Draft[] = [
  { id: 'layerHeight', text: '0.12 to 0.28 by 0.04' },
  { id: 'wallCount', text: '2 to 5' },
  { id: 'infillDensity', text: '10 to 40 by 5' },
  { id: 'outerWallSpeed', text: '20 to 80 by 20' },
]

interface Props {
  readonly lineupId: string
  /** What was asked for last, to begin from. */
  readonly before: SearchSpec | undefined
  readonly onBegin: (spec: SearchSpec) => Promise<void>
}

/** What may vary, what matters, and how much is to be tried. */
export function SearchForm({ lineupId, before, onBegin }: Props) {
  const { content, shelf } = useBench()
  const [baseId, setBaseId] = useState(content.candidates[0]?.id ?? '')
  const [drafts, setDrafts] = useState<readonly Draft[]>(() => (before ? before.dimensions.map(asDraft) : usual))
  const [objectives, setObjectives] = useState<readonly Objective[]>(
    () => before?.objectives ?? (['time', 'surface', 'strength'] as const).map(usually),
  )
  const [budget, setBudget] = useState(String(before?.budget ?? 300))
  const [seed, setSeed] = useState(String(before?.seed ?? 1))
  const [beginning, setBeginning] = useState(false)
  const base = content.candidates.find(({ id }) => id === baseId)
  const read = useMemo(() => drafts.map((draft) => dimensionOf(draft)), [drafts])
  const dimensions = read.flatMap((one) => (one.dimension ? [one.dimension] : []))
  const size = sizeOf(dimensions.map((dimension) => choiceCount(dimension)))
  const [most, start] = [Number(budget), Number(seed)]
  const wrong = !base
    ? 'There is no candidate to start from.'
    : drafts.length === 0
      ? 'Let something vary.'
      : dimensions.length < drafts.length
        ? 'Something that may vary cannot be read.'
        : objectives.length === 0
          ? 'Say what matters.'
          : !(Number.isInteger(most) && most >= 1 && most <= LARGEST_BUDGET)
            ? `Try between 1 and ${LARGEST_BUDGET} variants.`
            : !(Number.isInteger(start) && start >= 0)
              ? 'The seed is a whole number.'
              : undefined
  const change = (at: number, draft: Draft): void => setDrafts(drafts.toSpliced(at, 1, draft))
  const free = settingNames.filter((name) => !drafts.some(({ id }) => id === name))
  const begin = async (): Promise<void> => {
    if (!base || wrong) return
    setBeginning(true)
    try {
      await onBegin({
        lineupId,
        partId: content.partId,
        placement: content.placement,
        purpose: content.purpose,
        base,
        dimensions,
        objectives: [...objectives],
        limits: limitsOf(content.purpose),
        budget: most,
        seed: start,
      })
    } finally {
      setBeginning(false)
    }
  }
  return (
    <section aria-label="New search" className="mx-auto w-full max-w-[52rem] overflow-auto p-5">
      <h2 className="text-[15px] font-semibold">Search for trade-offs</h2>
      <p className="mt-1 mb-4 text-[12.5px] text-muted">
        Variants of one candidate are computed on this machine: spread over everything first, then closer and closer about the best. The
        limits of the part’s purpose hold. The same seed finds the same.
      </p>
      <div className="grid grid-cols-[1fr_15rem] gap-8">
        <div>
          <div className="mb-2 flex items-center justify-between">
            <h3 className="text-[12.5px] font-semibold text-lantern-ink">Varies</h3>
            <Select
              label="starting from"
              name="Starting from"
              value={baseId}
              of={content.candidates.map(({ id, name }) => ({ id, name }))}
              onChange={setBaseId}
            />
          </div>
          <ul className="space-y-1.5">
            {drafts.map((draft, at) => (
              <li key={draft.id}>
                <div className="flex items-center gap-2 text-[12.5px]">
                  <span className="w-40 shrink-0 truncate">{labelOf(draft.id)}</span>
                  {'text' in draft ? (
                    <input
                      value={draft.text}
                      aria-label={`Values of ${labelOf(draft.id)}`}
                      aria-invalid={read[at]?.wrong !== undefined}
                      onChange={(event) => change(at, { ...draft, text: event.target.value })}
                      className="figure h-7 min-w-0 flex-1 rounded border border-line bg-sunk px-2 aria-[invalid=true]:border-stop"
                    />
                  ) : (
                    <Keys draft={draft} content={content} shelf={shelf} onChange={(keys) => change(at, { ...draft, keys })} />
                  )}
                  <span className="w-10 shrink-0 text-[12px] text-muted">{'text' in draft ? unitOf(draft.id) : ''}</span>
                  <IconButton label={`Let ${labelOf(draft.id)} be`} onClick={() => setDrafts(drafts.toSpliced(at, 1))}>
                    <X className="size-3.5" />
                  </IconButton>
                </div>
                {read[at]?.wrong !== undefined && <p className="mt-0.5 pl-42 text-[12px] text-stop">{read[at].wrong}</p>}
              </li>
            ))}
          </ul>
          <div className="mt-2 flex gap-2">
            <Menu
              trigger={
                <Button>
                  <Plus className="size-3.5" aria-hidden /> Setting
                </Button>
              }
            >
              {free.map((name) => (
                <MenuItem key={name} onSelect={() => setDrafts([...drafts, { id: name, text: firstText(name) }])}>
                  {definitionOf(name).label}
                </MenuItem>
              ))}
            </Menu>
            <Menu
              trigger={
                <Button>
                  <Plus className="size-3.5" aria-hidden /> Shelf or orientation
                </Button>
              }
            >
              <MenuLabel>Varies too</MenuLabel>
              {shelfFields
                .filter((field) => !drafts.some(({ id }) => id === field))
                .map((field) => (
                  <MenuItem key={field} onSelect={() => setDrafts([...drafts, { id: field, keys: [] }])}>
                    {labelOf(field)}
                  </MenuItem>
                ))}
            </Menu>
          </div>
        </div>
        <div>
          <h3 className="mb-2 text-[12.5px] font-semibold text-lantern-ink">Goals</h3>
          <ul className="space-y-1">
            {figureIds.map((figure) => (
              <Matters key={figure} figure={figure} objectives={objectives} onChange={setObjectives} />
            ))}
          </ul>
          <h3 className="mt-4 mb-2 text-[12.5px] font-semibold text-lantern-ink">How much</h3>
          <label className="flex items-center justify-between text-[12.5px]">
            <span className="text-muted">Variants at most</span>
            <input
              value={budget}
              inputMode="numeric"
              onChange={(event) => setBudget(event.target.value)}
              className="figure h-7 w-20 rounded border border-line bg-sunk px-2 text-right"
            />
          </label>
          <label className="mt-1.5 flex items-center justify-between text-[12.5px]">
            <span className="text-muted">Seed</span>
            <input
              value={seed}
              inputMode="numeric"
              onChange={(event) => setSeed(event.target.value)}
              className="figure h-7 w-20 rounded border border-line bg-sunk px-2 text-right"
            />
          </label>
        </div>
      </div>
      <div className="mt-5 flex items-center gap-3 border-t border-line pt-4">
        <Button tone="main" disabled={wrong !== undefined || beginning} onClick={() => void begin()}>
          Search
        </Button>
        <p className={wrong === undefined ? 'text-[12.5px] text-muted' : 'text-[12.5px] text-stop'}>
          {wrong ??
            (size <= most
              ? `All ${size.toLocaleString('en')} variants are tried.`
              : `At most ${most.toLocaleString('en')} of ${size.toLocaleString('en')} variants are tried; fewer when nothing new turns up.`)}
        </p>
      </div>
    </section>
  )
}

function Matters({
  figure,
  objectives,
  onChange,
}: {
  figure: FigureId
  objectives: readonly Objective[]
  onChange: (objectives: readonly Objective[]) => void
}) {
  const own = objectives.find((objective) => objective.figure === figure)
  const better = own?.better ?? figureOf[figure].better
  return (
    <li className="flex h-7 items-center justify-between text-[12.5px]">
      <Checkbox
        checked={own !== undefined}
        onChange={(to) => onChange(to ? [...objectives, usually(figure)] : objectives.filter((objective) => objective.figure !== figure))}
      >
        {figureOf[figure].label}
      </Checkbox>
      {figureOf[figure].taste && own ? (
        <Select
          label=""
          name="Which gloss is better"
          value={better}
          of={[
            { id: 'more', name: 'glossy' },
            { id: 'less', name: 'matte' },
          ]}
          onChange={(to) => onChange(objectives.map((objective) => (objective.figure === figure ? { figure, better: to } : objective)))}
        />
      ) : (
        <span className="text-[12px] text-muted">{better}</span>
      )}
    </li>
  )
}

/** Records of the shelf, or orientations, that may be taken. */
function Keys({
  draft,
  content,
  shelf,
  onChange,
}: {
  draft: Extract<Draft, { keys: readonly string[] }>
  content: LineupContent
  shelf: Shelf
  onChange: (keys: readonly string[]) => void
}) {
  const named =
    draft.id === 'orientation'
      ? sixOrientations(content.placement).map(({ name }) => ({ key: name, name }))
      : shelf[`${draft.id}s`].filter(({ archived }) => !archived).map(({ key, name }) => ({ key, name }))
  const nameOf = (key: string): string => named.find((one) => one.key === key)?.name ?? key
  return (
    <div className="flex min-w-0 flex-1 items-center gap-2">
      <span className="min-w-0 flex-1 truncate rounded border border-line bg-sunk px-2 py-1">
        {draft.keys.length === 0 ? <span className="text-muted">none yet</span> : draft.keys.map(nameOf).join(', ')}
      </span>
      <Menu align="end" trigger={<Button>Choose</Button>}>
        {named.map(({ key, name }) => (
          <MenuItem
            key={key}
            current={draft.keys.includes(key)}
            onSelect={() => onChange(draft.keys.includes(key) ? draft.keys.filter((own) => own !== key) : [...draft.keys, key])}
          >
            {name}
          </MenuItem>
        ))}
      </Menu>
    </div>
  )
}

function asDraft(dimension: Dimension): Draft {
  if (dimension.kind === 'setting') return { id: dimension.name, text: dimension.values.join(', ') }
  return { id: dimension.kind, keys: dimension.kind === 'orientation' ? dimension.ways : dimension.keys }
}

function dimensionOf(draft: Draft): { readonly dimension?: Dimension; readonly wrong?: string } {
  if ('text' in draft) {
    const read = parseChoices(draft.id, draft.text)
    return 'wrong' in read ? read : { dimension: { kind: 'setting', name: draft.id, values: [...read.values] } }
  }
  if (draft.keys.length === 0) return { wrong: 'Choose at least one.' }
  const keys = [...draft.keys]
  return { dimension: draft.id === 'orientation' ? { kind: 'orientation', ways: keys } : { kind: draft.id, keys } }
}

const choiceCount = (dimension: Dimension): number =>
  dimension.kind === 'setting' ? dimension.values.length : dimension.kind === 'orientation' ? dimension.ways.length : dimension.keys.length

function unitOf(name: SettingName): string {
  const setting = definitionOf(name)
  return setting.kind === 'number' ? setting.unit : ''
}

function firstText(name: SettingName): string {
  const setting = definitionOf(name)
  if (setting.kind === 'choice') return setting.choices.join(', ')
  const digits = setting.whole ? 0 : 3
  const at = (factor: number): number => Number(Math.max(setting.min, Math.min(setting.max, setting.fallback * factor)).toFixed(digits))
  return setting.fallback === 0 ? `${setting.min}, ${setting.step}` : `${at(0.6)}, ${at(1)}, ${at(1.4)}`
}
