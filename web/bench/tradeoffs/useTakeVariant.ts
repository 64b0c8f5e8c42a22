import { MOST_CANDIDATES } from '@sable/contract/lineup'
import type { SearchSpec } from '@sable/contract/search'
import { startOf } from '@sable/core/search/space'
import { useNavigate, useParams } from 'react-router'
import { useBench } from '../../desk/bench'
import { edit } from '../../desk/deskStore'
import { addCandidate, nextName, setPlacement, setPurpose } from '../../desk/edits'
import type { Refusal } from '../../ui/Notice'
import type { Point } from './plot'

/** Makes a variant a column of the ledger, and turns the part where the variant does. */
export function useTakeVariant(spec: SearchSpec, onRefusal: (refusal: Refusal) => void): (point: Point) => void {
  const { content } = useBench()
  const navigate = useNavigate()
  const { lineupId } = useParams()
  return ({ variant }) => {
    if (content.candidates.length >= MOST_CANDIDATES) {
      onRefusal({
        where: content.name,
        message: `The ledger holds ${MOST_CANDIDATES} columns at most.`,
        remedy: 'Remove one first.',
      })
      return
    }
    const { base, placement, purpose } = startOf(spec, spec.dimensions, variant.choices)
    const names = content.candidates.map(({ name }) => name)
    edit((before) => {
      const taken = { ...base, overrides: [...base.overrides], id: crypto.randomUUID(), name: nextName(spec.base.name, names) }
      const added = addCandidate(before, taken)
      const turns = spec.dimensions.some(({ kind }) => kind === 'orientation')
      return turns ? setPurpose(setPlacement(added, placement), purpose) : added
    })
    void navigate(`/bench/${lineupId}/ledger`)
  }
}
