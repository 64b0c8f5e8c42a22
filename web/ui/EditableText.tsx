import clsx from 'clsx'
import { useState } from 'react'

/** A text that becomes a field when it is clicked or Enter is pressed on it. Escape leaves it as it was. */
export function EditableText({
  text,
  label,
  onCommit,
  className,
}: {
  text: string
  label: string
  onCommit: (text: string) => void
  className?: string
}) {
  const [draft, setDraft] = useState<string>()
  if (draft === undefined) {
    return (
      <button
        type="button"
        aria-label={`${label}: ${text}. Rename`}
        data-hint={`${text}: press to rename`}
        onClick={() => setDraft(text)}
        className={clsx('min-w-0 truncate rounded px-1 text-left hover:bg-line', className)}
      >
        {text}
      </button>
    )
  }
  const finish = (commit: boolean): void => {
    if (commit) onCommit(draft)
    setDraft(undefined)
  }
  return (
    <input
      // The field takes the place of the text that was just activated.
      ref={(field) => field?.focus()}
      aria-label={label}
      value={draft}
      maxLength={80}
      onChange={(event) => setDraft(event.target.value)}
      onFocus={(event) => event.target.select()}
      onBlur={() => finish(true)}
      onKeyDown={(event) => {
        if (event.key === 'Enter') finish(true)
        if (event.key === 'Escape') finish(false)
      }}
      className={clsx('min-w-0 flex-1 rounded border border-lantern bg-sunk px-1 outline-none', className)}
    />
  )
}
