import { type SetAside, setAsideListSchema } from '@sable/contract/setAside'
import { queryOptions } from '@tanstack/react-query'
import { fetchJson } from './client'

/** What is stored and cannot be read. */
export const setAsideQuery = queryOptions({ queryKey: ['set-aside'], queryFn: () => fetchJson(setAsideListSchema, '/api/set-aside') })
export const removeSetAside = ({ kind, id }: SetAside): Promise<SetAside[]> =>
  fetchJson(setAsideListSchema, `/api/set-aside/${kind}/${encodeURIComponent(id)}`, { method: 'DELETE' })
