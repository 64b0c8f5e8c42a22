import { type CaseTry, resultWords } from '@sable/core/faults/case'
import { causes } from '@sable/core/faults/faults'
import { tryResults } from '@sable/core/faults/outcomes'
import { X } from 'lucide-react'
import { IconButton } from '../ui/Button'
import { Checkbox } from '../ui/Checkbox'
import { Choices } from '../ui/Choices'
import { NumberField } from '../ui/NumberField'
import { inSentence } from './inSentence'

const results = tryResults.map((id) => ({ id, name: resultWords[id] }))

/** What was tried, in its order, and what came of it. */
export function Tries({ tries, onChange }: { tries: readonly CaseTry[]; onChange: (tries: CaseTry[]) => void }) {
  if (tries.length === 0) return null
  const set = (place: number, more: Partial<CaseTry>): void => onChange(tries.map((one, i) => (i === place ? { ...one, ...more } : one)))
  return (
    <section aria-label="Tried">
      <h3 className="mb-1 font-semibold">Tried</h3>
      <ol>
        {tries.map(({ cause, words, did, times, mixed }, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: tries are told apart by their place alone.
          <li key={i} className="flex flex-wrap items-center gap-x-3 gap-y-1 border-t border-line/60 py-1.5">
            <span className="figure w-4 text-muted">{i + 1}</span>
            <span className="min-w-40 flex-1">
              {words} <span className="block text-[12px] text-muted">for: {inSentence(causes.get(cause)?.name ?? cause)}</span>
            </span>
            <Choices label="" name={`What came of try ${i + 1}`} of={results} value={did} onChange={(id) => set(i, { did: id })} />
            {(did === 'fixed' || did === 'better') && (
              <div className="w-36">
                <NumberField
                  label="prints in a row"
                  width="w-12"
                  value={times}
                  onCommit={(value) => {
                    if (value === undefined || !Number.isInteger(value) || value < 1 || value > 99) return false
                    set(i, { times: value })
                    return true
                  }}
                />
              </div>
            )}
            <Checkbox checked={mixed} onChange={(is) => set(i, { mixed: is })} className="text-[12px] text-muted">
              more was changed
            </Checkbox>
            <IconButton label={`Take try ${i + 1} out`} onClick={() => onChange(tries.filter((_, place) => place !== i))}>
              <X className="size-3.5" />
            </IconButton>
            {mixed && <p className="w-full pl-8 text-[12px] text-worse">More than one thing was changed: it says nothing of this cause.</p>}
          </li>
        ))}
      </ol>
    </section>
  )
}
