import { type Shelf, type ShelfKind, type ShelfRecords, type shelfKinds, tookOf } from '@sable/contract/shelf'
import { machineUse, nozzleNow } from '@sable/core/log/book'
import type { SettingValues } from '@sable/core/profile/settings'
import { useState } from 'react'
import { Link } from 'react-router'
import { copyName } from '../desk/edits'
import { FaultsOf } from '../faults/FaultsOf'
import { Button } from '../ui/Button'
import { inMoney } from '../ui/currency'
import { EditableText } from '../ui/EditableText'
import { fieldsOf } from './fields'
import { LadderEditor } from './LadderEditor'
import { NozzleFacts } from './NozzleFacts'
import { ProfilePanel } from './ProfilePanel'
import { ReadLimitsDialog } from './ReadLimitsDialog'
import { RecordForm } from './RecordForm'
import { RevisionsSheet } from './RevisionsSheet'
import { SettingsBag } from './SettingsBag'
import { SpoolBook } from './SpoolBook'
import { SpoolPanel } from './SpoolPanel'
import type { ShelfActions } from './shelfStore'
import type { AnyRecord, KeptRecord } from './shelfWriter'

interface Props {
  readonly kind: ShelfKind
  readonly record: KeptRecord
  readonly shelf: Shelf
  readonly actions: ShelfActions
  readonly attempt: (work: () => Promise<unknown>) => Promise<void>
  readonly onGone: () => void
  readonly onCopied: (key: string) => void
}

type Bagged = 'defaults' | 'values'

/** Everything that is known of one record, and what can be done with it. */
export function RecordSheet({ kind, record, shelf, actions, attempt, onGone, onCopied }: Props) {
  const [open, setOpen] = useState<'limits' | 'revisions'>()
  const { starter: _, revision: __, archived, ...plain } = record
  const save = (next: AnyRecord): void => void attempt(() => actions.write(kind, plain as AnyRecord, next))
  const change = (part: object): void => save({ ...plain, ...part } as AnyRecord)
  const bag: Bagged = kind === 'profiles' ? 'values' : 'defaults'
  const bagged = ((plain as Partial<Record<Bagged, SettingValues>>)[bag] ?? {}) as SettingValues
  const ofKind = <Kind extends ShelfKind>(wanted: Kind): ShelfRecords[Kind] | undefined =>
    kind === wanted ? (plain as unknown as ShelfRecords[Kind]) : undefined
  const spool = ofKind('spools')
  const material = ofKind('materials')
  const nozzle = ofKind('nozzles')
  const printer = ofKind('printers')
  const profile = ofKind('profiles')
  return (
    <article aria-label={record.name} className="max-w-[64rem] space-y-5 p-5">
      <header className="flex items-center gap-2 max-lg:flex-wrap">
        <EditableText text={record.name} label="Name" onCommit={(name) => change({ name })} className="text-[17px] font-semibold" />
        {record.starter && (
          <span
            data-hint="It came with the program. Its numbers are assumed until your own replace them."
            className="text-[12px] text-muted"
          >
            starter record, assumed
          </span>
        )}
        <div className="flex-1" />
        {printer && <MachineUse printer={printer.key} shelf={shelf} />}
        {printer && <Button onClick={() => setOpen('limits')}>Read limits …</Button>}
        <Button onClick={() => setOpen('revisions')}>Versions</Button>
        <Button
          onClick={() =>
            void attempt(async () =>
              onCopied(
                await actions.add(kind, {
                  ...plain,
                  name: copyName(
                    record.name,
                    shelf[kind].map(({ name }) => name),
                  ),
                } as AnyRecord),
              ),
            )
          }
        >
          Copy
        </Button>
        {record.starter && <Button onClick={() => void attempt(() => actions.reset(kind, record))}>Reset</Button>}
        <Button onClick={() => void attempt(() => actions.archive(kind, record, !archived))}>{archived ? 'Restore' : 'Archive'}</Button>
        <Button
          tone="danger"
          onClick={() =>
            void attempt(async () => {
              await actions.remove(kind, record)
              onGone()
            })
          }
        >
          Delete
        </Button>
      </header>
      {profile && (
        <ProfilePanel
          key={profile.key}
          profile={profile}
          shelf={shelf}
          onKeep={(next) => void attempt(async () => onCopied(await actions.add('profiles', next)))}
        />
      )}
      {spool && <SpoolPanel spool={spool} shelf={shelf} onChange={save} />}
      {spool && <SpoolBook spool={spool} shelf={shelf} />}
      {nozzle && <NozzleFacts nozzle={nozzleNow(nozzle, tookOf(shelf))} printers={shelf.printers.filter(({ archived: away }) => !away)} />}
      <RecordForm kind={kind} record={plain as AnyRecord} groups={fieldsOf(kind, shelf)} onSave={save} />
      {(spool || material) && (
        <LadderEditor
          points={(spool ?? material)?.ladder ?? []}
          onChange={(ladder) => change({ ladder: ladder.length > 0 ? ladder : undefined })}
        />
      )}
      <section>
        <h2 className="text-[12.5px] font-semibold text-lantern-ink">{kind === 'profiles' ? 'Values' : 'Its own values for settings'}</h2>
        <p className="text-[12px] text-muted">{bagHelp[kind]}</p>
        <SettingsBag values={bagged} onChange={(values) => change({ [bag]: values })} />
      </section>
      {(printer || spool) && (
        <FaultsOf name={record.name} isIts={(of) => (printer ? of.printer === printer.key : of.spool === spool?.key)} />
      )}
      {open === 'limits' && printer && <ReadLimitsDialog printer={printer} onTake={save} onClose={() => setOpen(undefined)} />}
      {open === 'revisions' && (
        <RevisionsSheet kind={kind} record={plain as AnyRecord} others={shelf[kind]} onRestore={save} onClose={() => setOpen(undefined)} />
      )}
    </article>
  )
}

const later = 'nozzle, material, spool and profile come after it and may say otherwise.'
const bagHelp: Readonly<Record<(typeof shelfKinds)[number], string>> = {
  printers: `A column on this printer takes these; ${later}`,
  nozzles: 'Over what follows from its bore; material, spool and profile come after it.',
  materials: 'Over those of printer and nozzle; spool and profile come after it.',
  spools: 'What was found for this very reel, over those of its material; a profile comes after it.',
  profiles: 'Over everything that printer, nozzle, material and spool say.',
}

/** Hours and money of a machine's prints, as the log has them. */
function MachineUse({ printer, shelf }: { printer: string; shelf: Shelf }) {
  const { prints, hours, cost } = machineUse(printer, tookOf(shelf))
  if (prints === 0) return null
  return (
    <Link to={`/log?printer=${printer}`} className="figure text-[12px] text-muted underline decoration-line underline-offset-2">
      {prints} prints, {hours.toFixed(0)} h, {inMoney(`${cost.toFixed(2)} ¤`)}
    </Link>
  )
}
