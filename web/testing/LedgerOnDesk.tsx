import type { LineupContent } from '@sable/contract/lineup'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { MemoryRouter } from 'react-router'
import { Ledger } from '../bench/ledger/Ledger'
import { BenchProvider } from '../desk/bench'
import { useDesk } from '../desk/deskStore'
import type { Refusal } from '../ui/Notice'
import { shelf, storedPart } from './lineups'

/** What every screen stands in. */
export const Surroundings = ({ children, at = '/' }: { children: ReactNode; at?: string }) => (
  <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
    <MemoryRouter initialEntries={[at]}>{children}</MemoryRouter>
  </QueryClientProvider>
)

/** A bench on which a lineup stands, with the part and the shelf of tests. */
export const BenchOn = ({
  content,
  onRefusal = () => {},
  children,
}: {
  content: LineupContent
  onRefusal?: (refusal: Refusal) => void
  children: ReactNode
}) => <BenchProvider value={{ content, part: storedPart, shelf, onRefusal }}>{children}</BenchProvider>

/** The ledger of the lineup that is open on the desk; nothing is computed. */
export function LedgerOnDesk({ onRefusal = () => {} }: { onRefusal?: (refusal: Refusal) => void }) {
  const content = useDesk((desk) => desk.content)
  return content ? (
    <BenchOn content={content} onRefusal={onRefusal}>
      <Ledger />
    </BenchOn>
  ) : null
}
