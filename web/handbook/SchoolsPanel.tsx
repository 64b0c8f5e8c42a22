import { isChosen, type SchoolId, schoolIds, schools, sideOf } from '@sable/core/schools/schools'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import { toast } from 'sonner'
import { asRefusal } from '../api/asRefusal'
import { shelfQuery } from '../api/shelf'
import { shelfActions } from '../shelf/shelfStore'
import { Choices } from '../ui/Choices'
import { Select } from '../ui/Select'

/** All printers of the shelf at once. */
const ALL = '*'

/** Sides are chosen here and nowhere else: for all printers, or for one. What follows says whose it is. */
export function SchoolsPanel({ only }: { only?: SchoolId }) {
  const { data: shelf } = useQuery(shelfQuery)
  const queries = useQueryClient()
  const [printer, setPrinter] = useState(ALL)
  if (!shelf) return null
  const printers = shelf.printers.filter(({ archived }) => !archived)
  const own = printer === ALL ? printers : printers.filter(({ key }) => key === printer)
  const choose = async (id: SchoolId, side: string | undefined): Promise<void> => {
    try {
      for (const record of own) {
        const { starter: _, archived: __, revision: ___, ...said } = record
        const { [id]: ____, ...others } = record.schools ?? {}
        const next = side === undefined ? others : { ...others, [id]: side }
        await shelfActions(queries).write('printers', said, { ...said, schools: next })
      }
    } catch (error) {
      toast(asRefusal(error).message)
    }
  }
  return (
    <section aria-label="Your schools" className="space-y-2">
      <Select
        label="For"
        name="Printer"
        value={printer}
        of={[{ id: ALL, name: 'all printers' }, ...printers.map(({ key, name }) => ({ id: key, name }))]}
        onChange={setPrinter}
      />
      <ul className="divide-y divide-line/60 border-y border-line">
        {(only ? [only] : schoolIds).map((id) => {
          const chosen = own.map((record) => (isChosen(id, record.schools) ? sideOf(id, record.schools).id : undefined))
          const same = chosen.every((side) => side === chosen[0])
          return (
            <li key={id} className="py-2">
              <p className="mb-1 flex items-baseline gap-2">
                <Link to={`/handbook/school/${id}`} className="figure text-[12px] text-muted underline decoration-line underline-offset-2">
                  {id}
                </Link>
                <span className="font-semibold">{schools[id].question}</span>
                {!same && <span className="text-[12px] text-muted">printers differ</span>}
                {same && chosen[0] === undefined && <span className="text-[12px] text-muted">not chosen: {schools[id].sides[0].name}</span>}
              </p>
              <Choices
                label=""
                name={schools[id].question}
                of={schools[id].sides.map(({ id: side, name }) => ({ id: side, name }))}
                value={same ? chosen[0] : undefined}
                onChange={(side) => void choose(id, side)}
              />
            </li>
          )
        })}
      </ul>
      <p className="text-[12px] text-muted">
        A side is a default of the printer: a reel’s own numbers, a profile and an override go before it. Pressing a chosen side lets go of
        it.
      </p>
    </section>
  )
}
