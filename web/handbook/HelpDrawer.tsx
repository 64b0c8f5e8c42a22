import { Link } from 'react-router'
import { Drawer } from '../ui/Drawer'
import { EntryText } from './EntryText'
import { showHelp } from './helpStore'
import { entryOf } from './pages'

/** An entry of the handbook beside the work; its links lead on within it. */
export default function HelpDrawer({ id }: { id: string }) {
  const entry = entryOf(id)
  const close = (): void => showHelp(undefined)
  return (
    <Drawer title={entry?.title ?? 'Handbook'} onClose={close}>
      {entry ? <EntryText entry={entry} onLink={showHelp} /> : <p className="text-muted">The handbook has nothing on this.</p>}
      <p className="mt-5 border-t border-line pt-3 text-[12px]">
        <Link to={`/handbook/${entry?.id ?? ''}`} onClick={close} className="text-muted underline decoration-line underline-offset-2">
          in the handbook
        </Link>
      </p>
    </Drawer>
  )
}
