import { type Shelf, setupOf } from '@sable/contract/shelf'
import type { Trials } from '@sable/contract/trials'
import type { Setup } from '@sable/core/setup/resolve'
import type { ReadTrial } from '@sable/core/trials/tally'
import { useMemo } from 'react'
import { useSearchParams } from 'react-router'
import { today } from '../ui/today'

/** Which spool on which machine, which kind of trial, and which print of it: all of it in the address. */
export interface TrialPlaceChoice {
  readonly spool: string
  readonly printer: string
  readonly nozzle: string
  readonly kind: string
  /** A print that was decided on; absent while one is planned. */
  readonly trial: string
}

const names = ['spool', 'printer', 'nozzle', 'kind', 'trial'] as const

export function useTrialPlace(shelf: Shelf): readonly [TrialPlaceChoice, (change: Partial<TrialPlaceChoice>) => void] {
  const [params, setParams] = useSearchParams()
  const of = <T extends { key: string; archived: boolean }>(records: readonly T[], key: string | null): string =>
    (records.find((one) => one.key === key) ?? records.find(({ archived }) => !archived) ?? records[0])?.key ?? ''
  const printer = of(shelf.printers, params.get('printer') ?? 'lugger')
  const place: TrialPlaceChoice = {
    spool: of(shelf.spools, params.get('spool')),
    printer,
    nozzle: of(shelf.nozzles, params.get('nozzle') ?? 'bore-0.4'),
    kind: params.get('kind') ?? '',
    trial: params.get('trial') ?? '',
  }
  return [
    place,
    (change) =>
      setParams(
        (before) => {
          const next = new URLSearchParams(before)
          for (const name of names) {
            const value = { ...place, ...change }[name]
            if (value === '') next.delete(name)
            else next.set(name, value)
          }
          return next
        },
        { replace: true },
      ),
  ]
}

/** What a spool is printed with there: as all its readings make it, and as its records alone say. */
export function useTrialSetup({ spool, printer, nozzle }: Pick<TrialPlaceChoice, 'spool' | 'printer' | 'nozzle'>, shelf: Shelf) {
  return useMemo((): { setup: Setup; plain: Setup } | undefined => {
    const material = shelf.spools.find(({ key }) => key === spool)?.material ?? ''
    const named = { printer, nozzle, material, spool }
    const [setup, plain] = [setupOf(named, shelf, today()), setupOf(named, { ...shelf, evidence: [] }, today())]
    return setup && plain && { setup, plain }
  }, [spool, printer, nozzle, shelf])
}

/** Readings with the trials that they are of. */
export function readTrials({ trials, readings }: Trials): ReadTrial[] {
  const byId = new Map(trials.map((trial) => [trial.id, trial]))
  return readings.flatMap((reading) => {
    const trial = byId.get(reading.trial)
    if (!trial) return []
    const { spec, foretold, printer, nozzle, material, spool } = trial
    const { id, bands, whole, readAt, leftOut } = reading
    return [{ id, bands, whole, readAt, leftOut, spec, foretold, printer, nozzle, material, spool }]
  })
}
