const KEY = 'sable.lastLineup'

/** The lineup that this browser had open last. */
export const lastLineup = {
  get: (): string | null => localStorage.getItem(KEY),
  set: (id: string): void => localStorage.setItem(KEY, id),
}
