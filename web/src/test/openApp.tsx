import type { QueryClient } from '@tanstack/react-query'
import { render, type RenderResult } from '@testing-library/react'
import userEvent, { type UserEvent } from '@testing-library/user-event'
import { createMemoryRouter } from 'react-router'
import { onTestFinished } from 'vitest'
import { Application, newClient } from '../Application.tsx'
import { routes } from '../router.tsx'

/** What is known of the server's answers while a test goes on; with it ends what was asked, which is answered to nobody. */
export function openClient(): QueryClient {
  const client = newClient(1)
  onTestFinished(() => client.clear())
  return client
}

/**
 * The whole application at an address, as a person opens it, with nothing known from before but what the device keeps. It ends with
 * its test.
 */
export function openApp(address: string): RenderResult & {
  user: UserEvent
  client: QueryClient
  router: ReturnType<typeof createMemoryRouter>
} {
  const router = createMemoryRouter(routes, { initialEntries: [address] })
  const client = openClient()
  return {
    ...render(<Application client={client} router={router} />),
    user: userEvent.setup({ delay: null }),
    client,
    router,
  }
}
