import '@fontsource-variable/literata/wght.css'
import '@fontsource-variable/literata/wght-italic.css'
import '@fontsource-variable/source-sans-3/wght.css'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { App as AntApp, ConfigProvider } from 'antd'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { RouterProvider } from 'react-router'
import { ApiError } from './api/client.ts'
import { giveStylesTheNonce, nonce } from './nonce.ts'
import { router } from './router.tsx'
import './theme.css'
import { applyTheme, themeConfig, useTheme } from './theme.ts'

giveStylesTheNonce()
applyTheme()

const client = new QueryClient({
  defaultOptions: {
    queries: {
      // What was taken along answers where there is no connection: nothing waits for one.
      networkMode: 'always',
      staleTime: 30_000,
      // A refusal stays a refusal; a lost connection may come back.
      retry: (count, error) =>
        count < 2 && !(error instanceof ApiError && error.status >= 400 && error.status < 500),
    },
    mutations: { networkMode: 'always' },
  },
})

function Root() {
  return (
    <ConfigProvider theme={themeConfig(useTheme())} csp={{ nonce }}>
      <AntApp message={{ maxCount: 3 }} className="app-root">
        <QueryClientProvider client={client}>
          <RouterProvider router={router} />
        </QueryClientProvider>
      </AntApp>
    </ConfigProvider>
  )
}

if (import.meta.env.PROD && 'serviceWorker' in navigator) void navigator.serviceWorker.register('/sw.js')

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <Root />
  </StrictMode>,
)
