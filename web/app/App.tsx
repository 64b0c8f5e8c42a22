import { BookOpenCheck, FlaskConical, Library, Moon, NotebookText, Sun } from 'lucide-react'
import { NavLink, Outlet } from 'react-router'
import { IconButton } from '../ui/Button'
import { useCurrency } from '../ui/currency'
import { toggleTheme, useTheme } from '../ui/theme'

const places = [
  { to: '/bench', name: 'Bench', Icon: NotebookText },
  { to: '/trials', name: 'Trials', Icon: FlaskConical },
  { to: '/log', name: 'Log', Icon: BookOpenCheck },
  { to: '/shelf', name: 'Shelf', Icon: Library },
] as const

/** The rail and the place that is open. */
export function App() {
  const theme = useTheme((state) => state.theme)
  const currency = useCurrency((state) => state.code)
  return (
    <div className="flex h-dvh min-w-0">
      <nav aria-label="Places" className="flex w-14 shrink-0 flex-col items-center gap-1 border-r border-line bg-sunk py-3">
        <img src="/icon.svg" alt="Sable Lantern" className="mb-3 size-8" />
        {places.map(({ to, name, Icon }) => (
          <NavLink
            key={to}
            to={to}
            className="flex w-12 flex-col items-center gap-0.5 rounded-md py-1.5 text-[10.5px] text-muted hover:text-ink aria-[current=page]:bg-raised aria-[current=page]:text-lantern-ink"
          >
            <Icon className="size-[18px]" aria-hidden />
            {name}
          </NavLink>
        ))}
        <div className="flex-1" />
        <IconButton label={theme === 'dark' ? 'Paper theme' : 'Sable theme'} onClick={toggleTheme}>
          {theme === 'dark' ? <Sun className="size-4" /> : <Moon className="size-4" />}
        </IconButton>
      </nav>
      {/* Texts read the currency when they are written: with another one all are written anew. */}
      <main key={currency} className="flex min-w-0 flex-1 flex-col">
        <Outlet />
      </main>
    </div>
  )
}
