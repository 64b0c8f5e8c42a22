import { type Kept, type Shelf, type ShelfKind, type ShelfRecords, spoolsNow, tookOf } from '@sable/contract/shelf'
import { nozzleNow, spoolNow } from '@sable/core/log/book'
import { wearOf } from '@sable/core/shelf/nozzle'
import { daysSinceDrying, type Remaining, remainingOf, type Spool } from '@sable/core/shelf/spool'
import { inWords } from '@sable/core/units/format'
import { today } from '../ui/today'
import type { KeptRecord } from './shelfWriter'

const USUAL_DENSITY = 1.24
const USUAL_DIAMETER = 1.75

/** What is left on a spool, with the density of its material. */
export function remainingOn(spool: Spool, shelf: Pick<Shelf, 'materials' | 'spools'> & Partial<Pick<Shelf, 'uses'>>): Remaining {
  const material = shelf.materials.find(({ key }) => key === spool.material)
  const all = spoolsNow(shelf)
  // What was printed since it was weighed last is gone too.
  return remainingOf(spoolNow(spool, tookOf(shelf)), all, material?.density ?? USUAL_DENSITY, USUAL_DIAMETER)
}

export const dryWords = (spool: Spool, on: string): string => {
  const days = daysSinceDrying(spool, on)
  if (days === undefined) return 'never dried'
  return days === 0 ? 'dried today' : `dried ${days} ${days === 1 ? 'day' : 'days'} ago`
}

const summaries: { readonly [Kind in ShelfKind]: (record: ShelfRecords[Kind] & Kept, shelf: Shelf) => string } = {
  printers: ({ kinematics, buildVolume }) => `${inWords(kinematics)} · ${buildVolume.join(' × ')} mm`,
  nozzles: (record, shelf) => {
    const nozzle = nozzleNow(record, tookOf(shelf))
    const wear = wearOf(nozzle)
    return `${nozzle.bore} mm · ${inWords(nozzle.body ?? 'brass')}${wear > 0.005 ? ` · ${Math.round(100 * wear)} % worn` : ''}`
  },
  materials: ({ density, nozzleRange }) => `${density} g/cm³ · ${nozzleRange.join('–')} °C`,
  spools: (spool, shelf) =>
    spool.empty ? 'used up' : `${remainingOn(spool, shelf).grams.toFixed(0)} g left · ${dryWords(spool, today())}`,
  profiles: ({ family, tags, values, materials, bores }, shelf) => {
    const count = Object.keys(values).length
    const made = materials.map((key) => shelf.materials.find((one) => one.key === key)?.name ?? key)
    const bore = bores && (bores[0] === bores[1] ? `${bores[0]} mm` : `${bores[0]}–${bores[1]} mm`)
    return [
      ...(family === '' ? [] : [family]),
      ...made,
      ...(bore ? [bore] : []),
      `${count} ${count === 1 ? 'value' : 'values'}`,
      ...tags,
    ].join(' · ')
  },
}

/** One line under the name of a record. */
export const summaryOf = (kind: ShelfKind, record: KeptRecord, shelf: Shelf): string =>
  (summaries[kind] as (record: KeptRecord, shelf: Shelf) => string)(record, shelf)
