import type { Plate } from '@sable/contract/plate'
import { storedPlate } from '@sable/contract/stored/storedPlates'
import type { Models } from '../../database/models'
import { createKeptStore } from '../kept/keptStore'

/** Plates: columns of lineups that share a bed. */
export const createPlateStore = (models: Models) => createKeptStore<Plate>(models.plates, 'plate', storedPlate)

export type PlateStore = ReturnType<typeof createPlateStore>
