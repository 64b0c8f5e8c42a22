import type { Candidate, LineupContent } from '@sable/contract/lineup'
import type { Placement } from '@sable/core/mesh/place'
import type { Purpose } from '@sable/core/physics/strength/purpose'
import type { SettingName, SettingValue, SettingValues } from '@sable/core/profile/settings'

/** Edits of a lineup: each takes the content and gives the changed one, so that every step can be undone. */

export type SetupField = 'printer' | 'nozzle' | 'material' | 'spool'

const changeCandidate = (content: LineupContent, id: string, change: (candidate: Candidate) => Candidate): LineupContent => ({
  ...content,
  candidates: content.candidates.map((candidate) => (candidate.id === id ? change(candidate) : candidate)),
})

/** Sets a value, or with `undefined` takes it out of the profile so that it comes from the shelf again. */
export function setValue<K extends SettingName>(
  content: LineupContent,
  id: string,
  name: K,
  value: SettingValue<K> | number | string | undefined,
): LineupContent {
  return changeCandidate(content, id, (candidate) => {
    const { [name]: _, ...rest } = candidate.values
    return { ...candidate, values: (value === undefined ? rest : { ...rest, [name]: value }) as SettingValues }
  })
}

/** Sets several values of a candidate at once. */
export const setValues = (content: LineupContent, id: string, values: SettingValues): LineupContent =>
  changeCandidate(content, id, (candidate) => ({ ...candidate, values: { ...candidate.values, ...values } }))

/** Replaces the places where other values hold. */
export const setOverrides = (content: LineupContent, id: string, overrides: Candidate['overrides']): LineupContent =>
  changeCandidate(content, id, (candidate) => ({ ...candidate, overrides }))

/**
 * Chooses what a candidate prints with. A spool brings its material, and leaves with it when another one is chosen.
 *
 * @param material of the spool, when one is chosen
 */
export const setSetup = (
  content: LineupContent,
  id: string,
  field: SetupField,
  key: string | undefined,
  material?: string | undefined,
): LineupContent =>
  changeCandidate(content, id, ({ spool, ...candidate }) => {
    if (field === 'spool') return key === undefined ? candidate : { ...candidate, material: material ?? candidate.material, spool: key }
    const stays = field !== 'material' || key === candidate.material
    return { ...candidate, [field]: key ?? candidate[field], ...(spool !== undefined && stays ? { spool } : {}) }
  })

/** Replaces everything but name and identity, as pasting a whole column does. */
export const setColumn = (content: LineupContent, id: string, from: Omit<Candidate, 'id' | 'name'>): LineupContent =>
  changeCandidate(content, id, ({ name }) => ({ ...from, id, name }))

export const renameCandidate = (content: LineupContent, id: string, name: string): LineupContent => {
  const trimmed = name.trim().slice(0, 80)
  return trimmed === '' ? content : changeCandidate(content, id, (candidate) => ({ ...candidate, name: trimmed }))
}

export const addCandidate = (content: LineupContent, candidate: Candidate): LineupContent => ({
  ...content,
  candidates: [...content.candidates, candidate],
})

/** Puts a copy to the right of the original. */
export function duplicateCandidate(content: LineupContent, id: string, newId: string): LineupContent {
  const at = content.candidates.findIndex((candidate) => candidate.id === id)
  const original = content.candidates[at]
  if (!original) return content
  const copy = {
    ...original,
    id: newId,
    name: nextName(
      original.name,
      content.candidates.map(({ name }) => name),
    ),
  }
  return { ...content, candidates: content.candidates.toSpliced(at + 1, 0, copy) }
}

export const removeCandidate = (content: LineupContent, id: string): LineupContent => ({
  ...content,
  candidates: content.candidates.filter((candidate) => candidate.id !== id),
})

/** Moves a candidate to the place of another. */
export function moveCandidate(content: LineupContent, id: string, to: number): LineupContent {
  const from = content.candidates.findIndex((candidate) => candidate.id === id)
  const moved = content.candidates[from]
  if (!moved || to < 0 || to >= content.candidates.length) return content
  return { ...content, candidates: content.candidates.toSpliced(from, 1).toSpliced(to, 0, moved) }
}

export const setPart = (content: LineupContent, partId: string): LineupContent =>
  content.partId === partId ? content : { ...content, partId, placement: { scale: 1, rotateDeg: [0, 0, 0] } }

export const setPurpose = (content: LineupContent, purpose: Purpose): LineupContent => ({ ...content, purpose })

export const setPlacement = (content: LineupContent, placement: Placement): LineupContent => ({ ...content, placement })

export const renameLineup = (content: LineupContent, name: string): LineupContent => {
  const trimmed = name.trim().slice(0, 80)
  return trimmed === '' ? content : { ...content, name: trimmed }
}

/** "sturdy" → "sturdy 2", "sturdy 2" → "sturdy 3", whichever is free. */
export function nextName(name: string, taken: readonly string[]): string {
  const stem = name.replace(/ \d+$/, '').slice(0, 74)
  let number = 2
  while (taken.includes(`${stem} ${number}`)) number++
  return `${stem} ${number}`
}

/** What a copy is called: a number in the name of a machine is no count of copies. */
export function copyName(name: string, taken: readonly string[]): string {
  const copy = `${name.slice(0, 72)} copy`
  return taken.includes(copy) ? nextName(copy, taken) : copy
}
