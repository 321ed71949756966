import 'fake-indexeddb/auto'
import { afterEach } from 'vitest'

/** What a browser has and the tests' does not. Files of components say `@vitest-environment happy-dom`. */
if (typeof window !== 'undefined') {
  const { cleanup, configure, getConfig } = await import('@testing-library/react')
  const { getElementError } = getConfig()
  configure({
    // A machine with more to do is no reason to fail.
    asyncUtilTimeout: 60_000,
    // What is there is written out when waiting has failed, not each time that it goes on.
    getElementError: (message, container) => {
      const { _disableExpensiveErrorDiagnostics: isWaiting } = getConfig() as {
        _disableExpensiveErrorDiagnostics?: boolean
      }
      return isWaiting ? new Error(message ?? undefined) : getElementError(message, container)
    },
  })
  afterEach(cleanup)
  const { writable, configurable } = { writable: true, configurable: true }
  const media = (query: string) => ({
    matches: false,
    media: query,
    addEventListener: () => {},
    removeEventListener: () => {},
    addListener: () => {},
    removeListener: () => {},
  })
  Object.defineProperty(window, 'matchMedia', { writable, configurable, value: media })
  Object.defineProperty(window, 'ResizeObserver', {
    writable,
    configurable,
    value: class {
      constructor(private readonly tell: ResizeObserverCallback) {}
      observe = (element: Element) =>
        this.tell(
          [{ target: element, contentRect: new DOMRect(0, 0, 900, 600) } as unknown as ResizeObserverEntry],
          this,
        )
      unobserve = () => {}
      disconnect = () => {}
    },
  })
  /** Nothing is computed by it: what waits for light goes on waiting. */
  Object.defineProperty(window, 'Worker', {
    writable,
    configurable,
    value: class extends EventTarget {
      postMessage = () => {}
      terminate = () => {}
    },
  })
  /** Names of locks that are held; a page that is gone, as after each test, holds none. */
  let held = new Set<string>()
  afterEach(() => {
    held = new Set()
  })
  Object.defineProperty(navigator, 'locks', {
    configurable,
    value: {
      /** Whoever asks does not wait: a lock that is held is not had. */
      request: async (
        name: string,
        _: { ifAvailable: true },
        run: (lock: object | null) => Promise<unknown>,
      ) => {
        const here = held
        if (here.has(name)) return run(null)
        here.add(name)
        try {
          return await run({})
        } finally {
          here.delete(name)
        }
      },
    },
  })
  Element.prototype.scrollIntoView = () => {}
  // Nothing is laid out here: what an element says of itself is all there is to know of its looks. Going through every rule of
  // the component library's styles for each question takes most of the time that these tests have.
  window.getComputedStyle = (element) => (element as HTMLElement).style
}
