import type { QueryClient } from '@tanstack/react-query'
import { render, type RenderResult } from '@testing-library/react'
import userEvent, { type UserEvent } from '@testing-library/user-event'
import { createMemoryRouter } from 'react-router'
import { onTestFinished } from 'vitest'
import { Application, newClient } from '../Application.tsx'
import { routes } from '../router.tsx'

/**
 * The whole application at an address, as a person opens it, with nothing known from before but what the device keeps. It ends with
 * its test: what it asked for is answered to nobody.
 */
export function openApp(address: string): RenderResult & {
  user: UserEvent
  client: QueryClient
  router: ReturnType<typeof createMemoryRouter>
} {
  const router = createMemoryRouter(routes, { initialEntries: [address] })
  const client = newClient(1)
  onTestFinished(() => client.clear())
  return {
    ...render(<Application client={client} router={router} />),
    user: userEvent.setup({ delay: null }),
    client,
    router,
  }
}
