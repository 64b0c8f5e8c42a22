import { type ConstantId, constantIds, constantOf, medians, valueIn } from '../constants/constants'
import { EIGHTY } from '../learning/coverage'
import { flowModel } from '../physics/melt/flowLimit'
import { knownOf } from '../setup/knownSetup'
import { learned, type PlacedEvidence } from '../setup/learned'
import { resolveSettings, type Setup } from '../setup/resolve'

/** A constant as it is known: its value, one standard deviation on its scale, and what it rests on. */
export interface Standing {
  readonly value: number
  readonly spread: number
  readonly basis: 'measured' | 'calculated' | 'assumed'
}

export interface ConstantChange {
  readonly id: ConstantId
  readonly label: string
  readonly unit: string
  readonly before: Standing
  readonly after: Standing
}

export const standingOf = (setup: Setup, id: ConstantId): Standing => {
  const { spread, basis } = knownOf(setup, id)
  // What a ladder tells is a flow, not the factor that it leaves to doubt.
  if (id === 'melt.ladder') return failingFlow(setup)
  return { value: setup.known?.[id]?.value ?? valueIn(setup.constants ?? medians, id), spread, basis }
}

/** Flow at which it fails at the temperature that it is printed at: read, or assumed by its class. */
function failingFlow(setup: Setup): Standing {
  const { failsAt, basis } = flowModel(setup, resolveSettings(setup, {}).settings.nozzleTemperature, setup.constants ?? medians)
  const { spread } = basis === 'measured' ? knownOf(setup, 'melt.ladder') : constantOf('melt.flowLong')
  return { value: failsAt, spread, basis }
}

/**
 * What evidence makes of the constants of a setup, beside what they are without it.
 *
 * @param setup as its records say, nothing learned yet
 */
export function changesBy(setup: Setup, before: readonly PlacedEvidence[], more: PlacedEvidence): ConstantChange[] {
  const [was, is] = [learned(setup, before), learned(setup, [...before, more])]
  return constantIds.flatMap((id) => {
    const [old, fresh] = [standingOf(was, id), standingOf(is, id)]
    const { label } = constantOf(id)
    const unit = id === 'melt.ladder' ? 'mm³/s' : constantOf(id).unit
    return Math.abs(old.value - fresh.value) < 1e-12 && Math.abs(old.spread - fresh.spread) < 1e-12
      ? []
      : [{ id, label, unit, before: old, after: fresh }]
  })
}

/** Smallest and largest value that a constant may well have: its 80 % range. */
export function rangeOfStanding(id: ConstantId, { value, spread }: Standing): readonly [low: number, high: number] {
  const by = EIGHTY * spread
  return constantOf(id).scale === 'log' ? [value * Math.exp(-by), value * Math.exp(by)] : [value - by, value + by]
}
