import { type FrozenPrint, type PrintLine, printLineSchema } from '@sable/contract/prints'
import { storedAs } from '@sable/contract/stored/storedAs'
import { storedOutcome } from '@sable/contract/stored/storedPrints'
import { wholeRanges } from '@sable/core/log/foretoldPrint'
import { type PrintOutcome, usedG } from '@sable/core/log/outcome'
import type { PrintRow } from '../../database/models'

const summarySchema = printLineSchema.omit({
  id: true,
  state: true,
  plannedAt: true,
  startedAt: true,
  endedAt: true,
  clockS: true,
  leftOut: true,
})
/** What a line of the day book says beside the columns that it has: made of the print and its outcome, so that a list reads neither. */
const storedSummary = storedAs('line of the day book', summarySchema)

/** Columns that are made of a print and what it came to. */
export function writtenOf(frozen: FrozenPrint, outcome?: PrintOutcome): Pick<PrintRow, 'summary' | 'words' | 'profile' | 'part' | 'spool'> {
  const { printer, nozzle, material, spool, name, profile, part, foretold } = frozen
  const { time, mass } = wholeRanges(foretold)
  const { actualS, atZ, faults = [], note = '' } = outcome ?? {}
  const weighedG = outcome && (outcome.weighedG ?? usedG(outcome))
  return {
    profile,
    part: part ?? null,
    spool: spool ?? null,
    words: [name, profile, note, ...faults.map(({ what }) => what)].join('\n'),
    summary: storedSummary.write({
      printer,
      nozzle,
      material,
      name,
      profile,
      ...(spool === undefined ? {} : { spool }),
      ...(part === undefined ? {} : { part }),
      timeS: foretold.timeS + foretold.startS,
      timeRange: [...time],
      massG: foretold.massG,
      massRange: [...mass],
      cost: foretold.cost,
      heightMm: foretold.heightMm,
      ...(actualS === undefined ? {} : { actualS }),
      ...(weighedG === undefined ? {} : { weighedG }),
      ...(atZ === undefined ? {} : { atZ }),
      faults: faults.map(({ what, atZ: z }) => (z === undefined ? { what } : { what, atZ: z })),
    }),
  }
}

/** Of a row as it is read, which gives its columns one by one only. */
export const asLine = (row: Omit<PrintRow, 'frozen' | 'outcome'>): PrintLine => ({
  ...storedSummary.read(row.summary),
  id: row.id,
  state: printLineSchema.shape.state.parse(row.state),
  leftOut: Boolean(row.leftOut),
  plannedAt: row.plannedAt.toISOString(),
  ...(row.startedAt ? { startedAt: row.startedAt.toISOString() } : {}),
  ...(row.endedAt ? { endedAt: row.endedAt.toISOString() } : {}),
  ...(row.clockS === null ? {} : { clockS: row.clockS }),
})

export const outcomeIn = ({ outcome }: Pick<PrintRow, 'outcome'>) => (outcome === null ? undefined : storedOutcome.read(outcome))
