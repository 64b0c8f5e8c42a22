/** Something to read off a print. */
export type Question = { readonly id: string; readonly label: string; readonly needed?: boolean } & (
  | { readonly as: 'choice'; readonly of: readonly { readonly id: string; readonly name: string }[] }
  | { readonly as: 'number'; readonly unit: string; readonly least: number; readonly most: number }
)

/** What was read, by the questions' ids: a number in the question's unit, or one of its choices. */
export type Answers = Readonly<Record<string, number | string>>

export const choice = (id: string, label: string, of: Readonly<Record<string, string>>, needed = false): Question => ({
  id,
  label,
  as: 'choice',
  of: Object.entries(of).map(([own, name]) => ({ id: own, name })),
  needed,
})

export const measure = (id: string, label: string, unit: string, least: number, most: number, needed = false): Question => ({
  id,
  label,
  as: 'number',
  unit,
  least,
  most,
  needed,
})

/** An answer that is a number; nothing where it was not given. */
export const numberIn = (answers: Answers | undefined, id: string): number | undefined => {
  const given = answers?.[id]
  return typeof given === 'number' ? given : undefined
}
