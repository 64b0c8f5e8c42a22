import type { Candidate } from '@sable/contract/lineup'
import { TableSheet } from '../../ui/TableSheet'
import type { SolvedBand } from './solvedDrawing'

/** What of its limits a solved part reaches height by height when it fails. */
export function BandsSheet({
  bands,
  onClose,
}: {
  bands: readonly { readonly candidate: Candidate; readonly bands: readonly SolvedBand[] }[]
  onClose: () => void
}) {
  const longest = bands.reduce((most, one) => (one.bands.length > most.bands.length ? one : most))
  return (
    <TableSheet
      title={`${bands.map(({ candidate }) => candidate.name).join(' and ')} when it fails, by height`}
      rowCount={longest.bands.length}
      columns={[
        { label: 'Height', unit: 'mm', digits: 2, of: (row) => longest.bands[row]!.z },
        ...bands.flatMap(({ candidate, bands: own }) => {
          const name = bands.length > 1 ? `${candidate.name}: ` : ''
          return [
            { label: `${name}of lines’ limit`, unit: '', of: (row: number) => own[row]?.lines },
            { label: `${name}of layers’ limit`, unit: '', of: (row: number) => own[row]?.layers },
            { label: `${name}moves`, unit: 'mm', of: (row: number) => own[row]?.movedMm },
          ]
        }),
      ]}
      onClose={onClose}
    />
  )
}
