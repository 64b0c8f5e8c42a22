import { z } from 'zod'

/** Kinds of stored things. */
export const storedKinds = [
  'part',
  'lineup',
  'search',
  'printer',
  'nozzle',
  'material',
  'spool',
  'profile',
  'trial',
  'reading',
  'print',
  'experiment',
  'case',
  'queue',
  'plate',
] as const
export type StoredKind = (typeof storedKinds)[number]

/** Something stored that this version cannot read: by name, with what is wrong and all that is stored of it. */
export const setAsideSchema = z.object({
  kind: z.enum(storedKinds),
  id: z.string(),
  name: z.string(),
  why: z.string(),
  stored: z.string(),
})
export type SetAside = z.infer<typeof setAsideSchema>
export const setAsideListSchema = z.array(setAsideSchema)
