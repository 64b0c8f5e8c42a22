import type { TowerKind } from '@sable/contract/trainer'

interface Score {
  readonly seed: number
  readonly kind: TowerKind
  readonly off: number
}

const KEY = 'sable.trainer'
const MOST = 200

/** How far off readings of drawn towers were, in this browser only. */
export const scores = {
  all: (): readonly Score[] => {
    try {
      return JSON.parse(localStorage.getItem(KEY) ?? '[]') as Score[]
    } catch {
      return []
    }
  },
  add: (score: Score): void => localStorage.setItem(KEY, JSON.stringify([...scores.all(), score].slice(-MOST))),
  /** The seed of a tower that was not read yet. */
  next: (): number => Math.max(0, ...scores.all().map(({ seed }) => seed)) + 1,
}
