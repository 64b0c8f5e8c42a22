import { useQueryClient } from '@tanstack/react-query'
import { useRef } from 'react'
import { asRefusal } from '../../api/asRefusal'
import { partsQuery } from '../../api/parts'
import { shelfQuery } from '../../api/shelf'
import { useBench } from '../../desk/bench'
import { Button } from '../../ui/Button'
import { type FileAsk, FilePicker } from '../../ui/FilePicker'
import { takeLineup } from './carryLineup'
import { useBeginLineup } from './useBeginLineup'

/** Opens a lineup from a file, with the model and the records that it brings. */
export function ImportButton() {
  const { part, shelf, onRefusal } = useBench()
  const queries = useQueryClient()
  const begin = useBeginLineup()
  const filePicker = useRef<FileAsk>(null)
  const take = async (file: File): Promise<void> => {
    try {
      const { content, told } = await takeLineup(file, { parts: await queries.fetchQuery(partsQuery), shelf, part })
      await Promise.all([queries.invalidateQueries(partsQuery), queries.invalidateQueries(shelfQuery)])
      await begin(content)
      if (told) onRefusal(told)
    } catch (error) {
      onRefusal(asRefusal(error))
    }
  }
  return (
    <>
      <Button onClick={() => filePicker.current?.ask()}>Import</Button>
      <FilePicker
        ref={filePicker}
        label="Lineup file"
        accept=".zip,.json,application/zip,application/json"
        onFile={(file) => void take(file)}
      />
    </>
  )
}
