import { type Entry, entryKinds, kindNames } from '@sable/handbook/entries'
import clsx from 'clsx'
import MiniSearch from 'minisearch'
import { useEffect, useMemo, useRef, useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import { SearchField } from '../ui/SearchField'
import { EntryText } from './EntryText'
import { entries, entryOf } from './pages'

/** Everything that is said of settings, figures, checks, constants, trials, materials and words, found by any word in it. */
export function HandbookScreen() {
  const { kind, name } = useParams()
  const [words, setWords] = useState('')
  const navigate = useNavigate()
  const open = kind === undefined ? entries[0]! : entryOf(`${kind}/${name}`)
  const text = useRef<HTMLElement>(null)
  useEffect(() => {
    document.title = `${open?.title ?? 'Handbook'} · Sable Lantern`
    text.current?.scrollTo({ top: 0 })
  }, [open])
  const found = useMemo(() => (words.trim() === '' ? undefined : search(words)), [words])
  return (
    <div className="flex min-h-0 flex-1">
      <nav aria-label="Entries" className="flex w-72 shrink-0 flex-col border-r border-line">
        <header className="space-y-2 border-b border-line p-3">
          <h1 className="text-[15px] font-semibold">Handbook</h1>
          <SearchField label="Find in the handbook" value={words} onChange={setWords} className="w-full" />
        </header>
        <div className="min-h-0 flex-1 overflow-auto pb-4">
          {found ? (
            found.length === 0 ? (
              <p className="p-3 text-[12.5px] text-muted">Nothing has “{words}”.</p>
            ) : (
              <List entries={found} open={open?.id} showKind />
            )
          ) : (
            entryKinds.map((own) => {
              const of = entries.filter((entry) => entry.kind === own)
              return (
                <details key={own} open={own === 'page' || own === open?.kind}>
                  <summary className="min-h-7 cursor-pointer px-3 pt-2 text-[12.5px] font-semibold text-lantern-ink">
                    {kindNames[own]} <span className="figure ml-1 text-[12px] font-normal text-muted">{of.length}</span>
                  </summary>
                  <List entries={of} open={open?.id} />
                </details>
              )
            })
          )}
        </div>
      </nav>
      <article ref={text} aria-label={open?.title ?? 'Handbook'} className="min-w-0 flex-1 overflow-auto px-8 py-6">
        {open ? (
          <div className="max-w-[44rem]">
            <p className="text-[12px] text-muted">{[kindNames[open.kind], open.group].filter((part) => part !== '').join(' · ')}</p>
            <h2 className="mb-3 text-[20px] font-semibold">{open.title}</h2>
            <EntryText entry={open} onLink={(id) => void navigate(`/handbook/${id}`)} />
          </div>
        ) : (
          <p className="text-muted">The handbook has no such entry.</p>
        )}
      </article>
    </div>
  )
}

function List({ entries: own, open, showKind = false }: { entries: readonly Entry[]; open: string | undefined; showKind?: boolean }) {
  return (
    <ul>
      {own.map((entry, i) => (
        <li key={entry.id}>
          {!showKind && entry.group !== '' && entry.group !== own[i - 1]?.group && (
            <p className="px-3 pt-1.5 text-[12px] text-muted">{entry.group}</p>
          )}
          <Link
            to={`/handbook/${entry.id}`}
            aria-current={entry.id === open ? 'page' : undefined}
            className={clsx(
              'flex min-h-6 items-baseline gap-2 px-3 py-0.5 text-[12.5px]',
              entry.id === open ? 'bg-raised text-lantern-ink' : 'hover:bg-raised/60',
            )}
          >
            <span className="min-w-0 flex-1 truncate">{entry.title}</span>
            {showKind && <span className="text-[12px] text-muted">{kindNames[entry.kind]}</span>}
          </Link>
        </li>
      ))}
    </ul>
  )
}

let index: MiniSearch<Entry & { readonly also: string }> | undefined

/** Entries in which all words are, or nearly are; those that have them in their names first. */
function search(words: string): Entry[] {
  if (!index) {
    index = new MiniSearch({
      fields: ['title', 'also', 'brief', 'text'],
      searchOptions: { boost: { title: 4, also: 3, brief: 1.5 }, prefix: true, fuzzy: 0.15, combineWith: 'AND' },
    })
    index.addAll(entries.map((entry) => ({ ...entry, also: entry.synonyms.join(' ') })))
  }
  return index.search(words).flatMap(({ id }) => entryOf(String(id)) ?? [])
}
