import type { Shelf } from '@sable/contract/shelf'
import { useRef } from 'react'
import { z } from 'zod'
import { Button } from '../../ui/Button'
import { download } from '../../ui/download'
import { Menu, MenuItem } from '../../ui/Menu'
import type { ShelfActions } from './shelfStore'

/** The shelf out to a file and in from one, and the records that it began with. */
export function FileMenu({
  shelf,
  actions,
  attempt,
  onTold,
}: {
  shelf: Shelf
  actions: ShelfActions
  attempt: (work: () => Promise<unknown>) => Promise<void>
  onTold: (told: string) => void
}) {
  const picker = useRef<HTMLInputElement>(null)
  const save = (): void =>
    download('shelf.json', JSON.stringify({ format: 'sable-lantern/shelf', version: 1, ...shelf }, null, 2), 'application/json')
  const read = (file: File): Promise<void> =>
    attempt(async () => {
      try {
        const { added, replaced } = await actions.importFile(await file.text(), shelf)
        onTold(`${file.name}: ${added} added, ${replaced} replaced`)
      } catch (error) {
        throw unreadable(file.name, error)
      }
    })
  return (
    <>
      <Menu align="end" trigger={<Button className="ml-1">File</Button>}>
        <MenuItem hint="JSON" onSelect={save}>
          Export the shelf
        </MenuItem>
        <MenuItem hint="JSON" onSelect={() => picker.current?.click()}>
          Import a shelf …
        </MenuItem>
        <MenuItem onSelect={() => void attempt(() => actions.bringStarters())}>Bring back starter records</MenuItem>
      </Menu>
      <input
        ref={picker}
        type="file"
        accept=".json,application/json"
        aria-label="Shelf file"
        className="hidden"
        onChange={(event) => {
          const [file] = event.target.files ?? []
          if (file) void read(file)
          event.target.value = ''
        }}
      />
    </>
  )
}

/** What is wrong with a file, with the place in it. */
function unreadable(name: string, error: unknown): unknown {
  if (error instanceof SyntaxError) return new Error(`${name} is no JSON: ${error.message}. Nothing was changed.`)
  if (error instanceof z.ZodError) {
    const [issue] = error.issues
    return new Error(`${name}, ${issue?.path.join('.') || 'its beginning'}: ${issue?.message}. Nothing was changed.`)
  }
  return error
}
