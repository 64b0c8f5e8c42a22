import type { ShelfStore } from '../shelf/shelfStore'

/** Of the printer for which a simulated one stands in. */
const FOR = 'lugger'
/** Where stand-ins listen; an address that somebody typed for a machine of their own is another one. */
const LENT = /^127\.0\.0\.1:\d+$/

/** Lets the demo's printer be reached at the stand-in that was started with it; an address of its own is left alone. */
export async function lendStandin(shelf: ShelfStore, address: string | undefined): Promise<void> {
  if (address === undefined || address === '') return
  const record = (await shelf.records()).printers.find(({ key }) => key === FOR)
  if (!record || record.address === address || (record.address !== undefined && !LENT.test(record.address))) return
  const { starter: _, archived: __, revision, ...own } = record
  await shelf.write('printers', FOR, { ...own, address }, revision)
}
