import '@fontsource-variable/literata/wght.css'
import '@fontsource-variable/literata/wght-italic.css'
import '@fontsource-variable/source-sans-3/wght.css'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { createBrowserRouter } from 'react-router'
import { persister } from './api/answers.ts'
import { forgetEarly } from './api/early.ts'
import { askFirst } from './api/session.ts'
import { Application, newClient } from './Application.tsx'
import { giveStylesTheNonce } from './nonce.ts'
import { routes } from './router.tsx'
import './theme.css'
import { applyTheme } from './theme.ts'

const BEGAN_ANEW = 'border.began-anew'
const AGAIN_MS = 60_000
const TIDIED_AFTER_MS = 10_000
const WAITS_MS = 1_000
const KEPT_AFTER_MS = 2_000

giveStylesTheNonce()
applyTheme()

// After an update of the application a page that is still open asks for files that are gone: it begins anew, once.
addEventListener('vite:preloadError', (e) => {
  const last = Number(sessionStorage.getItem(BEGAN_ANEW) ?? 0)
  if (Date.now() - last < AGAIN_MS || !navigator.onLine) return
  e.preventDefault()
  sessionStorage.setItem(BEGAN_ANEW, String(Date.now()))
  location.reload()
})

// Answers that are old, or of another version of the application, are let go when there is time.
setTimeout(() => void persister.persisterGc().catch(() => {}), TIDIED_AFTER_MS)

const client = newClient()
const router = createBrowserRouter(routes)
const asked = askFirst(client, location)
// Shown once, with what it is of; what takes longer is waited for where it belongs.
await Promise.race([
  Promise.all([asked, filesOf(router)]),
  new Promise((resolve) => setTimeout(resolve, WAITS_MS)),
])
forgetEarly()
createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <Application client={client} router={router} />
  </StrictMode>,
)

// The application is taken onto the device once it is seen: its files are many.
if (import.meta.env.PROD && 'serviceWorker' in navigator)
  setTimeout(() => void navigator.serviceWorker.register('/sw.js'), KEPT_AFTER_MS)

/** @returns when the files of the screen at the address are there */
function filesOf({ state, subscribe }: typeof router): Promise<void> {
  if (state.initialized) return Promise.resolve()
  return new Promise((resolve) => {
    const stop = subscribe((now) => {
      if (!now.initialized) return
      stop()
      resolve()
    })
  })
}
