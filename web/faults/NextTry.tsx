import type { Case } from '@sable/contract/cases'
import type { CaseTry } from '@sable/core/faults/case'
import type { Next } from '@sable/core/faults/next'
import type { Scene } from '@sable/core/faults/spec/scene'
import { compareRow } from '@sable/core/figures/compareRow'
import { figureRows } from '@sable/core/figures/figures'
import { definitionOf, type SettingName, type SettingValues } from '@sable/core/profile/settings'
import { formatDuration } from '@sable/core/units/format'
import { useQueryClient } from '@tanstack/react-query'
import clsx from 'clsx'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { asRefusal } from '../api/asRefusal'
import { fetchLineup, lineupsQuery, writeLineup } from '../api/lineups'
import { formatValue } from '../bench/ledger/rows'
import type { PredictRequest } from '../predictions/worker/request'
import { trialAddress } from '../trials/trialAddress'
import { Button } from '../ui/Button'
import { inMoney } from '../ui/currency'
import { Notice, type Refusal } from '../ui/Notice'
import { inSentence } from './inSentence'
import { useChanged } from './useScene'

/** More than these are not offered at once. */
const OTHERS = 3

interface Props {
  readonly one: Case
  readonly nexts: readonly Next[]
  readonly scene: Scene
  readonly request: PredictRequest
  /** A try has not been told of yet. */
  readonly waiting: boolean
  readonly onTry: (made: CaseTry) => void
}

/** The one next thing to try, with what else it changes; what could be tried instead stands small below it. */
export function NextTry({ one, nexts, scene, request, waiting, onTry }: Props) {
  const [chosen, setChosen] = useState<string>()
  const next = nexts.find(({ remedy }) => remedy.words === chosen) ?? nexts[0]
  if (!next)
    return (
      <p className="text-muted">Nothing is left to try that was not ruled out. Take an answer back, or look at what else it could be.</p>
    )
  const { cause, remedy, values, minutes, grams } = next
  const others = nexts.filter((other) => other !== next).slice(0, OTHERS)
  return (
    <section aria-label="Next" className="rounded-md border border-lantern/60 bg-raised p-3">
      <div className="flex flex-wrap items-center gap-3">
        <div className="min-w-60 flex-1">
          <p className="text-[14px] font-semibold">{remedy.words}</p>
          <p className="text-muted">
            for: {inSentence(cause.name)}, about {formatDuration(60 * Math.round(minutes))} and {Math.round(grams)} g
          </p>
        </div>
        {values && one.lineup !== undefined && <AsColumn one={one} lineup={one.lineup} values={values} words={remedy.words} />}
        {remedy.trial && (
          <Link
            to={trialAddress(remedy.trial, one.candidate)}
            className="inline-flex h-7 items-center rounded-md border border-line px-2.5 text-[12px] font-medium hover:border-strong"
          >
            The trial
          </Link>
        )}
        <Button
          tone="main"
          disabled={waiting}
          onClick={() =>
            onTry({
              cause: cause.id,
              words: remedy.words,
              ...(values ? { change: values, was: wasOf(scene, values) } : {}),
              times: 1,
              mixed: false,
            })
          }
        >
          I try this
        </Button>
      </div>
      {waiting && <p className="mt-1 text-[12px] text-muted">One thing at a time: tell first what came of the last try.</p>}
      {remedy.caution !== undefined && <p className="mt-2 border-l-2 border-worse pl-2 text-worse">{remedy.caution}</p>}
      {values && <SideEffects scene={scene} request={request} values={values} purpose={one.purpose} />}
      {others.length > 0 && (
        <p className="mt-2 flex flex-wrap items-center gap-2 text-[12px] text-muted">
          or
          {others.map((other) => (
            <button
              key={`${other.cause.id} ${other.remedy.words}`}
              type="button"
              onClick={() => setChosen(other.remedy.words)}
              className="min-h-6 underline decoration-line underline-offset-2 hover:text-ink"
            >
              {other.remedy.words}
            </button>
          ))}
        </p>
      )}
    </section>
  )
}

const wasOf = ({ settings }: Scene, values: SettingValues): SettingValues =>
  Object.fromEntries(Object.keys(values).map((name) => [name, settings[name as SettingName]]))

/** What is changed, and what that does to every figure that moves. */
function SideEffects({
  scene,
  request,
  values,
  purpose,
}: {
  scene: Scene
  request: PredictRequest
  values: SettingValues
  purpose: Case['purpose']
}) {
  const [changed] = useState(() => new Map<string, PredictRequest>())
  const key = JSON.stringify(values)
  if (!changed.has(key)) changed.set(key, { ...request, values: { ...request.values, ...values } })
  const after = useChanged(changed.get(key))
  const moved = after
    ? figureRows.flatMap((row) => {
        const [was, is] = [row.of(scene.prediction, purpose), row.of(after, purpose)]
        const [, standing] = compareRow([was.value, is.value], row)
        return standing && standing.change !== '' && standing.change !== undefined ? [{ row, was, is, standing }] : []
      })
    : []
  return (
    <div className="mt-2 flex flex-wrap gap-x-6 gap-y-1">
      {(Object.entries(values) as [SettingName, number | string][]).map(([name, value]) => (
        <span key={name}>
          {definitionOf(name).label}: <span className="figure">{formatValue(definitionOf(name), scene.settings[name])}</span> →{' '}
          <span className="figure text-lantern-ink">{formatValue(definitionOf(name), value)}</span>
        </span>
      ))}
      {!after && (
        <span role="status" className="text-muted">
          What else it does is computed …
        </span>
      )}
      {moved.map(({ row, is, standing }) => (
        <span key={row.id} className="text-muted">
          {row.label} <span className="figure text-ink">{is.text}</span> {inMoney(is.unit)}{' '}
          <span
            className={clsx('figure text-[12px]', standing.sense === 'better' && 'text-better', standing.sense === 'worse' && 'text-worse')}
          >
            {standing.change}
          </span>
        </span>
      ))}
      {after && moved.length === 0 && <span className="text-muted">No figure moves.</span>}
    </div>
  )
}

/** Puts the failing candidate, with the one change, beside the others of its lineup. */
function AsColumn({ one, lineup, values, words }: { one: Case; lineup: string; values: SettingValues; words: string }) {
  const queries = useQueryClient()
  const navigate = useNavigate()
  const [refusal, setRefusal] = useState<Refusal>()
  const add = async (): Promise<void> => {
    try {
      const { id, demo: _, updatedAt: __, ...content } = await fetchLineup(lineup)
      const candidate = {
        ...one.candidate,
        id: crypto.randomUUID(),
        name: `${one.candidate.name}: ${words}`.slice(0, 80),
        values: { ...one.candidate.values, ...values },
      }
      await writeLineup(id, { ...content, candidates: [...content.candidates, candidate] })
      await queries.invalidateQueries(lineupsQuery)
      await navigate(`/bench/${id}/ledger`)
    } catch (error) {
      setRefusal(asRefusal(error))
    }
  }
  return (
    <>
      {refusal && <Notice refusal={refusal} onClose={() => setRefusal(undefined)} />}
      <Button onClick={() => void add()}>As a column</Button>
    </>
  )
}
