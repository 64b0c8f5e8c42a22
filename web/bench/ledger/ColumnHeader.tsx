import { useSortable } from '@dnd-kit/sortable'
import { CSS } from '@dnd-kit/utilities'
import type { Candidate } from '@sable/contract/lineup'
import { limitedBy } from '@sable/core/figures/figures'
import { judge, missedWords } from '@sable/core/figures/limits'
import type { FigureId } from '@sable/core/figures/table/figure'
import { readProfileFile, writeProfileFile } from '@sable/core/formats/profileFile'
import type { Purpose } from '@sable/core/physics/strength/purpose'
import { InputError } from '@sable/core/units/errors'
import { useQueryClient } from '@tanstack/react-query'
import { Ellipsis, GripVertical } from 'lucide-react'
import { useNavigate } from 'react-router'
import { asRefusal } from '../../api/asRefusal'
import { useBench } from '../../desk/bench'
import { edit, useDesk } from '../../desk/deskStore'
import { duplicateCandidate, moveCandidate, removeCandidate, renameCandidate, setColumn } from '../../desk/edits'
import { plateFor } from '../../plates/plateFor'
import { useForecasts } from '../../predictions/predictionStore'
import { shelfActions } from '../../shelf/shelfStore'
import { IconButton } from '../../ui/Button'
import { EditableText } from '../../ui/EditableText'
import { Menu, MenuItem, MenuSeparator } from '../../ui/Menu'
import type { Refusal } from '../../ui/Notice'
import { limitWords, shownLimit } from '../part/limits'
import { Working } from '../shell/Working'

interface Props {
  readonly candidate: Candidate
  readonly index: number
  readonly count: number
  readonly purpose: Purpose
  readonly onProgram: (candidate: Candidate) => Promise<void>
  readonly onEverywhere: () => void
  readonly onPrint: () => void
  /** A limit is missed: what would move its figure. */
  readonly onWhy: (figure: FigureId) => void
  readonly onRefusal: (refusal: Refusal) => void
}

/** Name of a column, what can be done with it, and how far its computation is. */
export function ColumnHeader({ candidate, index, count, purpose, onProgram, onEverywhere, onPrint, onWhy, onRefusal }: Props) {
  const { id, name } = candidate
  const { shelf } = useBench()
  const queries = useQueryClient()
  const navigate = useNavigate()
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({ id })
  const ontoPlate = async (): Promise<void> => {
    const lineup = useDesk.getState().lineupId
    try {
      if (lineup !== undefined) await navigate(await plateFor(lineup, id, queries))
    } catch (error) {
      onRefusal(asRefusal(error))
    }
  }
  const copyColumn = async (): Promise<void> => navigator.clipboard.writeText(columnText(candidate))
  const keep = async (): Promise<void> => {
    const { material, values, overrides } = candidate
    const bore = shelf.nozzles.find(({ key }) => key === candidate.nozzle)?.bore
    const bores: [number, number] | undefined = bore === undefined ? undefined : [bore, bore]
    try {
      const key = await shelfActions(queries).add('profiles', {
        name,
        notes: '',
        tags: [],
        family: '',
        materials: [material],
        bores,
        values,
        overrides,
      })
      await navigate(`/shelf/profiles/${key}`)
    } catch (error) {
      onRefusal(asRefusal(error))
    }
  }
  const pasteColumn = async (): Promise<void> => {
    try {
      const from = readColumn(await navigator.clipboard.readText(), candidate)
      edit((content) => setColumn(content, id, from))
    } catch (error) {
      onRefusal(asRefusal(error))
    }
  }
  return (
    <th
      ref={setNodeRef}
      scope="col"
      style={{ transform: CSS.Translate.toString(transform), transition, zIndex: isDragging ? 40 : 20 }}
      className={`sticky top-0 border-b border-l border-line bg-ground p-0 text-left font-normal ${isDragging ? 'opacity-80' : ''}`}
    >
      <div className="flex h-12 items-start gap-0.5 pr-1 pl-0.5">
        <button
          type="button"
          ref={setActivatorNodeRef}
          {...attributes}
          {...listeners}
          aria-label={`Move ${name}: press Space, then arrows`}
          className="inline-flex size-6 cursor-grab items-center justify-center rounded text-strong hover:text-muted"
        >
          <GripVertical className="size-3.5" aria-hidden />
        </button>
        {/* The name has a line of its own: in a narrow column it is all that tells one candidate from another. */}
        <div className="flex min-w-0 flex-1 flex-col items-start">
          <EditableText
            text={name}
            label="Candidate"
            onCommit={(text) => edit((content) => renameCandidate(content, id, text))}
            className="max-w-full text-[13.5px] leading-6 font-semibold"
          />
          <div className="flex h-6 max-w-full items-center gap-1 pl-1">
            <Standing id={id} name={name} purpose={purpose} onWhy={onWhy} />
            <Working id={id} />
          </div>
        </div>
        <Menu
          align="end"
          trigger={
            <IconButton label={`Actions for ${name}`}>
              <Ellipsis className="size-4" />
            </IconButton>
          }
        >
          <MenuItem onSelect={() => edit((content) => duplicateCandidate(content, id, crypto.randomUUID()))}>Duplicate</MenuItem>
          <MenuItem onSelect={() => edit((content) => moveCandidate(content, id, index - 1))} disabled={index === 0}>
            Move left
          </MenuItem>
          <MenuItem onSelect={() => edit((content) => moveCandidate(content, id, index + 1))} disabled={index === count - 1}>
            Move right
          </MenuItem>
          <MenuItem onSelect={() => edit((content) => moveCandidate(content, id, 0))} disabled={index === 0} hint="others compare with it">
            Make first
          </MenuItem>
          <MenuSeparator />
          <MenuItem onSelect={() => void copyColumn()}>Copy column</MenuItem>
          <MenuItem onSelect={() => void pasteColumn()}>Paste column</MenuItem>
          <MenuSeparator />
          <MenuItem onSelect={() => void ontoPlate()} hint="beside other parts">
            Onto a plate
          </MenuItem>
          <MenuItem onSelect={onPrint} hint="into the log">
            Print it …
          </MenuItem>
          <MenuItem onSelect={() => void navigate(`/faults/new?lineup=${useDesk.getState().lineupId}&candidate=${id}`)} hint="a case of it">
            What went wrong …
          </MenuItem>
          <MenuItem onSelect={onEverywhere}>On each printer …</MenuItem>
          <MenuItem onSelect={() => void keep()} hint="on the shelf">
            Keep as a profile
          </MenuItem>
          <MenuItem onSelect={() => void onProgram(candidate)}>Export G-code</MenuItem>
          <MenuSeparator />
          <MenuItem onSelect={() => edit((content) => removeCandidate(content, id))}>Remove</MenuItem>
        </Menu>
      </div>
    </th>
  )
}

/** A column on the clipboard is a profile file, so that it can go into a text or a file as well. */
const columnText = ({ name, printer, nozzle, material, spool, values, overrides }: Candidate): string =>
  JSON.stringify(
    { ...JSON.parse(writeProfileFile({ name, settings: values, printer, material, overrides })), nozzleKey: nozzle, spoolKey: spool },
    null,
    2,
  )

function readColumn(text: string, target: Candidate): Omit<Candidate, 'id' | 'name'> {
  if (!text.trimStart().startsWith('{'))
    throw new InputError('clipboard-no-column', 'The clipboard holds no column.', 'Paste column', 'Copy a column from its menu first.')
  const { settings, printer, material, overrides = [] } = readProfileFile(text, 'Clipboard')
  const { nozzleKey, spoolKey } = JSON.parse(text) as { nozzleKey?: unknown; spoolKey?: unknown }
  return {
    printer: printer ?? target.printer,
    material: material ?? target.material,
    nozzle: typeof nozzleKey === 'string' ? nozzleKey : target.nozzle,
    ...(typeof spoolKey === 'string' ? { spool: spoolKey } : {}),
    values: settings,
    overrides: [...overrides],
  }
}

/** Whether a candidate meets the limits of the part's purpose. */
function Standing({ id, name, purpose, onWhy }: { id: string; name: string; purpose: Purpose; onWhy: (figure: FigureId) => void }) {
  const prediction = useForecasts((all) => (all[id]?.state === 'done' ? all[id].prediction : undefined))
  if (!prediction) return null
  const judged = judge(prediction, purpose)
  if (judged.length === 0) return null
  const missed = missedWords(judged)
  const told = judged
    .map(
      ({ limit, wanted, has, met, known }) =>
        `${met ? '✓' : '✗'} ${limitWords(limit, wanted)}, ${known ? `has ${shownLimit(limit, has)}` : 'not known'}`,
    )
    .join('\n')
  return (
    <span data-hint={told} className={`text-[12px] whitespace-nowrap ${missed.length === 0 ? 'text-better' : 'text-worse'}`}>
      {missed.length === 0
        ? 'meets all'
        : judged
            .filter(({ met }) => !met)
            .map(({ limit }, i) => (
              <button
                key={limit}
                type="button"
                aria-label={`${name} ${missed[i]}: what would meet it`}
                onClick={() => onWhy(limitedBy(limit).id as FigureId)}
                className="mr-1 min-h-6 underline decoration-dotted underline-offset-2"
              >
                {missed[i]}
              </button>
            ))}
    </span>
  )
}
