import '@fontsource-variable/archivo/wdth.css'
import './ui/tokens.css'

import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { lazy, StrictMode, Suspense } from 'react'
import { createRoot } from 'react-dom/client'
import { BrowserRouter, Route, Routes } from 'react-router'

import { CarPage } from './shell/CarPage'
import { CarsPage } from './shell/CarsPage'

const Notices = lazy(() => import('./shell/Notices'))

// the server may stand on this very machine: what the browser says of the net tells nothing of it
const queries = new QueryClient({
  defaultOptions: { queries: { retry: 1, refetchOnWindowFocus: false, networkMode: 'always' } },
})

createRoot(document.getElementById('root') as HTMLElement).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <BrowserRouter>
        <Routes>
          <Route path="/" element={<CarsPage />} />
          <Route path="/car/:project/:station?" element={<CarPage />} />
          <Route
            path="/notices"
            element={
              <Suspense>
                <Notices />
              </Suspense>
            }
          />
          <Route path="*" element={<CarsPage />} />
        </Routes>
      </BrowserRouter>
    </QueryClientProvider>
  </StrictMode>,
)
