import type { Cause } from './spec/cause'
import type { Fault } from './spec/fault'
import { bedCauses } from './table/causes/bed'
import { feedingCauses } from './table/causes/feeding'
import { filamentCauses } from './table/causes/filament'
import { frameCauses } from './table/causes/frame'
import { heatCauses } from './table/causes/heat'
import { pathCauses } from './table/causes/paths'
import { stiffnessCauses } from './table/causes/stiffness'
import { supportCauses } from './table/causes/supports'
import { faultTable } from './table/faults'

export type FaultId = (typeof faultTable)[number]['id']
export const faultIds = faultTable.map(({ id }) => id)
export const isFaultId = (text: string): text is FaultId => (faultIds as readonly string[]).includes(text)

export const faults: Readonly<Record<FaultId, Fault>> = Object.fromEntries(faultTable.map((fault) => [fault.id, fault])) as never

const all = [
  ...filamentCauses,
  ...heatCauses,
  ...feedingCauses,
  ...pathCauses,
  ...stiffnessCauses,
  ...frameCauses,
  ...bedCauses,
  ...supportCauses,
]
export const causes: ReadonlyMap<Cause['id'], Cause> = new Map(all.map((cause) => [cause.id, cause]))

/** Whether a cause is the filament's own, whatever machine it is on. */
export const isOfFilament = (id: Cause['id']): boolean => filamentCauses.some((cause) => cause.id === id)

/** Causes of a fault, in the order of practice. */
export const causesOf = (fault: Fault): readonly Cause[] => fault.causes.map((id) => causes.get(id)!)
