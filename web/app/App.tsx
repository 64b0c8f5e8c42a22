import { BookOpenCheck, BookText, CalendarClock, FlaskConical, Keyboard, Library, Moon, NotebookText, Stethoscope, Sun } from 'lucide-react'
import { lazy, Suspense } from 'react'
import { NavLink, Outlet } from 'react-router'
import { Toaster } from 'sonner'
import { useHelp } from '../handbook/helpStore'
import { IconButton } from '../ui/Button'
import { useCurrency } from '../ui/currency'
import { useDates } from '../ui/dates'
import { Hints } from '../ui/Hints'
import { toggleTheme, useTheme } from '../ui/theme'
import { GlobalKeys } from './GlobalKeys'
import { useShortcuts } from './shortcutStore'

const HelpDrawer = lazy(() => import('../handbook/HelpDrawer'))

const places = [
  { to: '/bench', name: 'Bench', Icon: NotebookText },
  { to: '/trials', name: 'Trials', Icon: FlaskConical },
  { to: '/log', name: 'Log', Icon: BookOpenCheck },
  { to: '/faults', name: 'Faults', Icon: Stethoscope },
  { to: '/queue', name: 'Queue', Icon: CalendarClock },
  { to: '/shelf', name: 'Shelf', Icon: Library },
  { to: '/handbook', name: 'Handbook', Icon: BookText },
] as const

const toastLooks = {
  toast: 'flex w-80 items-center gap-3 rounded-md border border-strong bg-raised px-3 py-2 text-[12.5px] text-ink',
  actionButton: 'ml-auto h-6 shrink-0 rounded border border-line px-2 text-lantern-ink hover:border-strong',
} as const

/** The rail and the place that is open. */
export function App() {
  const theme = useTheme((state) => state.theme)
  const currency = useCurrency((state) => state.code)
  const dates = useDates((state) => state.form)
  const help = useHelp(({ id }) => id)
  return (
    <div className="flex h-dvh min-w-0">
      <nav aria-label="Places" className="flex w-[68px] shrink-0 flex-col items-center gap-1 border-r border-line bg-sunk py-3">
        <img src="/icon.svg" alt="Sable Lantern" className="mb-3 size-8" />
        {places.map(({ to, name, Icon }) => (
          <NavLink
            key={to}
            to={to}
            className="flex w-16 flex-col items-center gap-0.5 rounded-md py-1.5 text-[12px] text-muted hover:text-ink aria-[current=page]:bg-raised aria-[current=page]:text-lantern-ink"
          >
            <Icon className="size-[18px]" aria-hidden />
            {name}
          </NavLink>
        ))}
        <div className="flex-1" />
        <IconButton label="Keys (?)" onClick={() => useShortcuts.setState({ open: true })}>
          <Keyboard className="size-4" />
        </IconButton>
        <IconButton label={theme === 'dark' ? 'Paper theme' : 'Sable theme'} onClick={toggleTheme}>
          {theme === 'dark' ? <Sun className="size-4" /> : <Moon className="size-4" />}
        </IconButton>
      </nav>
      {/* Texts read the currency and the form of dates when they are written: with another one all are written anew. */}
      <main key={`${currency} ${dates}`} className="flex min-w-0 flex-1 flex-col">
        <Outlet />
      </main>
      <GlobalKeys />
      <Hints />
      {help !== undefined && (
        <Suspense fallback={null}>
          <HelpDrawer id={help} />
        </Suspense>
      )}
      <Toaster
        theme={theme}
        position="bottom-left"
        offset={{ left: 80, bottom: 16 }}
        toastOptions={{ unstyled: true, classNames: toastLooks }}
      />
    </div>
  )
}
