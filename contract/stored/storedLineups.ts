import { placementSchema } from '@sable/core/mesh/place'
import { purposeSchema } from '@sable/core/physics/strength/purpose'
import { overridesSchema } from '@sable/core/profile/overrides'
import { settingValuesSchema } from '@sable/core/profile/settings'
import { lineupWriteSchema } from '../lineup'
import { storedAs } from './storedAs'
import { candidatesOverride, purposeHasCases } from './upgrades'

export const storedPlacement = storedAs('placement', placementSchema)
export const storedPurpose = storedAs('purpose', purposeSchema, [purposeHasCases])
export const storedValues = storedAs('profile', settingValuesSchema)
export const storedOverrides = storedAs('list of overrides', overridesSchema)

/** What waits in a browser for the server. */
export const storedWrite = storedAs('unsaved lineup', lineupWriteSchema, [candidatesOverride])
