import type { Candidate } from '@sable/contract/lineup'
import { type Shelf, setupOf } from '@sable/contract/shelf'
import { definitionOf } from '@sable/core/profile/settings'
import { resolveSettings } from '@sable/core/setup/resolve'
import type { Step } from '@sable/core/steps/trail'
import { formatValue } from '../ledger/rows'

/** A step as a person says it: what, from, to. */
export interface StepWords {
  readonly what: string
  readonly from: string
  readonly to: string
  readonly unit: string
}

/** Names every step between two candidates; a value that comes from the shelf is told as what the shelf says. */
export function stepWords(step: Step, from: Candidate, to: Candidate, shelf: Shelf): StepWords {
  const nameOf = (records: readonly { readonly key: string; readonly name: string }[], key: string | undefined): string =>
    records.find((record) => record.key === key)?.name ?? 'none'
  switch (step.kind) {
    case 'setup': {
      const records = { printer: shelf.printers, nozzle: shelf.nozzles, material: shelf.materials }[step.field]
      return { what: step.field, from: nameOf(records, step.from), to: nameOf(records, step.to), unit: '' }
    }
    case 'spool':
      return { what: 'spool', from: nameOf(shelf.spools, step.from), to: nameOf(shelf.spools, step.to), unit: '' }
    case 'overrides':
      return { what: 'overrides', from: String(from.overrides.length), to: String(to.overrides.length), unit: '' }
    case 'value': {
      const setting = definitionOf(step.name)
      const shown = (candidate: Candidate): string => {
        const setup = setupOf(candidate, shelf)
        return setup ? formatValue(setting, resolveSettings(setup, candidate.values).settings[step.name]) : '–'
      }
      return {
        what: setting.label.toLowerCase(),
        from: shown(from),
        to: shown(to),
        unit: setting.kind === 'number' ? setting.unit : '',
      }
    }
  }
}
