import type { PlacedReading } from '@sable/contract/trials'
import { faults } from '@sable/core/faults/faults'
import type { CaseStore } from './caseStore'

/** What cases that were closed teach, where it belongs, the oldest first. One that is opened again teaches nothing. */
export const caseEvidence = (cases: Pick<CaseStore, 'list'>) => async (): Promise<PlacedReading[]> =>
  (await cases.list())
    .filter(({ closed, taught = [] }) => closed !== undefined && taught.length > 0)
    .sort((a, b) => a.changedAt.localeCompare(b.changedAt))
    .map(({ id, fault, candidate: { printer, nozzle, material, spool }, partName, taught = [], changedAt }) => ({
      printer,
      nozzle,
      material,
      ...(spool === undefined ? {} : { spool }),
      evidence: taught,
      reading: id,
      from: `case of ${faults[fault].name.toLowerCase()}, ${partName}, ${changedAt.slice(0, 10)}`,
    }))
