import { lazy, Suspense, useState } from 'react'
import { useHotkeys } from 'react-hotkeys-hook'
import { useNavigate } from 'react-router'
import { useShortcuts } from './shortcutStore'

// Both are opened seldom and bring much with them.
const Palette = lazy(() => import('./Palette'))
const ShortcutSheet = lazy(() => import('./ShortcutSheet'))

/** Keys that do the same in every place. */
export function GlobalKeys() {
  const [finding, setFinding] = useState(false)
  const showsKeys = useShortcuts((state) => state.open)
  const navigate = useNavigate()
  useHotkeys('mod+k', () => setFinding((before) => !before), { preventDefault: true, enableOnFormTags: true })
  // A row of the ledger has an answer of its own.
  useHotkeys('?', (event) => event.defaultPrevented || useShortcuts.setState({ open: true }), { useKey: true })
  useHotkeys('f1', () => void navigate('/handbook'), { preventDefault: true, enableOnFormTags: true })
  return (
    <Suspense fallback={null}>
      {finding && <Palette onClose={() => setFinding(false)} />}
      {showsKeys && <ShortcutSheet onClose={() => useShortcuts.setState({ open: false })} />}
    </Suspense>
  )
}
