import type { Candidate } from '@sable/contract/lineup'
import type { ReactNode } from 'react'
import { Select } from '../../ui/Select'
import { type Address, useAddress } from '../../ui/useAddress'
import { Working } from './Working'

export interface Pair {
  readonly of: Candidate
  readonly beside: Candidate | undefined
}

/** The one or two candidates that an address looks at; the first one where it names none. */
function pairOf(candidates: readonly Candidate[], { get }: Address): Pair | undefined {
  const of = candidates.find(({ id }) => id === get('of')) ?? candidates[0]
  return of && { of, beside: candidates.find(({ id }) => id === get('beside') && id !== of.id) }
}

/** Which candidate is looked at, and which one beside it. */
export function ChoosePair({ pair, candidates, address }: { pair: Pair; candidates: readonly Candidate[]; address: Address }) {
  const named = candidates.map(({ id, name }) => ({ id, name }))
  return (
    <>
      <Select
        label="Candidate"
        value={pair.of.id}
        of={named}
        onChange={(id) => address.set({ of: id, ...(id === pair.beside?.id ? { beside: undefined } : {}) })}
      />
      {candidates.length > 1 && (
        <Select
          label="Beside"
          value={pair.beside?.id ?? ''}
          of={[{ id: '', name: 'none' }, ...named.filter(({ id }) => id !== pair.of.id)]}
          onChange={(id) => address.set({ beside: id })}
        />
      )}
      {[pair.of, pair.beside].map(
        (one) =>
          one && (
            <span key={one.id} className="relative flex items-center gap-1">
              <Working id={one.id} />
            </span>
          ),
      )}
    </>
  )
}

/** Opens a view of one candidate or two when there is one at all. */
export function WithPair({ candidates, children }: { candidates: readonly Candidate[]; children: (pair: Pair) => ReactNode }) {
  const pair = pairOf(candidates, useAddress())
  if (!pair) return <p className="m-auto max-w-sm p-8 text-center text-muted">There is no candidate yet. Add one on the ledger.</p>
  return children(pair)
}
