import { type Plate, type StoredPlate, storedPlateSchema, storedPlatesSchema } from '@sable/contract/plate'
import { queryOptions } from '@tanstack/react-query'
import { asJsonBody, fetchJson } from './client'

const address = (id: string): string => `/api/plates/${encodeURIComponent(id)}`

export const platesQuery = queryOptions({ queryKey: ['plates'], queryFn: () => fetchJson(storedPlatesSchema, '/api/plates') })

export const addPlate = (plate: Plate): Promise<StoredPlate> => fetchJson(storedPlateSchema, '/api/plates', asJsonBody('POST', plate))

export const writePlate = (id: string, revision: number, plate: Plate): Promise<StoredPlate[]> =>
  fetchJson(storedPlatesSchema, address(id), asJsonBody('PUT', { revision, plate }))

export const removePlate = (id: string): Promise<StoredPlate[]> => fetchJson(storedPlatesSchema, address(id), { method: 'DELETE' })
