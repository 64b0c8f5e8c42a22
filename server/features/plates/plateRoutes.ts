import { plateSchema, plateWriteSchema } from '@sable/contract/plate'
import type { Router } from 'express'
import { keptRoutes } from '../kept/keptRoutes'
import type { PlateStore } from './plateStore'

const MOST = 2 ** 18

export const plateRoutes = (plates: PlateStore): Router =>
  keptRoutes(plates, { one: plateSchema, write: plateWriteSchema }, ({ plate }) => plate, MOST)
