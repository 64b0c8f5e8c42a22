import { caseSchema, caseWriteSchema } from '@sable/contract/cases'
import type { Router } from 'express'
import { keptRoutes } from '../kept/keptRoutes'
import type { CaseStore } from './caseStore'

const MOST = 2 ** 18

export const caseRoutes = (cases: CaseStore): Router =>
  keptRoutes(cases, { one: caseSchema, write: caseWriteSchema }, ({ case: one }) => one, MOST)
