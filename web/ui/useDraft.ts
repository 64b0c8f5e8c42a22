import { useState } from 'react'

export interface Draft {
  /** What stands in the field. */
  readonly value: string
  readonly wrong: boolean
  readonly onChange: (event: { readonly target: { readonly value: string } }) => void
  readonly onBlur: () => void
}

/**
 * What is being typed into a field: handed on at once, kept as it is until the field is left, and marked while it cannot be
 * taken.
 *
 * @param text what stands there when nothing is typed
 * @param take returns whether the text could be taken
 */
export function useDraft(text: string, take: (typed: string) => boolean): Draft {
  const [draft, setDraft] = useState<string>()
  const [wrong, setWrong] = useState(false)
  return {
    value: draft ?? text,
    wrong,
    onChange({ target: { value } }) {
      setDraft(value)
      setWrong(!take(value))
    },
    onBlur() {
      setDraft(undefined)
      setWrong(false)
    },
  }
}
