import { SHELF_FILE_VERSION, type Shelf } from '@sable/contract/shelf'
import { useRef, useState } from 'react'
import { z } from 'zod'
import { restoreBackup } from '../api/backup'
import { RequestError } from '../api/client'
import { Button } from '../ui/Button'
import { download } from '../ui/download'
import { type FileAsk, FilePicker } from '../ui/FilePicker'
import { Menu, MenuItem, MenuLabel, MenuSeparator } from '../ui/Menu'
import { RestoreQuestion } from './RestoreQuestion'
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
  const picker = useRef<FileAsk>(null)
  const backupPicker = useRef<FileAsk>(null)
  const [asked, setAsked] = useState<{ readonly file: File; readonly holds: string }>()
  const save = (): void =>
    download(
      'shelf.json',
      JSON.stringify({ format: 'sable-lantern/shelf', version: SHELF_FILE_VERSION, ...shelf }, null, 2),
      'application/json',
    )
  const read = (file: File): Promise<void> =>
    attempt(async () => {
      try {
        const { added, replaced } = await actions.importFile(await file.text(), shelf)
        onTold(`${file.name}: ${added} added, ${replaced} replaced`)
      } catch (error) {
        throw unreadable(file.name, error)
      }
    })
  const restore = (file: File, over: boolean): Promise<void> =>
    attempt(async () => {
      onTold(`Checking ${file.name} …`)
      try {
        await restoreBackup(file, over)
      } catch (error) {
        onTold('')
        if (!(error instanceof RequestError) || error.problem.code !== 'desk-not-empty') throw error
        setAsked({ file, holds: error.problem.detail })
        return
      }
      // Everything that this page holds is of before.
      window.location.assign('/')
    })
  return (
    <>
      <Menu align="end" trigger={<Button className="ml-1">File</Button>}>
        <MenuItem hint="JSON" onSelect={save}>
          Export the shelf
        </MenuItem>
        <MenuItem hint="JSON" onSelect={() => picker.current?.ask()}>
          Import a shelf …
        </MenuItem>
        <MenuItem onSelect={() => void attempt(() => actions.bringStarters())}>Bring back starter records</MenuItem>
        <MenuSeparator />
        <MenuLabel>The whole desk</MenuLabel>
        <MenuItem hint="ZIP" onSelect={() => window.location.assign('/api/backup')}>
          Back up everything
        </MenuItem>
        <MenuItem hint="ZIP" onSelect={() => backupPicker.current?.ask()}>
          Restore a backup …
        </MenuItem>
      </Menu>
      <FilePicker ref={backupPicker} label="Backup file" accept=".zip,application/zip" onFile={(file) => void restore(file, false)} />
      {asked && (
        <RestoreQuestion
          fileName={asked.file.name}
          holds={asked.holds}
          onAnswer={(replace) => {
            setAsked(undefined)
            if (replace) void restore(asked.file, true)
          }}
        />
      )}
      <FilePicker ref={picker} label="Shelf file" accept=".json,application/json" onFile={(file) => void read(file)} />
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
