import createCache from '@emotion/cache'
import { CacheProvider } from '@emotion/react'
import { ChakraProvider } from '@chakra-ui/react'
import { QueryClientProvider } from '@tanstack/react-query'
import { lazy, StrictMode, Suspense } from 'react'
import { createRoot } from 'react-dom/client'
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router'
import '@fontsource-variable/jetbrains-mono/wght.css'
import '@fontsource-variable/newsreader/wght.css'
import '@fontsource-variable/source-sans-3/wght.css'
import { follow } from './api/events'
import { client } from './api/queries'
import { NoSuchPage } from './shell/Alone'
import Frame from './shell/Frame'
import { system } from './theme/system'
// In this order: later sheets build on earlier ones.
import './theme/base.css'
import './shell/frame.css'
import './parts/parts.css'
import './theme/ink.css'
import './margin/margin.css'
import './theme/roles.css'
import './theme/media.css'

const Home = lazy(() => import('./home/Home'))
const PageSheet = lazy(() => import('./pages/PageSheet'))
const SettingsPage = lazy(() => import('./shell/SettingsPage'))

// Styles are let in by the page's nonce alone.
const nonce = document.querySelector<HTMLMetaElement>('meta[name=csp-nonce]')?.content
const cache = createCache({ key: 'j', nonce })

const router = createBrowserRouter([
  {
    path: '/',
    element: (
      <Suspense>
        <Home />
      </Suspense>
    ),
  },
  {
    path: '/settings',
    element: (
      <Suspense>
        <SettingsPage />
      </Suspense>
    ),
  },
  { path: '/c/:id', element: <Navigate to="overview" replace /> },
  {
    path: '/c/:id/page/:page',
    element: (
      <Suspense>
        <PageSheet />
      </Suspense>
    ),
  },
  { path: '/c/:id/:view', element: <Frame /> },
  { path: '*', element: <NoSuchPage /> },
])

// One connection for as long as the page is open: between two views nothing is missed.
follow(client)

// The first drawing is a task of its own, so that reading the program and drawing together never hold a reader up.
const root = document.getElementById('root')
const draw = () =>
  root &&
  createRoot(root).render(
    <StrictMode>
      <CacheProvider value={cache}>
        <ChakraProvider value={system}>
          <QueryClientProvider client={client}>
            <RouterProvider router={router} />
          </QueryClientProvider>
        </ChakraProvider>
      </CacheProvider>
    </StrictMode>,
  )
setTimeout(draw)
