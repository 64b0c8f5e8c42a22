import type { Candidate } from '@sable/contract/lineup'
import type { Purpose } from '@sable/core/physics/strength/purpose'
import type { Prediction } from '@sable/core/pipeline/predict'
import {
  averageEffects,
  inPracticeOrder,
  orders,
  prefixes,
  type Step,
  stepsBetween,
  withoutStraySpool,
  withSteps,
} from '@sable/core/steps/trail'
import { seeded } from '@sable/core/units/seeded'
import { useMemo } from 'react'
import { useBench } from '../../desk/bench'
import { requestFor } from '../../predictions/predictionStore'
import { useAddress } from '../../ui/useAddress'
import { type Measure, measures, type Sense, senseOf } from './measures'
import { type StepWords, stepWords } from './stepWords'
import { predictionOf, useSets } from './useSets'
import { useSolvedSets } from './useSolvedSets'

/** The same random orders whenever they are asked for. */
const SEED = 20260

/** Most orders over which effects are averaged; few steps have no more than that. */
const MOST_ORDERS = 12

/** A trail of single changes from one candidate to another, as far as it is known, and how it can be changed. */
export interface Trail {
  readonly from: Candidate
  readonly to: Candidate
  readonly purpose: Purpose
  readonly measure: Measure
  /** All steps in their order, and those of them that are taken. */
  readonly order: readonly Step[]
  readonly taken: readonly Step[]
  readonly words: ReadonlyMap<string, StepWords>
  /** Before the first step that is taken and after each; none where it is not known yet or refused. */
  readonly predictions: readonly (Prediction | undefined)[]
  readonly values: readonly (number | undefined)[]
  readonly scale: { readonly low: number; readonly high: number }
  /** Whether what stands after so many steps cannot be printed. */
  readonly refusedAfter: (steps: number) => boolean
  readonly averaged: boolean
  /** What each step does on average over some orders, by its id, once all of them are known. */
  readonly average: ReadonlyMap<string, number> | undefined
  readonly averagedOver: number
  /** Which way the whole trail goes. */
  readonly whole: Sense
  /** Whether its loads are solved, and how many of them are as long as not all. */
  readonly solved: { readonly isSolved: boolean; readonly done: number; readonly wanted: number }
  readonly known: { readonly done: number; readonly wanted: number }
  /** The candidate that some of the steps make. */
  readonly madeOf: (ids: ReadonlySet<string>) => Candidate
  readonly requestOf: (ids: ReadonlySet<string>) => ReturnType<typeof requestFor>
  readonly put: (order: readonly string[] | undefined) => void
  readonly leaveOut: (id: string, out: boolean) => void
}

/** The trail between two candidates of the bench; order, measure and what is left out stand in the address. */
export function useTrail(from: Candidate, to: Candidate): Trail {
  const { content, part, shelf } = useBench()
  const { purpose } = content
  const { get, set } = useAddress()
  const measure = measures.find(({ id }) => id === get('by')) ?? measures[0]!
  const off = useMemo(() => new Set((get('off') ?? '').split(',').filter(Boolean)), [get])
  const averaged = get('average') === 'on'

  const steps = useMemo(() => stepsBetween(from, to), [from, to])
  const order = useMemo(() => ordered(steps, get('order')), [steps, get])
  const taken = useMemo(() => order.filter(({ id }) => !off.has(id)), [order, off])
  const sets = useMemo(() => prefixes(taken), [taken])
  const some = useMemo(() => (averaged ? orders(steps, MOST_ORDERS, seeded(SEED)) : []), [averaged, steps])
  const asked = useMemo(() => [...sets, ...some.flatMap(prefixes)], [sets, some])
  const materialOf = (spool: string): string | undefined => shelf.spools.find(({ key }) => key === spool)?.material
  const madeOf = (ids: ReadonlySet<string>): Candidate => {
    const made = withoutStraySpool(withSteps(from, to, steps, ids), materialOf)
    return { ...from, ...made, overrides: [...made.overrides] }
  }
  const requestOf = (ids: ReadonlySet<string>) => requestFor(madeOf(ids), content, part, shelf)
  const ends = JSON.stringify([{ ...from, name: '' }, { ...to, name: '' }, part.contentKey, content.placement, purpose.load, shelf])
  const known = useSets(ends, asked, requestOf)

  const bySections = sets.map((ids) => predictionOf(known, ids))
  const solved = useSolvedSets(ends, purpose, sets, bySections, requestOf)
  const { predictions } = solved
  const value = (p: Prediction | undefined): number | undefined => p && measure.of(p, purpose)
  const values = predictions.map(value)
  const seen = values.filter((one): one is number => one !== undefined)
  const [start, end] = [values[0], values.at(-1)]
  return {
    from,
    to,
    purpose,
    measure,
    order,
    taken,
    words: new Map(steps.map((step) => [step.id, stepWords(step, from, to, shelf)])),
    predictions,
    values,
    scale: { low: Math.min(0, ...seen), high: Math.max(1e-9, ...seen) },
    refusedAfter: (count) => known.of(sets[count]!) !== undefined && !predictions[count],
    averaged,
    solved,
    // Over many orders nothing is solved: beside what is it would not be told alike.
    average:
      averaged &&
      !(solved.isSolved && measure.id === 'strength') &&
      some.every((one) => prefixes(one).every((ids) => known.of(ids)?.prediction))
        ? averageEffects(steps, some, (ids) => value(predictionOf(known, ids)) ?? 0)
        : undefined,
    averagedOver: some.length,
    whole: start !== undefined && end !== undefined ? senseOf(measure, end - start) : 'same',
    known,
    madeOf,
    requestOf,
    put: (ids) => set({ order: ids?.join(',') }),
    leaveOut: (id, out) => set({ off: (out ? [...off, id] : [...off].filter((one) => one !== id)).join(',') }),
  }
}

/** The steps in the order that an address names; without one, as they are practised. What it does not name comes last. */
function ordered(steps: readonly Step[], wanted: string | undefined): Step[] {
  if (!wanted) return inPracticeOrder(steps)
  const ids = wanted.split(',')
  const rank = ({ id }: Step): number => (ids.includes(id) ? ids.indexOf(id) : ids.length)
  return [...steps].sort((a, b) => rank(a) - rank(b))
}
