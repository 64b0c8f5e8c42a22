const KEY = 'sable.recent'
const MOST = 6

/** What was chosen last from the palette, in this browser, the newest first. */
export const recent = {
  all: (): readonly string[] => {
    try {
      const stored = JSON.parse(localStorage.getItem(KEY) ?? '[]') as unknown
      return Array.isArray(stored) ? stored.filter((id) => typeof id === 'string') : []
    } catch {
      return []
    }
  },
  add: (id: string): void =>
    localStorage.setItem(KEY, JSON.stringify([id, ...recent.all().filter((other) => other !== id)].slice(0, MOST))),
}
