import { create } from 'zustand'

/** Which entry of the handbook is open beside the work; nothing while none is. */
export const useHelp = create<{ readonly id?: string | undefined }>()(() => ({}))

/** Opens an entry beside whatever is being done: "setting/layerHeight". */
export const showHelp = (id: string | undefined): void => useHelp.setState({ id })
