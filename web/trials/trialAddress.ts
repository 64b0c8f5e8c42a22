import type { TrialKindId } from '@sable/core/trials/spec/trial'

/** Where a kind of trial stands for what a column is printed with. */
export const trialAddress = (
  kind: TrialKindId,
  { printer, nozzle, spool }: { readonly printer: string; readonly nozzle: string; readonly spool?: string | undefined },
): string => `/trials?${new URLSearchParams({ kind, printer, nozzle, ...(spool === undefined ? {} : { spool }) })}`
