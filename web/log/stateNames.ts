import type { PrintState } from '@sable/contract/prints'

/** What became of a print, in a word. */
export const stateNames: Readonly<Record<PrintState, string>> = {
  planned: 'planned',
  running: 'running',
  good: 'good',
  usable: 'usable',
  spoiled: 'spoiled',
  stopped: 'stopped',
}

/** A sign for each, never colour alone. */
export const stateSigns: Readonly<Record<PrintState, { readonly sign: string; readonly tone: string }>> = {
  planned: { sign: '○', tone: 'text-muted' },
  running: { sign: '▸', tone: 'text-lantern-ink' },
  good: { sign: '●', tone: 'text-better' },
  usable: { sign: '◐', tone: 'text-ink' },
  spoiled: { sign: '✕', tone: 'text-worse' },
  stopped: { sign: '■', tone: 'text-muted' },
}
