import { spoolToUseUp, sufficiency } from '../shelf/spool'
import type { Rule } from './check'

/** What is on the shelf for it. */
export const spoolChecks: readonly Rule[] = [
  {
    id: 'filament-short',
    severity: 'stop',
    find: ({ setup: { spool, stock }, massG }) => {
      if (!spool || !stock) return
      const { grams, doubtG } = stock.remaining
      const state = sufficiency(stock.remaining, massG)
      if (state === 'enough') return
      return {
        severity: state === 'short' ? 'stop' : 'caution',
        evidence: `${massG.toFixed(0)} g are needed; ${spool.name} holds ${grams.toFixed(0)} ± ${Math.max(1, doubtG).toFixed(0)} g.`,
        means: state === 'short' ? 'It runs out on the way.' : 'It may run out on the way.',
        todo: 'Weigh it, or choose another spool.',
      }
    },
  },
  {
    id: 'spool-likely-wet',
    severity: 'caution',
    find: ({ setup: { spool, stock } }) => {
      if (!spool || !stock?.wet) return
      const { days } = stock
      return {
        evidence: days === undefined ? `${spool.name} was never dried here.` : `${spool.name} was dried ${days} days ago.`,
        means: 'Wet filament strings and foams whatever the settings.',
        todo: 'Dry it before any test. Never in a kitchen oven that cooks food.',
      }
    },
  },
  {
    id: 'found-with-another-nozzle',
    severity: 'note',
    find: ({ setup: { spool, nozzle } }) => {
      if (!spool?.foundWith || spool.foundWith === nozzle.key) return
      if (Object.keys(spool.defaults).length === 0 && !spool.ladder?.length) return
      // CP-N10, common practice.
      return {
        evidence: `The values of ${spool.name} were found with another nozzle than ${nozzle.name}.`,
        means: 'They may not hold: another bore, body or length melts and presses differently.',
        todo: 'Try again, in this order: temperature, flow, retraction, first layer.',
      }
    },
  },
  {
    id: 'spool-unweighed',
    of: { school: 'S10', silentTo: 'window' },
    severity: 'note',
    find: ({ setup: { spool, stock }, massG }) =>
      !spool || stock?.remaining.from !== 'label' || massG < 0.3 * spool.netG
        ? undefined
        : {
            evidence: `${massG.toFixed(0)} g are needed, and ${spool.name} was never weighed.`,
            means: 'What is left on it is only what its label says.',
            todo: 'Put it on a scale.',
          },
  },
  {
    id: 'spool-to-use-up',
    severity: 'note',
    find: ({ setup: { spool, stock }, massG }) => {
      if (!stock) return
      const smallest = spoolToUseUp(stock.others, massG)
      if (!smallest || (spool && smallest.remaining.grams >= stock.remaining.grams)) return
      const { key, name, material, remaining } = smallest
      return {
        evidence: `${name} holds ${remaining.grams.toFixed(0)} g of the same material, and ${massG.toFixed(0)} g are needed.`,
        means: 'It is the least that is surely enough.',
        todo: 'Use it up.',
        fix: { spool: { key, name, material } },
      }
    },
  },
]
