import { send } from './client'

/** Puts a backup in the place of what the desk holds. @throws RequestError `desk-not-empty` unless `over` says that it may */
export const restoreBackup = async (file: File, over: boolean): Promise<void> => {
  await send(`/api/backup/restored${over ? '?over=1' : ''}`, {
    method: 'POST',
    body: file,
    patienceMs: Number.POSITIVE_INFINITY,
    headers: { 'Content-Type': 'application/zip' },
  })
}
