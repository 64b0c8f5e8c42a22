import type { Print } from '@sable/contract/prints'
import { definitionOf, isSettingName } from '@sable/core/profile/settings'
import { formatDuration } from '@sable/core/units/format'
import { useQuery } from '@tanstack/react-query'
import { useEffect, useMemo } from 'react'
import { useParams } from 'react-router'
import { printPhotoAddress, printQuery } from '../api/prints'
import { shelfQuery } from '../api/shelf'
import { inMoney } from '../ui/currency'
import { dayOf } from '../ui/dates'
import { Loading } from '../ui/Loading'
import { Markdown } from '../ui/Markdown'
import { PaperPage, PaperPlace } from '../ui/PaperPage'
import { HeightStrip } from './HeightStrip'
import { namesOf } from './namesOf'
import { stateNames } from './stateNames'

/** One print on one page, to be put beside the thing: what was foretold, what came out, what it was made with. */
export function PrintSheet() {
  const { printId = '' } = useParams()
  const print = useQuery(printQuery(printId))
  const shelf = useQuery(shelfQuery)
  useEffect(() => {
    document.title = 'Record of a print · Sable Lantern'
  }, [])
  if (!print.data || !shelf.data) return <Loading what="the print" failed={print.failureReason ?? shelf.failureReason} />
  return (
    <PaperPlace label="Record">
      <Page print={print.data} nameOf={namesOf(shelf.data)} />
    </PaperPlace>
  )
}

function Page({ print: { line, frozen, kept, photos }, nameOf }: { print: Print; nameOf: (key: string) => string }) {
  const own = useMemo(() => Object.entries(frozen.resolved).filter(([, { origin }]) => origin === 'profile'), [frozen])
  const { marks = {}, strength, fit, faults = [], note = '' } = kept?.outcome ?? {}
  const said = [
    ...Object.entries(marks).map(([region, mark]) => `${region} ${mark}`),
    ...(strength === undefined ? [] : [`strength by hand ${strength}`]),
    ...(fit === undefined ? [] : [`fit ${fit}`]),
  ]
  return (
    <PaperPage
      title={`${line.name} ${line.profile}`}
      under={[line.printer, line.nozzle, line.material, ...(line.spool === undefined ? [] : [line.spool])].map(nameOf).join(', ')}
      aside={
        <>
          {dayOf(line.startedAt ?? line.plannedAt)}
          <br />
          {stateNames[line.state]}
        </>
      }
      className="p-[12mm] text-[10.5px] leading-[1.4]"
    >
      <table className="mt-2 w-full">
        <thead>
          <tr className="text-left text-[#6a5e52]">
            <th className="font-normal">Figure</th>
            <th className="text-right font-normal">foretold</th>
            <th className="text-right font-normal">80 %</th>
            <th className="text-right font-normal">real</th>
          </tr>
        </thead>
        <tbody className="figure">
          <Row
            label="From start to end"
            foretold={formatDuration(line.timeS)}
            range={line.timeRange.map(formatDuration)}
            real={line.actualS === undefined ? '–' : formatDuration(line.actualS)}
          />
          <Row
            label="Filament"
            foretold={`${line.massG.toFixed(1)} g`}
            range={line.massRange.map((grams) => `${grams.toFixed(1)} g`)}
            real={line.weighedG === undefined ? '–' : `${line.weighedG.toFixed(1)} g`}
          />
          {frozen.foretold.figures.map(({ id, label, text, unit, value, high }) => (
            <Row
              key={id}
              label={label}
              foretold={`${text} ${inMoney(unit)}`}
              range={value > 0 ? [`± ${Math.round(100 * (high / value - 1))} %`] : []}
              real=""
            />
          ))}
        </tbody>
      </table>
      <div className="mt-3 flex gap-6">
        <div className="min-w-0 flex-1 space-y-2">
          {said.length > 0 && <p>{said.join(', ')} (of 5)</p>}
          {faults.length > 0 && (
            <p>Faults: {faults.map(({ what, atZ }) => (atZ === undefined ? what : `${what} at ${atZ} mm`)).join('; ')}</p>
          )}
          {note !== '' && <Markdown text={note} />}
          <h2 className="font-semibold">Settings of the profile</h2>
          <p>
            {own
              .map(([name, { value }]) => {
                const definition = isSettingName(name) ? definitionOf(name) : undefined
                return `${definition?.label ?? name} ${value}${definition?.kind === 'number' && definition.unit !== '' ? ` ${definition.unit}` : ''}`
              })
              .join(', ')}
          </p>
        </div>
        <HeightStrip line={line} />
      </div>
      {frozen.program && (
        <p className="figure mt-2 text-[8.5px] text-[#6a5e52]">
          program {frozen.program.sha256}, {frozen.program.bytes} bytes
        </p>
      )}
      <div className="mt-3 flex flex-wrap gap-2">
        {photos.slice(0, 6).map((id, i) => (
          <img key={id} src={printPhotoAddress(id)} alt={`Photograph ${i + 1}`} className="h-[38mm] rounded object-cover" />
        ))}
      </div>
    </PaperPage>
  )
}

const Row = ({ label, foretold, range, real }: { label: string; foretold: string; range: readonly string[]; real: string }) => (
  <tr className="border-t border-[#ddd5c9]">
    <th className="py-0.5 text-left font-sans font-normal">{label}</th>
    <td className="text-right">{foretold}</td>
    <td className="text-right">{range.join(' to ')}</td>
    <td className="text-right">{real}</td>
  </tr>
)
