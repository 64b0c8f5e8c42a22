import type { Case } from '@sable/contract/cases'
import { storedCase } from '@sable/contract/stored/storedCases'
import type { Models } from '../../database/models'
import { createKeptStore } from '../kept/keptStore'

/** Faults that are worked, and what came of them. */
export const createCaseStore = (models: Models) => createKeptStore<Case>(models.cases, 'case', storedCase)

export type CaseStore = ReturnType<typeof createCaseStore>
