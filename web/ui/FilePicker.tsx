import { type Ref, useImperativeHandle, useRef } from 'react'

/** Lets a button or a menu ask for a file. */
export interface FileAsk {
  readonly ask: () => void
}

/** A field for a file that is not seen; the same file can be chosen twice. */
export function FilePicker({
  ref,
  label,
  accept,
  onFile,
}: {
  ref: Ref<FileAsk>
  label: string
  accept: string
  onFile: (file: File) => void
}) {
  const input = useRef<HTMLInputElement>(null)
  useImperativeHandle(ref, () => ({ ask: () => input.current?.click() }))
  return (
    <input
      ref={input}
      type="file"
      accept={accept}
      aria-label={label}
      className="hidden"
      onChange={(event) => {
        const [file] = event.target.files ?? []
        if (file) onFile(file)
        event.target.value = ''
      }}
    />
  )
}
