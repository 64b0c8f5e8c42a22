import type { Case } from '@sable/contract/cases'
import type { Print } from '@sable/contract/prints'
import { noPurpose } from '@sable/core/physics/strength/purpose'
import { useQuery } from '@tanstack/react-query'
import { fetchLineup, lineupsQuery } from '../api/lineups'
import { partsQuery } from '../api/parts'
import { printQuery } from '../api/prints'

/** What failed, as a case keeps it. */
export type Failed = Pick<Case, 'candidate' | 'partId' | 'partName' | 'placement' | 'purpose' | 'lineup' | 'print'>

/** A column of a lineup that failed: the first of the first one where nothing was said. */
export function useFailedColumn(lineupId: string | undefined, candidateId: string | undefined) {
  const lineups = useQuery(lineupsQuery)
  const parts = useQuery(partsQuery)
  const chosen = lineupId ?? lineups.data?.[0]?.id
  const { data } = useQuery({
    queryKey: ['failed lineup', chosen],
    queryFn: () => fetchLineup(chosen!),
    enabled: chosen !== undefined,
  })
  const candidates = data?.candidates ?? []
  const candidate = candidates.find(({ id }) => id === candidateId) ?? candidates[0]
  const part = parts.data?.find(({ id }) => id === data?.partId)
  const failed: Failed | undefined =
    data && candidate && part
      ? { candidate, partId: data.partId, partName: part.name, placement: data.placement, purpose: data.purpose, lineup: data.id }
      : undefined
  return { lineups: lineups.data, chosen, candidates, candidate, failed }
}

/** A print of the log that failed: what it was begun from, whatever its column says by now. */
export function useFailedPrint(id: string | undefined): { readonly print?: Print; readonly failed?: Failed } {
  const { data } = useQuery({ ...printQuery(id ?? ''), enabled: id !== undefined })
  const parts = useQuery(partsQuery)
  if (!data) return {}
  const { frozen, line } = data
  const part = parts.data?.find((one) => one.id === frozen.part)
  if (!part) return { print: data }
  const { printer, nozzle, material, spool, values, overrides, placement, lineup } = frozen
  const candidate = {
    id: crypto.randomUUID(),
    name: (line.profile || line.name).slice(0, 80),
    printer,
    nozzle,
    material,
    ...(spool === undefined ? {} : { spool }),
    values,
    overrides,
  }
  const failed = { candidate, partId: part.id, partName: part.name, placement, purpose: noPurpose, print: line.id }
  return { print: data, failed: { ...failed, ...(lineup === undefined ? {} : { lineup }) } }
}
