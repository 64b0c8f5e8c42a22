import { noPurpose, type Purpose, purposeSchema } from '@sable/core/physics/strength/purpose'

const KEY = 'sable.purposes'
/** Of so many parts, those that were told of last. */
const MOST = 200

const all = (): Record<string, unknown> => {
  try {
    const stored = JSON.parse(localStorage.getItem(KEY) ?? '{}') as unknown
    return typeof stored === 'object' && stored !== null ? (stored as Record<string, unknown>) : {}
  } catch {
    return {}
  }
}

/** What parts are for, as it was said last in this browser: a purpose follows its part from lineup to lineup. */
export const purposes = {
  of: (partId: string): Purpose => purposeSchema.safeParse(all()[partId]).data ?? noPurpose,
  keep(partId: string, purpose: Purpose): void {
    const { [partId]: _, ...others } = all()
    localStorage.setItem(KEY, JSON.stringify(Object.fromEntries([...Object.entries(others), [partId, purpose]].slice(-MOST))))
  },
}
