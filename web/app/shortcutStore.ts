import { create } from 'zustand'

/** Whether the sheet of keys is open. */
export const useShortcuts = create<{ readonly open: boolean }>()(() => ({ open: false }))
