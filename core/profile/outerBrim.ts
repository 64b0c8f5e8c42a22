import type { Settings } from './settings'

/** How far a brim reaches out around what it holds down, mm; 0 where none lies outside. */
export const outerBrim = ({ brim, brimWidth }: Pick<Settings, 'brim' | 'brimWidth'>): number =>
  brim === 'outer' || brim === 'both' ? brimWidth : 0
