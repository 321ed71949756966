import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { flushSync } from 'react-dom'
import type { createBrowserRouter } from 'react-router'
import { RouterProvider } from 'react-router'
import { isRefusal } from './api/client.ts'
import { Announced } from './frame/Announced.tsx'
import { MeanwhileAsked } from './frame/Meanwhile.tsx'

const RETRIES = 2

/**
 * What is known of the server's answers, and how they are asked for.
 *
 * @param retryMs waited before a lost question is asked again; longer each time unless given
 */
export const newClient = (retryMs?: number): QueryClient =>
  new QueryClient({
    defaultOptions: {
      queries: {
        // What the device keeps answers where there is no connection: nothing waits for one.
        networkMode: 'always',
        // What has changed is told (`followGarden`); this is for what nobody tells of.
        staleTime: 5 * 60_000,
        // A refusal stays a refusal; a lost connection may come back.
        ...(retryMs !== undefined && { retryDelay: retryMs }),
        retry: (count, error) => count < RETRIES && !isRefusal(error),
      },
      mutations: { networkMode: 'always' },
    },
  })

export function Application({
  client,
  router,
}: {
  client: QueryClient
  router: ReturnType<typeof createBrowserRouter>
}) {
  return (
    <QueryClientProvider client={client}>
      <div className="app-root">
        <RouterProvider router={router} flushSync={(update) => void flushSync(update)} />
        <Announced />
        <MeanwhileAsked />
      </div>
    </QueryClientProvider>
  )
}
