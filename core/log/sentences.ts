import type { Setup } from '../setup/resolve'
import type { Drift } from './drift'

/** Less than this share, or so many seconds, is not worth a word. */
const WORTH_SHARE = 0.02
const WORTH_S = 15

/** What prints by the clock have shown of a machine, each as a sentence. */
export function paceSentences({ printer: { name }, known }: Pick<Setup, 'printer' | 'known'>): string[] {
  const [acceleration, pace, start] = [known?.['print.acceleration'], known?.['print.pace'], known?.['print.start']]
  if (!acceleration || !pace || !start) return []
  const by = (share: number): string => `${Math.round(100 * Math.abs(share))} %`
  return [
    ...(Math.abs(acceleration.value - 1) > WORTH_SHARE
      ? [`${name} accelerates ${by(acceleration.value - 1)} ${acceleration.value < 1 ? 'less' : 'more'} than its record tells.`]
      : []),
    ...(Math.abs(pace.value - 1) > WORTH_SHARE / 2
      ? [`Beyond that it takes ${by(pace.value - 1)} ${pace.value > 1 ? 'longer' : 'less'}, whatever it prints.`]
      : []),
    ...(Math.abs(start.value) > WORTH_S
      ? [`It starts ${Math.round(Math.abs(start.value))} s ${start.value > 0 ? 'later' : 'sooner'} than its record tells.`]
      : []),
  ]
}

/** "Since 2026-03-04 Dory takes 4 % longer (5 prints): look at its belts." */
export const driftSentence = (name: string, { since, share, prints }: Drift): string =>
  `Since ${since.slice(0, 10)} ${name} takes ${Math.round(100 * Math.abs(share))} % ${share > 0 ? 'longer' : 'less'} (${prints} prints)${share > 0 ? ': look at its belts, its wheels and what its firmware was told.' : ': was something tightened, or told to its firmware?'}`

export const reelSentence = (name: string, { since, share, prints }: Drift): string =>
  `Since ${since.slice(0, 10)} prints of ${name} weigh ${Math.round(100 * Math.abs(share))} % ${share > 0 ? 'more' : 'less'} (${prints} prints): another reel, another diameter, or another flow?`
