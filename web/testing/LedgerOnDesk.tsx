import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { MemoryRouter } from 'react-router'
import { Ledger } from '../bench/ledger/Ledger'
import { useDesk } from '../desk/deskStore'
import type { Refusal } from '../ui/Notice'
import { shelf, storedPart } from './lineups'

/** What every screen stands in. */
export const Surroundings = ({ children, at = '/' }: { children: ReactNode; at?: string }) => (
  <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
    <MemoryRouter initialEntries={[at]}>{children}</MemoryRouter>
  </QueryClientProvider>
)

/** The ledger of the lineup that is open on the desk; nothing is computed. */
export function LedgerOnDesk({ onRefusal = () => {} }: { onRefusal?: (refusal: Refusal) => void }) {
  const content = useDesk((desk) => desk.content)
  return content ? <Ledger content={content} part={storedPart} shelf={shelf} onRefusal={onRefusal} /> : null
}
