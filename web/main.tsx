import './styles.css'
import './ui/theme'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router'
import { App } from './App'
import { BenchEntry } from './screens/bench/BenchEntry'
import { BenchScreen } from './screens/bench/BenchScreen'
import { Lost } from './screens/Lost'
import { ShelfScreen } from './screens/shelf/ShelfScreen'

const queries = new QueryClient({
  defaultOptions: {
    queries: { retry: true, retryDelay: 2000, refetchOnWindowFocus: false, networkMode: 'always' },
    mutations: { networkMode: 'always' },
  },
})

const router = createBrowserRouter([
  {
    element: <App />,
    children: [
      { path: '/', element: <Navigate to="/bench" replace /> },
      { path: '/bench', element: <BenchEntry /> },
      { path: '/bench/:lineupId', element: <Navigate to="ledger" replace /> },
      { path: '/bench/:lineupId/:view', element: <BenchScreen /> },
      { path: '/shelf', element: <Navigate to="/shelf/spools" replace /> },
      { path: '/shelf/:kind/:recordKey?', element: <ShelfScreen /> },
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
