import { type Entry, entriesOf } from '@sable/handbook/entries'

const files = import.meta.glob<string>('../../handbook/**/*.md', { query: '?raw', import: 'default', eager: true })

/** The handbook, read once: it comes with the place that shows it, not with the first page. */
export const entries: readonly Entry[] = entriesOf(
  Object.fromEntries(Object.entries(files).map(([path, text]) => [path.replace(/^.*\/handbook\//, '').replace(/\.md$/, ''), text])),
)

export const entryOf = (id: string): Entry | undefined => entries.find((entry) => entry.id === id)
