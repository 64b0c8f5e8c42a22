import './styles.css'
import './ui/theme'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router'
import { App } from './App'
import { Broken } from './screens/Broken'
import { BenchEntry } from './screens/bench/BenchEntry'
import { Lost } from './screens/Lost'
import { Loading } from './ui/Loading'

const queries = new QueryClient({
  defaultOptions: {
    queries: { retry: true, retryDelay: 2000, refetchOnWindowFocus: false, networkMode: 'always' },
    mutations: { networkMode: 'always' },
  },
})

// Each place is loaded when it is opened.
const bench = async () => ({ Component: (await import('./screens/bench/BenchScreen')).BenchScreen })
const shelf = async () => ({ Component: (await import('./screens/shelf/ShelfScreen')).ShelfScreen })

const router = createBrowserRouter([
  {
    element: <App />,
    errorElement: <Broken />,
    hydrateFallbackElement: <Loading what="the desk" />,
    children: [
      { path: '/', element: <Navigate to="/bench" replace /> },
      { path: '/bench', element: <BenchEntry /> },
      { path: '/bench/:lineupId', element: <Navigate to="ledger" replace /> },
      { path: '/bench/:lineupId/:view', lazy: bench, errorElement: <Broken /> },
      { path: '/shelf', element: <Navigate to="/shelf/spools" replace /> },
      { path: '/shelf/:kind/:recordKey?', lazy: shelf, errorElement: <Broken /> },
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
