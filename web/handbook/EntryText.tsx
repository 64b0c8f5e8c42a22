import { definitionOf, describeRange, isSettingName } from '@sable/core/profile/settings'
import { type SchoolId, schoolIds } from '@sable/core/schools/schools'
import type { Entry } from '@sable/handbook/entries'
import ReactMarkdown from 'react-markdown'
import rehypeKatex from 'rehype-katex'
import remarkGfm from 'remark-gfm'
import remarkMath from 'remark-math'
import 'katex/dist/katex.min.css'
import { LiveEffect } from './LiveEffect'
import { SchoolsPanel } from './SchoolsPanel'
import { UsualValues } from './UsualValues'

const isSchool = (name: string): name is SchoolId => (schoolIds as readonly string[]).includes(name)

/** What the handbook says of one thing: its line from the tables, its text, usual values, and what it does, worked out as one looks. */
export function EntryText({ entry: { id, kind, brief, synonyms, text }, onLink }: { entry: Entry; onLink: (id: string) => void }) {
  const name = id.slice(kind.length + 1)
  const setting = kind === 'setting' && isSettingName(name) ? definitionOf(name) : undefined
  return (
    <div className="handbook space-y-3 text-[13px] leading-[1.55]">
      {brief !== '' && <p>{brief}</p>}
      {setting && <p className="figure text-[12px] text-muted">Takes {describeRange(setting)}.</p>}
      <ReactMarkdown
        remarkPlugins={[remarkGfm, remarkMath]}
        rehypePlugins={[rehypeKatex]}
        components={{
          a: ({ href = '', children }) => (
            <button type="button" onClick={() => onLink(href)} className="text-lantern-ink underline decoration-line underline-offset-2">
              {children}
            </button>
          ),
        }}
      >
        {text}
      </ReactMarkdown>
      {id === 'page/schools' && <SchoolsPanel />}
      {kind === 'school' && isSchool(name) && <SchoolsPanel only={name} />}
      {setting && <UsualValues name={name as never} />}
      {setting && <LiveEffect name={name as never} />}
      {synonyms.length > 0 && <p className="text-[12px] text-muted">Also called {synonyms.join(', ')}.</p>}
    </div>
  )
}
