import './styles.css'
import './ui/theme'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { lazy, type ReactNode, StrictMode, Suspense } from 'react'
import { createRoot } from 'react-dom/client'
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router'
import { App } from './app/App'
import { Broken } from './app/Broken'
import { Lost } from './app/Lost'
import { askAhead } from './bench/shell/ahead'
import { BenchEntry } from './bench/shell/BenchEntry'
import { Loading } from './ui/Loading'

const queries = new QueryClient({
  defaultOptions: {
    queries: { retry: true, retryDelay: 2000, refetchOnWindowFocus: false, networkMode: 'always' },
    mutations: { networkMode: 'always' },
  },
})

askAhead(queries, location.pathname)

// Each place is loaded when it is opened.
const BenchScreen = lazy(() => import('./bench/shell/BenchScreen').then(({ BenchScreen }) => ({ default: BenchScreen })))
const BeginScreen = lazy(() => import('./bench/begin/BeginScreen').then(({ BeginScreen }) => ({ default: BeginScreen })))
const ShelfScreen = lazy(() => import('./shelf/ShelfScreen').then(({ ShelfScreen }) => ({ default: ShelfScreen })))
const TrialsScreen = lazy(() => import('./trials/TrialsScreen').then(({ TrialsScreen }) => ({ default: TrialsScreen })))
const LogScreen = lazy(() => import('./log/LogScreen').then(({ LogScreen }) => ({ default: LogScreen })))
const QueueScreen = lazy(() => import('./queue/QueueScreen').then(({ QueueScreen }) => ({ default: QueueScreen })))
const PlatesScreen = lazy(() => import('./plates/PlatesScreen').then(({ PlatesScreen }) => ({ default: PlatesScreen })))
const DaySheet = lazy(() => import('./queue/DaySheet').then(({ DaySheet }) => ({ default: DaySheet })))
const FaultsScreen = lazy(() => import('./faults/FaultsScreen').then(({ FaultsScreen }) => ({ default: FaultsScreen })))
const PrintSheet = lazy(() => import('./log/PrintSheet').then(({ PrintSheet }) => ({ default: PrintSheet })))
const ProfileSheet = lazy(() => import('./shelf/ProfileSheet').then(({ ProfileSheet }) => ({ default: ProfileSheet })))
const HandbookScreen = lazy(() => import('./handbook/HandbookScreen').then(({ HandbookScreen }) => ({ default: HandbookScreen })))
const Primitives = lazy(() => import('./app/Primitives'))
const opened = (what: string, screen: ReactNode) => ({
  element: <Suspense fallback={<Loading what={what} />}>{screen}</Suspense>,
  errorElement: <Broken />,
})

const router = createBrowserRouter([
  {
    element: <App />,
    errorElement: <Broken />,
    children: [
      { path: '/', element: <Navigate to="/bench" replace /> },
      { path: '/bench', element: <BenchEntry /> },
      { path: '/bench/new', ...opened('the bench', <BeginScreen />) },
      { path: '/bench/:lineupId', element: <Navigate to="ledger" replace /> },
      { path: '/bench/:lineupId/:view', ...opened('the lineup', <BenchScreen />) },
      { path: '/shelf', element: <Navigate to="/shelf/spools" replace /> },
      { path: '/shelf/profiles/:recordKey/sheet', ...opened('the profile', <ProfileSheet />) },
      { path: '/shelf/:kind/:recordKey?', ...opened('the shelf', <ShelfScreen />) },
      { path: '/trials', ...opened('the trials', <TrialsScreen />) },
      { path: '/log/:printId/sheet', ...opened('the print', <PrintSheet />) },
      { path: '/log/:printId?', ...opened('the log', <LogScreen />) },
      { path: '/queue/plates/:plateId?', ...opened('the plates', <PlatesScreen />) },
      { path: '/queue/:queueId/sheet', ...opened('the day sheet', <DaySheet />) },
      { path: '/queue/:queueId?', ...opened('the queue', <QueueScreen />) },
      { path: '/faults/:caseId?', ...opened('the faults', <FaultsScreen />) },
      { path: '/handbook/:kind?/:name?', ...opened('the handbook', <HandbookScreen />) },
      { path: '/primitives', ...opened('the primitives', <Primitives />) },
      { path: '*', element: <Lost /> },
    ],
  },
])

createRoot(document.getElementById('root') as HTMLElement).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <RouterProvider router={router} />
    </QueryClientProvider>
  </StrictMode>,
)
